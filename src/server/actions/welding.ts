'use server';

import * as input from '@/formats/inputs/welding';
import type { WeldMark, WorkItem } from '@/core/shell/job/entities';
import type { RowOf } from '@/core/shell/job/job-rows';
import type { Queryable } from '@/db/database';
import { columns, insert } from '@/db/table';
import { done, failed } from '@/formats/outcome';
import { edit, overtaken, type Editor } from '../edit';
import { measuringCase, useCase } from '../use-case';

/** Says how a joint is welded again; how it was said before is kept. */
export const saveWeldSeam = useCase(input.savedWeldSeam, async ({ seam, stretches }, context) => {
  if (stretches.some(({ seamId }) => seamId !== seam.id))
    return failed('stretches', 'a stretch of another seam cannot be put here');
  if (stretches.some(({ ends }) => ends > seam.long))
    return failed('stretches', 'a stretch lies beyond the end of the seam');
  return context.database.transaction(async (tx) => {
    const [joint] = await tx.query('select from joint where id = $1 and job_id = $2', [seam.id, seam.jobId]);
    if (!joint) return failed('joint', 'this joint is not in the job any more');
    if (seam.inTurnWithId !== null) {
      const [other] = await tx.query<{ inTurnWithId: string | null }>(
        `select other.in_turn_with_id from weld_seam other
         join joint as there on there.id = other.id join joint as here on here.id = $1
         where other.id = $2 and other.id <> $1 and there.panel_id = here.panel_id`,
        [seam.id, seam.inTurnWithId],
      );
      if (!other)
        return failed('inTurnWith', 'it is laid in turn with another seam of the same panel, marked out already');
      if (other.inTurnWithId !== null && other.inTurnWithId !== seam.id)
        return failed('inTurnWith', 'that seam is laid in turn with another one');
    }
    const [there] = await tx.query('select from weld_seam where id = $1', [seam.id]);
    if (there) {
      const result = await edit(tx, 'weldSeams', seam, context);
      if (!result.ok) return overtaken(result.current);
      await tx.query('delete from weld_stretch where seam_id = $1', [seam.id]);
    } else await insert(tx, 'weldSeams', [{ ...seam, version: 1 }]);
    await insert(tx, 'weldStretches', stretches);
    return done(null);
  });
});

/** Says what a joint shrank, in place of what was said before. */
export const setWeldMarks = measuringCase(input.setWeldMarks, ({ seamId, marks }, { database, signature }) => {
  if (marks.some((mark) => mark.seamId !== seamId))
    return Promise.resolve(failed('marks', 'marks of another joint cannot be put here'));
  return database.transaction(async (tx) => {
    const before = await tx.query<WeldMark>(`select ${columns('weldMarks')} from weld_mark where seam_id = $1`, [
      seamId,
    ]);
    const known = new Map(before.map((mark) => [mark.id, mark]));
    await tx.query('delete from weld_mark where seam_id = $1', [seamId]);
    const said = marks.map((mark) => {
      const old = known.get(mark.id);
      const isSame = old && old.before === mark.before && old.cold === mark.cold && old.sd === mark.sd;
      return isSame ? { ...mark, at: old.at, author: old.author, personId: old.personId } : { ...mark, ...signature };
    });
    await insert(tx, 'weldMarks', said);
    return done(null);
  });
});

/** Writes a crack: a new one, or one that is otherwise than it was said. */
export const saveCrack = useCase(input.savedCrack, ({ item, crack }, context) =>
  item.id !== crack.id || item.kind !== 'crack'
    ? Promise.resolve(failed('item', 'this is no crack'))
    : context.database.transaction((tx) => writeItem(tx, 'cracks', item, crack, context)),
);

/** Writes what is put on to stiffen. */
export const saveStiffener = useCase(input.savedStiffener, ({ item, stiffener }, context) =>
  item.id !== stiffener.id || item.kind !== 'stiffener'
    ? Promise.resolve(failed('item', 'this is no stiffener'))
    : context.database.transaction((tx) => writeItem(tx, 'stiffeners', item, stiffener, context)),
);

async function writeItem<T extends 'cracks' | 'stiffeners'>(
  tx: Queryable,
  table: T,
  item: WorkItem,
  row: RowOf<T>,
  editor: Editor,
) {
  const [there] = await tx.query('select from work_item where id = $1', [item.id]);
  if (!there) {
    await insert(tx, 'workItems', [{ ...item, version: 1 }]);
    await insert(tx, table, [{ ...row, version: 1 }]);
    return done(null);
  }
  const called = await edit(tx, 'workItems', item, editor);
  if (!called.ok) return overtaken(called.current);
  const written = await edit(tx, table, row, editor);
  return written.ok ? done(null) : overtaken(written.current);
}

/** Keeps how the axles stand, as they were read last. */
export const readAxles = measuringCase(input.newAxleReading, async (reading, { database, signature }) => {
  await insert(database, 'axleReadings', [{ ...reading, ...signature }], { skipExisting: true });
  return done(null);
});
