import { putLast } from '@/core/maths/once';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { Queryable } from '@/db/database';
import { loadJob } from '@/db/jobs';
import { markOf } from '@/db/journal/mark';

interface Kept {
  /** What stood in the database when it was asked for. */
  readonly mark: number;
  readonly asked: Promise<JobRows | undefined>;
  /** What came, or what was known before where nothing came yet. */
  known?: JobRows;
}

/** The jobs last looked at, by their ids, shared by all bundles of the server. */
const shared = globalThis as typeof globalThis & { vinkelRows?: Map<string, Kept> };
const kept = (shared.vinkelRows ??= new Map());
const JOBS_KEPT = 6;

/**
 * A job's rows as they are now, read once for as long as nothing is written. A table that is as it was is the same one, and a job
 * of which all are is the same job, whatever was written to others.
 *
 * @returns undefined where there is no such job
 */
export async function rowsAt(database: Queryable, jobId: string): Promise<JobRows | undefined> {
  const mark = await markOf(database);
  const last = kept.get(jobId);
  const now = last?.mark === mark ? last : reading(database, jobId, mark, last?.known);
  putLast(kept, jobId, now, JOBS_KEPT);
  return now.asked;
}

function reading(database: Queryable, jobId: string, mark: number, known: JobRows | undefined): Kept {
  const now: Kept = { mark, asked: loadJob(database, jobId, known), known };
  now.asked.then(
    (rows) => (now.known = rows),
    () => kept.get(jobId) === now && kept.delete(jobId),
  );
  return now;
}

/**
 * The same inside of a transaction, before it writes: waits for nobody else's reading, which may be waiting for this transaction
 * to end.
 */
export const rowsWithin = (tx: Queryable, jobId: string): Promise<JobRows | undefined> =>
  loadJob(tx, jobId, kept.get(jobId)?.known);
