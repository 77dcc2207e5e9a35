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

export interface ReadingsPreview {
  /** The file has more rows than are taken at once: none of them is read. */
  readonly tooMany: boolean;
  readonly headers: readonly string[];
  readonly mapping: ReadingMapping;
  readonly rows: readonly ImportedReading[];
}

/**
 * Reads a CSV of readings: commas, semicolons or tabs, decimal points or commas, columns matched by
 * their headers or as the user chose. Every row becomes the line one would have typed, and is judged
 * like one; struck rows of our own export are left out.
 */
export function readReadingsCsv(
  text: string,
  subjects: Subjects,
  unit: LengthUnit,
  chosen?: ReadingMapping,
): ReadingsPreview {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    skipEmptyLines: 'greedy',
    // The header, and one more than is taken.
    preview: MOST_READINGS + 2,
  });
  const tooMany = data.length > MOST_READINGS + 1;
  const headers = (data[0] ?? []).map((header) => header.trim());
  const mapping = chosen ?? matchColumns(headers);
  const struck = headers.findIndex((header) => plain(header) === 'struck at');
  // Our own export says its unit in the header: a bare number under it is millimetres.
  const bare = /mm/i.test(headers[mapping.value] ?? '') ? 'mm' : unit;
  const rows = (tooMany ? [] : data.slice(1)).flatMap((cells, i): ImportedReading[] => {
    if (struck >= 0 && cells[struck]?.trim()) return [];
    const line = lineOf(cells, mapping, bare);
    const parsed = parseLine(line, subjects, unit);
    return [{ number: i + 2, line, ...(parsed.ok ? {} : { fault: parsed.reason }) }];
  });
  return { tooMany, headers, mapping, rows };
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
