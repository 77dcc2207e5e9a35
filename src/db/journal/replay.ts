import type { JobTable, RowOf } from '@/core/shell/job/job-rows';
import type { Database, Queryable } from '../database';
import { removeJob } from '../jobs';
import { contentIds } from '../photographs';
import { put, removeByKey } from '../table';
import type { LineFault } from './first-format';
import { journalFiles } from './journal';
import { markOf } from './mark';
import { readLine, type JournalLine, type RowsPut } from './line';
import { lines } from './lines';

export interface Replay {
  /** Transactions that the database lacked and has now. */
  readonly restored: number;
  readonly faults: readonly LineFault[];
  /** The number of the last line there is. */
  readonly last: number;
}

/**
 * Does again, in their order, the transactions of the journal that the database does not hold. Every line is looked at:
 * one that is damaged is named, also where the database has what it said.
 */
export async function replayJournal(database: Database, folder: string): Promise<Replay> {
  const mark = await markOf(database);
  let restored = 0;
  let last = 0;
  const faults: LineFault[] = [];
  for (const { path } of await journalFiles(folder))
    for await (const { text, number: line } of lines(path)) {
      const fault = (error: unknown, harmless: boolean) =>
        faults.push({ file: path, line, reason: error instanceof Error ? error.message : String(error), harmless });
      let read: JournalLine;
      try {
        read = readLine(text);
      } catch (error) {
        last++;
        fault(error, last <= mark);
        continue;
      }
      const known = Math.max(last, mark);
      if (read.number > known + 1)
        fault(new Error(`the lines ${known + 1} to ${read.number - 1} before it are missing`), false);
      last = Math.max(last, read.number);
      if (read.number <= mark) continue;
      try {
        await database.transaction((tx) => redo(tx, read));
        restored++;
      } catch (error) {
        fault(error, false);
      }
    }
  return { restored, faults, last: Math.max(last, mark) };
}

/** Does one transaction again; what is there already stays as it is. */
async function redo(tx: Queryable, { number, changes }: JournalLine): Promise<void> {
  await tx.query("select set_config('vinkel.journal', 'off', true)");
  for (const change of changes)
    if ('rows' in change) await put(tx, change.table as JobTable, await standing(tx, change));
    else if (change.table === 'jobs') for (const { id } of change.gone) await removeJob(tx, id!);
    else await removeByKey(tx, change.table, change.gone);
  await tx.query('update journal_mark set number = $1', [number]);
}

/** The rows of a change; a picture whose bytes are lost does not take its entry with it. */
async function standing(tx: Queryable, change: RowsPut): Promise<RowOf<JobTable>[]> {
  if (change.table !== 'photographs') return [...change.rows];
  const there = await contentIds(tx);
  return change.rows.filter(({ id }) => there.has(id));
}
