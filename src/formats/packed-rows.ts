import { onceFor } from '@/core/maths/once';
import { JOB_TABLE_NAMES, type JobRows, type JobTable } from '@/core/shell/job/job-rows';

/*
 * Rows on their way to the browser, column by column: ten thousand readings are four megabytes as they are, because
 * every row says the names of its fields and the identities of what it hangs on; packed they are a fifth of that.
 */

type Value = string | number | boolean | null | object | undefined;

/** One field of all rows of a table. */
type Column =
  /** The same in every row. */
  | { readonly all: Value }
  /** Few different values; which one each row has, in base 36. */
  | { readonly few: readonly Value[]; readonly which: string }
  /** Identities: 22 signs each, base64url. */
  | { readonly ids: string }
  /** Times: milliseconds after the one before, the first after the epoch, in base 36. */
  | { readonly times: string }
  | { readonly each: readonly Value[] };

export interface PackedTable {
  readonly rows: number;
  readonly columns: Readonly<Record<string, Column>>;
}

export type PackedRows = { readonly [T in JobTable]: JobRows[T] | PackedTable };

/** Shorter tables are left as they are. */
const WORTH_PACKING = 40;
/** A column has few values where they are fewer than this share of its rows. */
const FEW = 0.5;

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

export function packRows(rows: JobRows): PackedRows {
  return Object.fromEntries(
    JOB_TABLE_NAMES.map((table) => [table, rows[table].length < WORTH_PACKING ? rows[table] : packTable(rows[table])]),
  ) as PackedRows;
}

/**
 * @param before what came before it and what that was: of a table that came again the same rows are given, and where all did all of
 *   them, so that what was worked out of them is known again
 */
export function unpackRows(
  packed: PackedRows,
  before?: { readonly packed: PackedRows; readonly rows: JobRows },
): JobRows {
  const cameAgain = (table: JobTable) => JSON.stringify(before?.packed[table]) === JSON.stringify(packed[table]);
  const rows = Object.fromEntries(
    JOB_TABLE_NAMES.map((table) => {
      const came = packed[table];
      if (before && cameAgain(table)) return [table, before.rows[table]];
      return [table, 'columns' in came ? unpackTable(came) : came];
    }),
  ) as unknown as JobRows;
  return before && JOB_TABLE_NAMES.every((table) => rows[table] === before.rows[table]) ? before.rows : rows;
}

/** Once for the same rows: a page is sent to every window that has it open. */
const packTable = onceFor((rows: readonly object[]): PackedTable => {
  const fields = [...new Set(rows.flatMap((row) => Object.keys(row)))];
  return {
    rows: rows.length,
    columns: Object.fromEntries(
      fields.map((field) => [field, packColumn(rows.map((row) => (row as Record<string, Value>)[field]))]),
    ),
  };
});

function packColumn(values: readonly Value[]): Column {
  // Values that are no plain ones (a record's snapshot) go as they are.
  if (values.some((value) => value === undefined || (typeof value === 'object' && value !== null)))
    return { each: values };
  const different = new Map([...new Set(values)].map((value, i) => [value, i]));
  if (different.size === 1) return { all: values[0] };
  if (different.size < FEW * values.length)
    return {
      few: [...different.keys()],
      which: values.map((value) => different.get(value)!.toString(36)).join(' '),
    };
  if (values.every((value) => typeof value === 'string' && UUID.test(value)))
    return { ids: values.map((value) => shortId(value as string)).join('') };
  if (values.every(isTime)) {
    const moments = values.map((value) => Date.parse(value));
    return { times: moments.map((at, i) => (at - (moments[i - 1] ?? 0)).toString(36)).join(' ') };
  }
  return { each: values };
}

/** A time as the program writes it, to the millisecond and in UTC. */
const isTime = (value: Value): value is string =>
  typeof value === 'string' &&
  /^\d{4}-\d\d-\d\dT[\d:.]+Z$/.test(value) &&
  new Date(Date.parse(value)).toISOString() === value;

function unpackTable({ rows, columns }: PackedTable): object[] {
  const unpacked = Object.entries(columns).map(([field, column]) => [field, unpackColumn(column, rows)] as const);
  return Array.from({ length: rows }, (_, i) =>
    Object.fromEntries(unpacked.flatMap(([field, values]) => (values[i] === undefined ? [] : [[field, values[i]]]))),
  );
}

function unpackColumn(column: Column, rows: number): readonly Value[] {
  if ('all' in column) return Array.from({ length: rows }, () => column.all);
  if ('few' in column) return column.which.split(' ').map((at) => column.few[Number.parseInt(at, 36)]);
  if ('ids' in column) return Array.from({ length: rows }, (_, i) => longId(column.ids.slice(22 * i, 22 * i + 22)));
  if ('times' in column) {
    let at = 0;
    return column.times.split(' ').map((after) => new Date((at += Number.parseInt(after, 36))).toISOString());
  }
  return column.each;
}

const SIGNS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789-_';
const VALUE_OF = new Map([...SIGNS].map((sign, value) => [sign, value]));

/** The 32 hexadecimal digits of an identity, and a zero, three at a time as two signs of 6 bits each. */
function shortId(id: string): string {
  const digits = `${id.replaceAll('-', '')}0`;
  let text = '';
  for (let i = 0; i < 33; i += 3) {
    const bits = Number.parseInt(digits.slice(i, i + 3), 16);
    text += SIGNS[bits >> 6]! + SIGNS[bits & 63]!;
  }
  return text;
}

function longId(text: string): string {
  let digits = '';
  for (let i = 0; i < 22; i += 2)
    digits += ((VALUE_OF.get(text[i]!)! << 6) | VALUE_OF.get(text[i + 1]!)!).toString(16).padStart(3, '0');
  return [
    digits.slice(0, 8),
    digits.slice(8, 12),
    digits.slice(12, 16),
    digits.slice(16, 20),
    digits.slice(20, 32),
  ].join('-');
}
