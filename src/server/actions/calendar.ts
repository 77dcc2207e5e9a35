'use server';

import * as input from '@/formats/inputs/calendar';
import { circleOf } from '@/core/days/calendar/circle';
import { newPerson } from '@/core/shell/people';
import { insert } from '@/db/table';
import { done, failed } from '@/formats/outcome';
import { edit, overtaken } from '../edit';
import { changePerson } from '../people/change';
import { measuringCase, useCase } from '../use-case';

/** Says how long a step takes, what it needs and who does it; how it was said before is kept. */
export const planStep = useCase(input.plannedStep, async ({ step, needs, people }, context) =>
  context.database.transaction(async (tx) => {
    const all = await tx.query<{ stepId: string; needsId: string }>(
      'select step_id, needs_id from step_need where job_id = $1 and step_id <> $2',
      [step.jobId, step.id],
    );
    const own = [...new Set(needs)].map((needsId) => ({ stepId: step.id, needsId }));
    const circle = circleOf([...all, ...own]);
    if (circle) {
      const named = await tx.query<{ id: string; title: string }>('select id, title from step where id = any($1)', [
        circle,
      ]);
      const titles = circle.map((id) => `“${named.find((each) => each.id === id)?.title ?? id}”`);
      return failed('needs', `these would need each other in a circle: ${titles.join(', ')}`);
    }
    const result = await edit(tx, 'steps', step, context);
    if (!result.ok) return overtaken(result.current);
    await tx.query('delete from step_need where step_id = $1', [step.id]);
    await tx.query('delete from step_person where step_id = $1', [step.id]);
    await insert(tx, 'stepNeeds', own);
    await insert(
      tx,
      'stepPeople',
      [...new Set(people)].map((personId) => ({ stepId: step.id, personId })),
    );
    return done(null);
  }),
);

/** Names somebody in the shop, or a thing there is one of, or says when they work. */
export const putPerson = useCase(input.person, (person, { database }) =>
  changePerson(database, person.id, (before) => ({ ...newPerson(person.id, person.name), ...before, ...person })),
);

/** Adds days on which nobody works, or on which it is too wet outdoors; one that is there already stays. */
export const addClosedDays = useCase(input.closedDays, async ({ days }, { database }) => {
  await insert(database, 'closedDays', days, { skipExisting: true });
  return done(null);
});

export const removeClosedDay = useCase(input.closedDayId, async ({ id }, { database }) => {
  await database.query('delete from closed_day where id = $1', [id]);
  return done(null);
});

/** Books time that was worked on a step. */
export const book = measuringCase(input.booking, async (booking, { database, signature }) => {
  await insert(database, 'bookings', [{ ...booking, ...signature }], { skipExisting: true });
  return done(null);
});

/** Sets a timer: it rings in the program until somebody heard it. */
export const setTimer = measuringCase(input.newTimer, async (timer, { database, signature }) => {
  await insert(database, 'timers', [{ ...timer, ...signature, heardAt: null, heardBy: '' }], {
    skipExisting: true,
  });
  return done(null);
});

/** Somebody heard a timer, or does not want it any more; heard twice it was heard once. */
export const hearTimer = measuringCase(input.heardTimer, async ({ id }, { database, actor, now }) => {
  await database.query('update timer set heard_at = $2, heard_by = $3 where id = $1 and heard_at is null', [
    id,
    now,
    actor.name,
  ]);
  return done(null);
});
