import type { JobRows } from '@/core/shell/job/job-rows';
import type { Queryable } from '@/db/database';
import { loadJob } from '@/db/jobs';
import { markOf } from '@/db/journal/mark';
import type { RowsAt } from './tasks';

/** Rows of the jobs last looked at, shared by all bundles of the server. */
const shared = globalThis as typeof globalThis & { vinkelRows?: Map<string, Promise<JobRows | undefined>> };
const KEPT = 4;

/**
 * A job's rows as they are now, read once for as long as nothing is written; a table that is as it was is the same one.
 *
 * @returns undefined where there is no such job
 */
export async function rowsAt(database: Queryable, jobId: string): Promise<RowsAt | undefined> {
  const kept = (shared.vinkelRows ??= new Map());
  const key = `${jobId} ${await markOf(database)}`;
  const last = [...kept].findLast(([state]) => state.startsWith(`${jobId} `))?.[1];
  const known = kept.get(key) ?? load(database, jobId, last);
  kept.delete(key);
  kept.set(key, known);
  for (const oldest of kept.keys()) if (kept.size > KEPT) kept.delete(oldest);
  const rows = await known.catch((error: unknown) => {
    kept.delete(key);
    throw error;
  });
  return rows && { rows, key };
}

/** Where the last could not be read, everything is. */
const load = async (database: Queryable, jobId: string, last: Promise<JobRows | undefined> | undefined) =>
  loadJob(database, jobId, await last?.catch(() => undefined));
