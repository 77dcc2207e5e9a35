'use server';

import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import * as entity from '@/core/shell/job/entities';
import { FIRST_STEPS } from '@/core/days/ladder';
import { failed, done, type Outcome } from '@/formats/outcome';
import { insert, update } from '@/db/table';
import { runUseCase } from '../use-case';

const newJob = entity.job.pick({
  id: true,
  name: true,
  shell: true,
  identityNumber: true,
  owner: true,
  shop: true,
  driverSide: true,
  bench: true,
});

/** Creates a job with its empty chart and the steps every job starts with. */
export async function createJob(input: unknown): Promise<Outcome<{ jobId: string }>> {
  return runUseCase(newJob, input, async (fields, { database }) => {
    const at = new Date().toISOString();
    await database.transaction(async (tx) => {
      await insert(tx, 'jobs', [{ ...fields, note: '', startedAt: at, version: 1 }]);
      await insert(tx, 'references', [
        {
          id: randomUUID(),
          jobId: fields.id,
          kind: 'chart',
          name: 'Maker’s chart',
          source: '',
          trust: 0,
          rank: 0,
          roundId: null,
          createdAt: at,
          edition: 1,
          editionOf: null,
          inUse: true,
        },
      ]);
      await insert(
        tx,
        'steps',
        FIRST_STEPS.map((step, ordinal) => ({
          id: randomUUID(),
          jobId: fields.id,
          ...step,
          ordinal,
          note: '',
          version: 1,
        })),
      );
    });
    return done({ jobId: fields.id });
  });
}

/** Writes the job's own fields; a stale form is told and keeps its text. */
export async function editJob(input: unknown): Promise<Outcome<entity.Job>> {
  return runUseCase(entity.job, input, async (row, { database }) => {
    const result = await update(database, 'jobs', row);
    if (result.ok) return done(result.row);
    return {
      ...failed('job', 'somebody else changed this job while you were typing'),
      current: result.current,
    };
  });
}

const newStep = entity.step.omit({ ordinal: true, version: true });

/** Adds a step behind the others of its rung. */
export async function addStep(input: unknown): Promise<Outcome> {
  return runUseCase(newStep, input, async (step, { database }) => {
    await database.transaction(async (tx) => {
      const [last] = await tx.query<{ next: number }>(
        'select coalesce(max(ordinal), 0) + 1 as next from step where job_id = $1',
        [step.jobId],
      );
      await insert(tx, 'steps', [{ ...step, ordinal: last!.next, version: 1 }]);
    });
    return done(null);
  });
}

/** Notes what happened to a step: begun, curing until, missing, done, dropped, reopened. */
export async function recordStepEvent(input: unknown): Promise<Outcome> {
  return runUseCase(entity.stepEvent.omit({ at: true }), input, async (event, { database }) => {
    await insert(database, 'stepEvents', [{ ...event, at: new Date().toISOString() }]);
    return done(null);
  });
}

/** Writes a new version of an instrument: readings keep the figures they were taken with. */
export async function reviseInstrument(input: unknown): Promise<Outcome> {
  const schema = entity.instrumentVersion.omit({ number: true, validFrom: true });
  return runUseCase(schema, input, async (version, { database }) => {
    await database.transaction(async (tx) => {
      const [last] = await tx.query<{ next: number }>(
        'select coalesce(max(number), 0) + 1 as next from instrument_version where instrument_id = $1',
        [version.instrumentId],
      );
      await insert(tx, 'instrumentVersions', [{ ...version, number: last!.next, validFrom: new Date().toISOString() }]);
    });
    return done(null);
  });
}

const newInstrument = z.strictObject({
  instrument: entity.instrument,
  version: entity.instrumentVersion.omit({ number: true, validFrom: true }),
});

export async function addInstrument(input: unknown): Promise<Outcome> {
  return runUseCase(newInstrument, input, async ({ instrument, version }, { database }) => {
    await database.transaction(async (tx) => {
      await insert(tx, 'instruments', [instrument]);
      await insert(tx, 'instrumentVersions', [{ ...version, number: 1, validFrom: new Date().toISOString() }]);
    });
    return done(null);
  });
}
