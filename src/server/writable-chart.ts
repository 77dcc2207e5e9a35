import { randomUUID } from 'node:crypto';
import type { JobRows, JobTable } from '@/core/shell/job/job-rows';
import { chartOf } from '@/core/shell/references/chosen';
import { isSealed, nextEdition } from '@/core/shell/references/editions';
import type { Database, Queryable } from '@/db/database';
import { loadJob } from '@/db/jobs';
import { insert } from '@/db/table';
import { done, failed, type Outcome } from '@/formats/outcome';

/**
 * The chart to write to. Where a closed round or a signed record rests on the edition in use, the next
 * edition is made first and taken into use; `copyOf` says where each figure went.
 *
 * @param always make the next edition in any case
 */
export async function writableChart(
  tx: Queryable,
  rows: JobRows,
  always = false,
): Promise<{ id: string; copyOf: ReadonlyMap<string, string> } | undefined> {
  const chart = chartOf(rows);
  if (!chart) return undefined;
  if (!always && !isSealed(chart, rows)) return { id: chart.id, copyOf: new Map() };
  const next = nextEdition(rows, chart, new Date().toISOString(), randomUUID);
  await tx.query('update reference set in_use = false where id = $1', [chart.id]);
  for (const [table, list] of Object.entries(next.rows)) await insert(tx, table as JobTable, list as never[]);
  return { id: next.rows.references[0]!.id, copyOf: next.copyOf };
}

/** Runs a change of the chart on the edition that may be written, in one transaction. */
export async function onChart(
  database: Database,
  jobId: string,
  work: (tx: Queryable, chart: { id: string; copyOf: ReadonlyMap<string, string> }) => Promise<void>,
): Promise<Outcome> {
  return database.transaction(async (tx) => {
    const rows = await loadJob(tx, jobId);
    if (!rows) return failed('job', 'this job is not here any more');
    const chart = await writableChart(tx, rows);
    if (!chart) return failed('job', 'this job has no chart: make one under References');
    await work(tx, chart);
    return done(null);
  });
}
