'use server';

import * as input from '@/formats/inputs/work';
import { insert } from '@/db/table';
import { done } from '@/formats/outcome';
import { useCase } from '../use-case';

/** Adds a step behind the others of its rung. */
export const addStep = useCase(input.newStep, async (step, { database }) => {
  await database.transaction(async (tx) => {
    const [last] = await tx.query<{ next: number }>(
      'select coalesce(max(ordinal), 0) + 1 as next from step where job_id = $1',
      [step.jobId],
    );
    await insert(tx, 'steps', [{ ...step, ordinal: last!.next, version: 1 }]);
  });
  return done(null);
});

/** Notes what happened to a step: begun, curing until, missing, done, dropped, reopened. */
export const recordStepEvent = useCase(input.stepEvent, async (event, { database, actor, now }) => {
  await insert(database, 'stepEvents', [{ ...event, at: now, author: actor }]);
  return done(null);
});
