'use server';

import { FIRST_STEPS } from '@/core/days/ladder';
import * as input from '@/formats/inputs/jobs';
import { nextCar, type NextCar } from '@/core/plan/next-car';
import { NEW_JOB, NEW_STEP } from '@/core/shell/job/entities';
import { Job } from '@/core/shell/job/job';
import { isShopTable, JOB_TABLE_NAMES } from '@/core/shell/job/job-rows';
import { chained } from '@/core/shell/job/ladder-order';
import { loadJob, removeJob as removeRows } from '@/db/jobs';
import { removeContent } from '@/db/photographs';
import { insert, rowById } from '@/db/table';
import { contentHash } from '../archive/export';
import { done, failed } from '@/formats/outcome';
import { edit, overtaken } from '../edit';
import { rowsWithin } from '../rows-at';
import { runTask } from '../tasks';
import { useCase, type Context } from '../use-case';

/** Creates a job: from another of the same model, or with an empty chart and the steps every job starts with. */
export const createJob = useCase(input.newJob, ({ afterId, ...fields }, context) =>
  afterId === null ? beginEmpty(fields, context) : beginAfter(afterId, fields, context),
);

type NewFields = NextCar['fields'];

/** All that is written is a new job's own: what is the shop's is there already. */
const beginAfter = (afterId: string, fields: NewFields, { database, signature, newId }: Context) =>
  database.transaction(async (tx) => {
    const before = await rowsWithin(tx, afterId);
    if (!before) return failed('afterId', 'this job is not here any more');
    const springs = await runTask('springBacks', before, undefined);
    const rows = nextCar(Job.of(before), springs, { fields, ...signature, newId });
    for (const table of JOB_TABLE_NAMES) if (!isShopTable(table)) await insert(tx, table, rows[table] as never[]);
    return done({ jobId: fields.id });
  });

async function beginEmpty(fields: NewFields, { database, now, newId }: Context) {
  await database.transaction(async (tx) => {
    await insert(tx, 'jobs', [{ ...fields, ...NEW_JOB, startedAt: now }]);
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
      ...{ ...NEW_STEP, ...step, id: newId(), jobId: fields.id, ordinal, note: '', version: 1 },
    }));
    await insert(tx, 'steps', steps);
    await insert(tx, 'stepNeeds', chained(steps));
  });
  return done({ jobId: fields.id });
}

/** Writes the job's own fields; a stale form is told and keeps its text. */
export const editJob = useCase(input.jobFields, (row, context) =>
  context.database.transaction(async (tx) => {
    const result = await edit(tx, 'jobs', row, context);
    return result.ok ? done(result.row) : overtaken(result.current);
  }),
);

/** Puts a job away, or takes it out again. */
export const putAwayJob = useCase(input.puttingAway, ({ jobId, away }, context) =>
  context.database.transaction(async (tx) => {
    const row = await rowById(tx, 'jobs', jobId);
    if (!row) return failed('job', 'this job is not here any more');
    if (away === (row.putAwayAt !== null)) return done(null);
    await edit(tx, 'jobs', { ...row, putAwayAt: away ? context.now : null }, context);
    return done(null);
  }),
);

/** Removes a job that was exported as it is now: with everything of it, for good. */
export const removeJob = useCase(input.jobId, async (jobId, { database }) => {
  const rows = await loadJob(database, jobId);
  // Somebody else removed it first: it is gone, as wanted.
  if (!rows) return done(null);
  const exported = await database.query('select 1 from job_export where job_id = $1 and sha256 = $2', [
    jobId,
    contentHash(rows),
  ]);
  if (exported.length === 0)
    return failed('job', 'export it first: it is only removed once a zip of it was taken as it is now');
  await database.transaction(async (tx) => {
    await removeRows(tx, jobId);
    await removeContent(
      tx,
      rows.photographs.map(({ id }) => id),
    );
  });
  return done(null);
});
