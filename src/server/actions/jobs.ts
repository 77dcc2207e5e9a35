'use server';

import { FIRST_STEPS } from '@/core/days/ladder';
import * as input from '@/formats/inputs/jobs';
import type { Change } from '@/core/shell/job/entities';
import { insert, rowById, update } from '@/db/table';
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
export const editJob = useCase(input.jobFields, (row, { database, actor, now, newId }) =>
  database.transaction(async (tx) => {
    const before = await rowById(tx, 'jobs', row.id);
    const result = await update(tx, 'jobs', row);
    if (!result.ok)
      return {
        ...failed('job', 'somebody else changed this job while you were typing'),
        current: result.current,
      };
    const changed = before && changedFields(before, result.row);
    if (changed)
      await insert(tx, 'changes', [
        {
          id: newId(),
          jobId: row.id,
          batch: newId(),
          tableName: 'job',
          rowId: row.id,
          ...changed,
          at: now,
          author: actor,
        },
      ]);
    return done(result.row);
  }),
);

/** The fields in which two states of a row differ, each state's own; undefined where none does. */
function changedFields<Row extends object>(before: Row, after: Row): Pick<Change, 'before' | 'after'> | undefined {
  const keys = (Object.keys(after) as (keyof Row & string)[]).filter(
    (key) => key !== 'version' && before[key] !== after[key],
  );
  const of = (row: Row) => Object.fromEntries(keys.map((key) => [key, row[key]]));
  return keys.length === 0 ? undefined : { before: of(before), after: of(after) };
}
