'use server';

import { BODIES } from '@/core/shell/bodies';
import { NEW_POINT } from '@/core/shell/job/entities';
import { fold } from '@/core/shell/chart/draft';
import { loadJob } from '@/db/jobs';
import { insert } from '@/db/table';
import { layingOut } from '@/formats/inputs/lay-out';
import { done, failed } from '@/formats/outcome';
import { edit } from '../edit';
import { useCase } from '../use-case';

/**
 * Makes points of the places chosen on a body's picture: named, on their sides, measured from nothing. A place whose code
 * is a point already is that point. Asked twice, nothing is made twice.
 */
export const layOut = useCase(layingOut, ({ jobId, places, ...body }, context) =>
  context.database.transaction(async (tx) => {
    const rows = await loadJob(tx, jobId);
    if (!rows) return failed('job', 'this job is not here any more');
    const picture = BODIES[body.body];
    const chosen = picture.places.filter(({ code }) => places.includes(code));
    const here = new Map(rows.points.map((point) => [fold(point.code), point]));
    const made = chosen
      .filter(({ code }) => !here.has(fold(code)))
      .map(({ code, name, side }) => ({
        ...NEW_POINT,
        ...{ id: context.newId(), jobId, code, name, side, place: code },
      }));
    await insert(tx, 'points', made);
    for (const { code, name } of chosen) {
      const point = here.get(fold(code));
      if (point && point.place !== code)
        await edit(tx, 'points', { ...point, place: code, name: point.name || name }, context);
    }
    const idOf = new Map([...rows.points, ...made].map(({ code, id }) => [fold(code), id]));
    const drawn = new Set(rows.memberLines.map(({ fromPointId, toPointId }) => `${fromPointId} ${toPointId}`));
    const lines = picture.members.flatMap(({ from: a, to: b }) => {
      const [fromPointId, toPointId] = [idOf.get(fold(a)), idOf.get(fold(b))];
      const isNew = fromPointId && toPointId && !drawn.has(`${fromPointId} ${toPointId}`);
      return isNew ? [{ id: context.newId(), jobId, fromPointId, toPointId }] : [];
    });
    await insert(tx, 'memberLines', lines);
    await edit(tx, 'jobs', { ...rows.jobs[0]!, ...body }, context);
    return done({ points: made.length });
  }),
);
