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
  /** A whole job was removed: nothing written of it before is put back. */
  remove(jobId: string): Promise<void>;
  close(): Promise<void>;
}

const NAME = 'vinkel.journal';
const FORMAT = `${NAME}/${ROWS_VERSION}`;

const journalLine = z.strictObject({
  format: z.literal(FORMAT),
  rows: z.strictObject(
    Object.fromEntries(JOB_TABLE_NAMES.map((table) => [table, z.array(JOB_TABLES[table]).optional()])),
  ),
  /** The job that was removed. */
  removed: z.uuid().optional(),
});

/** Opens the journal for appending; a line torn by a crash is ended first. */
export async function openJournal(path: string): Promise<Journal> {
  const file = await open(path, 'a+');
  await endTornLine(file);
  const write = async (line: z.input<typeof journalLine>) => {
    await file.appendFile(`${JSON.stringify(line)}\n`);
    await file.datasync();
  };
  return {
    append: (rows) => write({ format: FORMAT, rows } as unknown as z.input<typeof journalLine>),
    remove: (removed) => write({ format: FORMAT, rows: {}, removed }),
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
  const lines = text.split('\n');
  const removedAt = removals(lines);
  let restored = 0;
  const faults: { line: number; reason: string }[] = [];
  for (const [index, line] of lines.entries()) {
    if (line.trim() === '') continue;
    try {
      const rows = journalLine.parse(upgradeDocument(JSON.parse(line), NAME)).rows as Partial<JobRows>;
      const lacking = [...(rows.readings ?? []), ...(rows.readingStrikes ?? [])].filter((row) => !present.has(row.id));
      const gone = (rows.jobs ?? []).some(({ id }) => index < (removedAt.get(id) ?? -1));
      if (lacking.length === 0 || gone) continue;
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

/** The jobs that were removed, and the line that says so. */
function removals(lines: readonly string[]): Map<string, number> {
  const found = new Map<string, number>();
  for (const [index, line] of lines.entries())
    try {
      const removed = line.includes('"removed"') ? (JSON.parse(line) as { removed?: unknown }).removed : undefined;
      if (typeof removed === 'string') found.set(removed, index);
    } catch {
      // A torn line is named where it is read.
    }
  return found;
}
