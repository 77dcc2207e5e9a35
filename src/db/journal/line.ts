import { crc32 } from 'node:zlib';
import { z } from 'zod';
import { JOB_TABLE_NAMES, JOB_TABLES, type JobTable, type RowOf } from '@/core/shell/job/job-rows';
import { ROWS_VERSION, tableNow, upgradeRows, versionOfFormat } from '@/core/shell/job/upgrades';

export const JOURNAL_FORMAT = 'vinkel.journal';

/** What one statement changed in one table: rows as they are since, or the keys of rows that are gone. */
export type TableChange = RowsPut | RowsGone;
export type RowsPut = { [T in JobTable]: { readonly table: T; readonly rows: readonly RowOf<T>[] } }[JobTable];
export interface RowsGone {
  readonly table: JobTable;
  readonly gone: readonly Readonly<Record<string, string>>[];
}

/** All that one transaction changed, in the order it did. */
export interface JournalLine {
  /** One more than the line before. */
  readonly number: number;
  readonly at: string;
  readonly changes: readonly TableChange[];
}

/** A line of the journal that cannot be read any more, and why. */
export class DamagedLine extends Error {}

const lineDocument = z.strictObject({
  format: z.string(),
  number: z.int().min(1),
  at: z.iso.datetime(),
  changes: z.array(
    z.union([
      z.strictObject({ table: z.string(), rows: z.array(z.unknown()) }),
      z.strictObject({ table: z.string(), gone: z.array(z.record(z.string(), z.string())) }),
    ]),
  ),
});

const checksum = (text: string): string => crc32(text).toString(16).padStart(8, '0');

/** A line as it stands in the file, its end included: the checksum of the JSON (CRC-32, ISO-HDLC), a blank, the JSON. */
export function writeLine({ number, at, changes }: JournalLine): string {
  const text = JSON.stringify({ format: `${JOURNAL_FORMAT}/${ROWS_VERSION}`, number, at, changes });
  return `${checksum(text)} ${text}\n`;
}

/**
 * Reads a line, rows of earlier versions brought up to date.
 *
 * @throws DamagedLine in words where it is not as it was written
 */
export function readLine(line: string): JournalLine {
  const text = line.slice(9);
  if (line[8] !== ' ' || checksum(text) !== line.slice(0, 8))
    throw new DamagedLine('its checksum does not fit: it was torn or changed on the disk');
  const read = lineDocument.safeParse(JSON.parse(text));
  const version = read.success ? versionOfFormat(read.data.format, JOURNAL_FORMAT) : undefined;
  if (!read.success || version === undefined)
    throw new DamagedLine('it was written by a version of the program that is not known here');
  const { number, at, changes } = read.data;
  return {
    number,
    at,
    changes: changes.flatMap((change): TableChange[] => {
      const { table } = change;
      const now = tableNow(table, version);
      if ('gone' in change) return isTable(now) ? [{ table: now, gone: change.gone }] : [];
      const upgraded = upgradeRows({ [table]: change.rows }, version) as Record<string, unknown>;
      return JOB_TABLE_NAMES.filter((each) => upgraded[each] !== undefined).map(
        (each) => ({ table: each, rows: rowsOf(each, upgraded[each]) }) as TableChange,
      );
    }),
  };
}

const isTable = (table: string): table is JobTable => table in JOB_TABLES;

function rowsOf(table: JobTable, rows: unknown): readonly unknown[] {
  const read = z.array(JOB_TABLES[table] as z.ZodType).safeParse(rows);
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  throw new DamagedLine(`${table}${issue!.path.length > 0 ? ` ${issue!.path.join('.')}` : ''}: ${issue!.message}`);
}

/** The number a line bears, read without its rows; undefined where it is damaged. */
export function numberOf(line: string): number | undefined {
  const found = /^[0-9a-f]{8} \{"format":"[^"]{1,40}","number":(\d{1,15}),/.exec(line);
  return found ? Number(found[1]) : undefined;
}
