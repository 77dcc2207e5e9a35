import Papa from 'papaparse';
import { parseLine, type Subjects } from '@/core/shell/shorthand/line';
import type { LengthUnit } from '@/core/maths/units/length';

export const READING_COLUMNS = ['subject', 'to', 'quantity', 'value', 'measure'] as const;
export type ReadingColumn = (typeof READING_COLUMNS)[number];
/** Index of the file's column for each of ours; −1 where there is none. */
export type ReadingMapping = Readonly<Record<ReadingColumn, number>>;

const SYNONYMS: Readonly<Record<ReadingColumn, readonly string[]>> = {
  subject: ['subject', 'from', 'point', 'id', 'a', 'point a', 'from point', 'station'],
  to: ['to', 'b', 'point b', 'to point', 'end'],
  quantity: ['quantity', 'kind', 'what', 'type'],
  value: ['value', 'value mm', 'reading', 'length', 'distance', 'measured', 'mm'],
  measure: ['measure', 'tip or level', 'how'],
};

export interface ImportedReading {
  /** Line of the file, the header being the first. */
  readonly number: number;
  /** The row as the line one would type. */
  readonly line: string;
  readonly fault?: string;
}

/** Readings taken from one file at once: they go the way of typed ones, which a browser keeps until they are delivered. */
export const MOST_READINGS = 1000;

/** One part of a file of readings: its header, and the cells of at most {@link MOST_READINGS} rows. */
export interface ReadingsTable {
  readonly headers: readonly string[];
  readonly cells: readonly (readonly string[])[];
  /** Rows before this part. */
  readonly before: number;
  /** Rows of the whole file, the header not among them. */
  readonly total: number;
}

export interface ReadingsPreview {
  readonly headers: readonly string[];
  readonly mapping: ReadingMapping;
  readonly rows: readonly ImportedReading[];
}

interface Parsing {
  /** Which thousand of the rows, from 0. */
  readonly part?: number;
  /** Told the share of the file that was read, 0 … 1. */
  readonly onProgress?: (share: number) => void;
  readonly signal?: AbortSignal;
  /** Of the source, where it is a stream that does not know: bytes. */
  readonly size?: number;
}

/** Bytes of a file read before the page is let breathe again. */
const CHUNK = 1 << 20;

/**
 * Reads a CSV piece by piece: commas, semicolons or tabs. Every row is counted and those of one part are kept, so that a
 * file of a million rows costs no more memory than one of a thousand.
 * @throws AbortError where the signal says so
 */
export function readTable(
  source: string | File | NodeJS.ReadableStream,
  { part = 0, onProgress, signal, size = sizeOf(source) }: Parsing = {},
): Promise<ReadingsTable> {
  const before = part * MOST_READINGS;
  let headers: readonly string[] | undefined;
  let total = 0;
  const cells: string[][] = [];
  const take = (row: string[]) => {
    if (!headers) headers = row.map((header) => header.replace(/^\uFEFF/, '').trim());
    else if (++total > before && total <= before + MOST_READINGS) cells.push(row);
  };
  return new Promise((resolve, reject) => {
    Papa.parse<string[]>(source as File, {
      skipEmptyLines: 'greedy',
      chunkSize: CHUNK,
      chunk: ({ data, meta }, parser) => {
        if (signal?.aborted) return parser.abort();
        data.forEach(take);
        if (size) onProgress?.(Math.min(1, meta.cursor / size));
      },
      complete: () => {
        if (signal?.aborted) reject(new DOMException('reading the file was cancelled', 'AbortError'));
        else resolve({ headers: headers ?? [], cells, before, total });
      },
      error: reject,
    });
  });
}

const sizeOf = (source: string | File | NodeJS.ReadableStream): number | undefined =>
  typeof source === 'string' ? source.length : 'size' in source ? source.size : undefined;

/**
 * What a part of a CSV says: decimal points or commas, columns matched by their headers or as the user chose. Every row
 * becomes the line one would have typed, and is judged like one; struck rows of our own export are left out.
 */
export function previewReadings(
  { headers, cells, before }: ReadingsTable,
  subjects: Subjects,
  unit: LengthUnit,
  chosen?: ReadingMapping,
): ReadingsPreview {
  const mapping = chosen ?? matchColumns(headers);
  const struck = headers.findIndex((header) => plain(header) === 'struck at');
  // Our own export says its unit in the header: a bare number under it is millimetres.
  const bare = /mm/i.test(headers[mapping.value] ?? '') ? 'mm' : unit;
  const rows = cells.flatMap((row, i): ImportedReading[] => {
    if (struck >= 0 && row[struck]?.trim()) return [];
    const line = lineOf(row, mapping, bare);
    const parsed = parseLine(line, subjects, unit);
    return [{ number: before + i + 2, line, ...(parsed.ok ? {} : { fault: parsed.reason }) }];
  });
  return { headers, mapping, rows };
}

const plain = (header: string): string =>
  header
    .toLowerCase()
    .replace(/[_\-/.:()]+/g, ' ')
    .trim();

function matchColumns(headers: readonly string[]): ReadingMapping {
  const taken = new Set<number>();
  const found = READING_COLUMNS.map((column) => {
    const at = headers.findIndex((header, i) => !taken.has(i) && SYNONYMS[column].includes(plain(header)));
    if (at >= 0) taken.add(at);
    return [column, at] as const;
  });
  return Object.fromEntries(found) as ReadingMapping;
}

const LETTER: Readonly<Record<string, string>> = {
  length: 'l',
  width: 'w',
  height: 'h',
  gap: 'g',
  flush: 'f',
  l: 'l',
  w: 'w',
  h: 'h',
  g: 'g',
  f: 'f',
  x: 'l',
  y: 'w',
  z: 'h',
};

/** The apostrophe that keeps a spreadsheet from running a text as a formula is taken off again. */
const cell = (cells: readonly string[], at: number): string =>
  at < 0 ? '' : (cells[at] ?? '').trim().replace(/^'(?=[=+\-@])/, '');

function lineOf(cells: readonly string[], mapping: ReadingMapping, bare: LengthUnit): string {
  const of = (column: ReadingColumn) => cell(cells, mapping[column]);
  const typed = of('value');
  const value = /^[+-]?[\d.,]+$/.test(typed) ? `${typed} ${bare}` : typed;
  const to = of('to');
  if (to) return [of('subject'), to, value, of('measure')].filter(Boolean).join(' ');
  return [of('subject'), LETTER[of('quantity').toLowerCase()] ?? '', value].filter(Boolean).join(' ');
}
