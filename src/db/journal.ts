import { open, readFile, type FileHandle } from 'node:fs/promises';
import { z } from 'zod';
import { JOB_TABLE_NAMES, JOB_TABLES, type JobRows } from '@/core/shell/job/job-rows';
import { ROWS_VERSION, upgradeDocument } from '@/core/shell/job/upgrades';
import type { Database } from './database';
import { insert } from './table';

/**
 * The journal: one JSON line for every line of readings, on the disk before the reading is
 * acknowledged. PGlite never calls fsync, so after a power cut the database may lack the last
 * minutes; the journal does not. Each line stands alone: it carries the readings and the rows they
 * hang on (job, round, points …), so that it can be replayed into an older copy of the database.
 */
export interface Journal {
  append(rows: Partial<JobRows>): Promise<void>;
  close(): Promise<void>;
}

const NAME = 'vinkel.journal';
const FORMAT = `${NAME}/${ROWS_VERSION}`;

const journalLine = z.strictObject({
  format: z.literal(FORMAT),
  rows: z.strictObject(
    Object.fromEntries(JOB_TABLE_NAMES.map((table) => [table, z.array(JOB_TABLES[table]).optional()])),
  ),
});

/** Opens the journal for appending; a line torn by a crash is ended first. */
export async function openJournal(path: string): Promise<Journal> {
  const file = await open(path, 'a+');
  await endTornLine(file);
  return {
    append: async (rows) => {
      await file.appendFile(`${JSON.stringify({ format: FORMAT, rows })}\n`);
      await file.datasync();
    },
    close: () => file.close(),
  };
}

async function endTornLine(file: FileHandle): Promise<void> {
  const { size } = await file.stat();
  if (size === 0) return;
  const last = Buffer.alloc(1);
  await file.read(last, 0, 1, size - 1);
  if (last[0] !== 0x0a) await file.appendFile('\n');
}

export interface Replay {
  /** Readings and strikes that the database lacked and has now. */
  readonly restored: number;
  /** Lines that could not be replayed: their number in the file, from 1, and why. */
  readonly faults: readonly { readonly line: number; readonly reason: string }[];
}

/** Puts back every reading and strike of the journal that the database does not have. */
export async function replayJournal(database: Database, path: string): Promise<Replay> {
  const text = await readFile(path, 'utf8').catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT') return '';
    throw error;
  });
  const present = new Set(
    (await database.query<{ id: string }>('select id from reading union all select id from reading_strike')).map(
      (row) => row.id,
    ),
  );
  let restored = 0;
  const faults: { line: number; reason: string }[] = [];
  for (const [index, line] of text.split('\n').entries()) {
    if (line.trim() === '') continue;
    try {
      const rows = journalLine.parse(upgradeDocument(JSON.parse(line), NAME)).rows as Partial<JobRows>;
      const lacking = [...(rows.readings ?? []), ...(rows.readingStrikes ?? [])].filter((row) => !present.has(row.id));
      if (lacking.length === 0) continue;
      await database.transaction(async (tx) => {
        for (const table of JOB_TABLE_NAMES)
          await insert(tx, table, (rows[table] ?? []) as never[], { skipExisting: true });
      });
      for (const row of lacking) present.add(row.id);
      restored += lacking.length;
    } catch (error) {
      faults.push({
        line: index + 1,
        reason: error instanceof Error ? error.message : String(error),
      });
    }
  }
  return { restored, faults };
}
