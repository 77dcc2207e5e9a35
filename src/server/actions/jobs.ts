'use server';

import { FIRST_STEPS } from '@/core/days/ladder';
import * as input from '@/formats/inputs/jobs';
import { insert, update } from '@/db/table';
import { done, failed } from '@/formats/outcome';
import { useCase } from '../use-case';

/** Creates a job with its empty chart and the steps every job starts with. */
export const createJob = useCase(input.newJob, async (fields, { database, now, newId }) => {
  await database.transaction(async (tx) => {
    await insert(tx, 'jobs', [{ ...fields, note: '', startedAt: now, version: 1 }]);
    await insert(tx, 'references', [
      {
        id: newId(),
        jobId: fields.id,
        kind: 'chart',
        name: 'Maker’s chart',
        source: '',
        trust: 0,
        rank: 0,
        roundId: null,
        createdAt: now,
        edition: 1,
        editionOf: null,
        inUse: true,
      },
    ]);
    const steps = FIRST_STEPS.map((step, ordinal) => ({
      ...{ id: newId(), jobId: fields.id, ...step, ordinal, note: '', version: 1 },
    }));
    await insert(tx, 'steps', steps);
  });
  return done({ jobId: fields.id });
});

/** Writes the job's own fields; a stale form is told and keeps its text. */
export const editJob = useCase(input.jobFields, async (row, { database }) => {
  const result = await update(database, 'jobs', row);
  if (result.ok) return done(result.row);
  return {
    ...failed('job', 'somebody else changed this job while you were typing'),
    current: result.current,
  };
});
