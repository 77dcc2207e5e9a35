import { z } from 'zod';
import { JOB_TABLE_NAMES, JOB_TABLES, type JobRows } from '@/core/shell/job/job-rows';
import { upgradeRows, versionOfFormat } from '@/core/shell/job/upgrades';
import type { Database } from '../database';
import { insert } from '../table';
import { JOURNAL_FORMAT } from './line';
import { lines } from './lines';

/*
 * The journal as it was written up to rows of version 4: one file beside the database, a line for every line of
 * readings, with the rows these hang on. It is read, never written.
 */

const FIRST_FORMAT_UNTIL = 4;

const firstLine = z.strictObject({
  format: z.string(),
  rows: z.strictObject(
    Object.fromEntries(JOB_TABLE_NAMES.map((table) => [table, z.array(JOB_TABLES[table]).optional()])),
  ),
  /** The job that was removed. */
  removed: z.uuid().optional(),
});

export interface LineFault {
  readonly file: string;
  /** Of the file, from 1. */
  readonly line: number;
  readonly reason: string;
  /** What the line said is in the database all the same. */
  readonly harmless: boolean;
}

/** Puts back every reading and strike of such a journal that the database does not have. */
export async function replayFirstFormat(
  database: Database,
  path: string,
): Promise<{ readonly restored: number; readonly faults: readonly LineFault[] }> {
  const present = new Set(
    (await database.query<{ id: string }>('select id from reading union all select id from reading_strike')).map(
      (row) => row.id,
    ),
  );
  const removedAt = new Map<string, number>();
  for await (const { text, number } of lines(path)) {
    const removed = text.includes('"removed"') ? /"removed":"([0-9a-f-]{36})"/.exec(text)?.[1] : undefined;
    if (removed) removedAt.set(removed, number);
  }
  let restored = 0;
  const faults: LineFault[] = [];
  for await (const { text, number } of lines(path)) {
    if (text.trim() === '') continue;
    try {
      const rows = rowsOf(text);
      const lacking = [...(rows.readings ?? []), ...(rows.readingStrikes ?? [])].filter((row) => !present.has(row.id));
      const gone = (rows.jobs ?? []).some(({ id }) => number < (removedAt.get(id) ?? -1));
      if (lacking.length === 0 || gone) continue;
      await database.transaction(async (tx) => {
        for (const table of JOB_TABLE_NAMES)
          await insert(tx, table, (rows[table] ?? []) as never[], { skipExisting: true });
      });
      for (const row of lacking) present.add(row.id);
      restored += lacking.length;
    } catch (error) {
      const reason = error instanceof Error ? error.message : String(error);
      faults.push({ file: path, line: number, reason, harmless: false });
    }
  }
  return { restored, faults };
}

function rowsOf(text: string): Partial<JobRows> {
  const { format, rows, ...rest } = JSON.parse(text) as { format: unknown; rows: unknown };
  const version = versionOfFormat(format, JOURNAL_FORMAT);
  if (version === undefined || version > FIRST_FORMAT_UNTIL)
    throw new Error('it is of a format that is not known here');
  return firstLine.parse({ ...rest, format, rows: upgradeRows(rows, version) }).rows as Partial<JobRows>;
}
