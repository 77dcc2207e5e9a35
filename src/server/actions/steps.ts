'use server';

import * as input from '@/formats/inputs/work';
import { NEW_STEP, RUNGS, type Rung } from '@/core/shell/job/entities';
import { byLadder, chained } from '@/core/shell/job/ladder-order';
import { insert } from '@/db/table';
import { done } from '@/formats/outcome';
import { lastKind } from '@/db/events';
import { edit, overtaken } from '../edit';
import { measuringCase, useCase } from '../use-case';

/** Adds a step behind the others of its rung; it needs the one before it until somebody says otherwise. */
export const addStep = useCase(input.newStep, async (step, { database }) => {
  await database.transaction(async (tx) => {
    const [last] = await tx.query<{ next: number }>(
      'select coalesce(max(ordinal), 0) + 1 as next from step where job_id = $1',
      [step.jobId],
    );
    const added = { ...NEW_STEP, ...step, ordinal: last!.next, version: 1 };
    const others = await tx.query<{ id: string; rung: Rung; ordinal: number }>(
      'select id, rung, ordinal from step where job_id = $1 and id <> $2',
      [step.jobId, step.id],
    );
    await insert(tx, 'steps', [added], { skipExisting: true });
    const before = chained([...others, added]).filter(({ stepId }) => stepId === step.id);
    await insert(tx, 'stepNeeds', before, { skipExisting: true });
  });
  return done(null);
});

/** Adds steps one after another on a rung; the first needs what stands last on the rungs before. Said twice they are there once. */
export const addStepsInTurn = useCase(input.stepsInTurn, async ({ jobId, rung, steps }, { database }) => {
  await database.transaction(async (tx) => {
    const there = await tx.query<{ id: string; rung: Rung; ordinal: number }>(
      'select id, rung, ordinal from step where job_id = $1',
      [jobId],
    );
    if (there.some(({ id }) => id === steps[0]!.id)) return;
    const last = Math.max(0, ...there.map(({ ordinal }) => ordinal));
    const added = steps.map((step, i) => ({
      ...{ ...NEW_STEP, ...step, jobId, rung, ordinal: last + 1 + i, note: '', needs: '', version: 1 },
    }));
    await insert(tx, 'steps', added);
    const before = there.filter((step) => RUNGS.indexOf(step.rung) < RUNGS.indexOf(rung)).toSorted(byLadder);
    await insert(tx, 'stepNeeds', [
      ...before.slice(-1).map(({ id }) => ({ stepId: steps[0]!.id, needsId: id })),
      ...chained(added),
    ]);
  });
  return done(null);
});

/** Corrects the words of a step. */
export const correctStep = useCase(input.correctedStep, (step, context) =>
  context.database.transaction(async (tx) => {
    const result = await edit(tx, 'steps', step, context);
    return result.ok ? done(null) : overtaken(result.current);
  }),
);

/** Notes what happened to a step: begun, curing until, missing, done, dropped, reopened; said twice it happened once. */
export const recordStepEvent = measuringCase(input.stepEvent, (event, { database, signature }) =>
  database.transaction(async (tx) => {
    const waits = event.until !== null || event.note !== '';
    if (!waits && (await lastKind(tx, 'step', event.stepId)) === event.kind) return done(null);
    await insert(tx, 'stepEvents', [{ ...event, ...signature }], { skipExisting: true });
    return done(null);
  }),
);
