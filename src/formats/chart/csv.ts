import Papa from 'papaparse';
import { checkDraft } from '@/core/shell/chart/check-draft';
import type { ChartDraft, DraftDimension, DraftPoint, KnownCodes, NamedPoint } from '@/core/shell/chart/draft';
import { sideOfCode } from '@/core/shell/shorthand/new-points';
import type { Measure, Side } from '@/core/shell/job/entities';
import { formatLength, parseLength, type LengthUnit } from '@/core/maths/units/length';
import { matchHeaders, type ChartColumn } from './headers';

/** How a file is read: the unit of bare numbers, and the driver's side for *nearside* and the like. */
export interface ChartReading {
  readonly unit: LengthUnit;
  readonly driverSide: 'left' | 'right';
}

/** One row of the file as the preview shows it. */
export interface PreviewRow {
  readonly file: string;
  /** Line of the file, from 1. */
  readonly line: number;
  readonly text: string;
  readonly faults: readonly string[];
}

export interface ChartPreview {
  readonly draft: ChartDraft;
  readonly rows: readonly PreviewRow[];
  /** Faults of a file as a whole. */
  readonly faults: readonly string[];
}

/** Where the figures of a point have no tolerance of their own: structural points of an older shell. */
const DEFAULT_TOLERANCE = 3;

export const emptyDraft = (): ChartDraft => ({ points: [], dimensions: [], lines: [], seams: [] });

interface ReadRow<Row> {
  readonly line: number;
  readonly row: Row;
  readonly faults: string[];
}

/**
 * Reads a chart of points or of dimensions from CSV: comma, semicolon or tab between the cells,
 * decimal point or comma in them, headers matched leniently, lengths in any form people type.
 */
export function readChartCsv(
  files: readonly { readonly name: string; readonly text: string }[],
  reading: ChartReading,
  here: KnownCodes,
): ChartPreview {
  const faults: string[] = [];
  const points: (ReadRow<DraftPoint> & { file: string })[] = [];
  const named: (ReadRow<NamedPoint> & { file: string })[] = [];
  const dimensions: (ReadRow<DraftDimension> & { file: string })[] = [];
  for (const { name, text } of files) {
    const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: false });
    const first = data.findIndex((cells) => cells.some((cell) => cell.trim() !== ''));
    const columns = matchHeaders(data[first] ?? []);
    const lacking = missingColumns(columns);
    if (lacking.length > 0) {
      faults.push(`${name}: the first line must name the columns; missing: ${lacking.join(', ')}`);
      continue;
    }
    data.slice(first + 1).forEach((cells, i) => {
      if (cells.every((cell) => cell.trim() === '')) return;
      const cell = (column: ChartColumn) => cells[columns.get(column) ?? -1]?.trim() ?? '';
      const line = first + i + 2;
      if (columns.has('from'))
        dimensions.push({ ...readDimension(cell, line, reading, dimensions.length), file: name });
      else if (isOnlyNamed(cell)) named.push({ ...readNamed(cell, line, reading), file: name });
      else points.push({ ...readPoint(cell, line, reading), file: name });
    });
  }
  const draft: ChartDraft = {
    ...emptyDraft(),
    points: points.map(({ row }) => row),
    named: named.map(({ row }) => row),
    dimensions: dimensions.map(({ row }) => row),
  };
  for (const { list, index, message } of checkDraft(draft, here))
    ({ points, named, dimensions, lines: [], seams: [] })[list][index]!.faults.push(message);
  const rows = [
    ...points.map(({ row, ...rest }) => ({ ...rest, text: pointText(row) })),
    ...named.map(({ row, ...rest }) => ({ ...rest, text: `${row.code}  ${row.name}  ${row.side}  only named` })),
    ...dimensions.map(({ row, ...rest }) => ({ ...rest, text: dimensionText(row) })),
  ];
  if (rows.length === 0 && faults.length === 0) faults.push('there are no rows below the header');
  return { draft, rows, faults };
}

const missingColumns = (columns: ReadonlyMap<ChartColumn, number>): ChartColumn[] =>
  (columns.has('from') || columns.has('to')
    ? (['from', 'to', 'value'] as const)
    : (['x', 'y', 'z'] as const).every((column) => !columns.has(column))
      ? (['code'] as const)
      : (['code', 'x', 'y', 'z'] as const)
  ).filter((column) => !columns.has(column));

type Cell = (column: ChartColumn) => string;

/** The chart gives none of its coordinates. */
const isOnlyNamed = (cell: Cell): boolean => (['x', 'y', 'z'] as const).every((column) => cell(column) === '');

/** A point by its code, name and side alone, as a shell without a chart has them. */
function readNamed(cell: Cell, line: number, { unit, driverSide }: ChartReading): ReadRow<NamedPoint> {
  const faults: string[] = [];
  const code = cell('code');
  if (code === '') faults.push('the id is missing');
  const side = cell('side') === '' ? sideOfCode(code) : readSide(cell('side'), 0, driverSide);
  if (side === undefined) faults.push(`"${cell('side')}" is not a side: left, right or centre`);
  const holeDiameter = cell('hole') === '' ? null : numberReader(cell, unit, faults)('hole');
  return { line, row: { code, name: cell('name'), side: side ?? 'centre', holeDiameter }, faults };
}

function readPoint(cell: Cell, line: number, { unit, driverSide }: ChartReading): ReadRow<DraftPoint> {
  const faults: string[] = [];
  const number = numberReader(cell, unit, faults);
  const [x, y, z] = [number('x'), number('y'), number('z')];
  const hole = cell('hole') === '' ? null : number('hole');
  const side = readSide(cell('side'), y, driverSide);
  if (side === undefined) faults.push(`"${cell('side')}" is not a side: left, right or centre`);
  if (cell('code') === '') faults.push('the id is missing');
  const row: DraftPoint = {
    code: cell('code'),
    name: cell('name'),
    side: side ?? 'centre',
    x,
    y,
    z,
    tolerance: readTolerance(number, cell),
    holeDiameter: hole,
  };
  return { line, row, faults };
}

function readDimension(cell: Cell, line: number, { unit }: ChartReading, index: number): ReadRow<DraftDimension> {
  const faults: string[] = [];
  const number = numberReader(cell, unit, faults);
  const measure = readMeasure(cell('measure'));
  if (measure === undefined) faults.push(`"${cell('measure')}" is neither tip to tip nor level`);
  for (const end of ['from', 'to'] as const) if (cell(end) === '') faults.push(`${end} is missing`);
  const value = number('value');
  if (value <= 0 && faults.length === 0) faults.push(`a distance is above zero, not ${cell('value')}`);
  const row: DraftDimension = {
    code: cell('code') || `D${index + 1}`,
    name: cell('name'),
    from: cell('from'),
    to: cell('to'),
    value,
    tolerance: readTolerance(number, cell),
    measure: measure ?? 'tip',
  };
  return { line, row, faults };
}

/** Reads a cell as a length; a cell that is none is a fault and counts as 0. */
const numberReader =
  (cell: Cell, unit: LengthUnit, faults: string[]) =>
  (column: ChartColumn): number => {
    const text = cell(column);
    const parsed = parseLength(text, unit);
    if (parsed.ok) return parsed.mm;
    faults.push(text === '' ? `${column} is missing` : `${column}: ${parsed.reason}`);
    return 0;
  };

function readTolerance(number: (column: ChartColumn) => number, cell: Cell): number {
  const typed = cell('tolerance') === '' ? DEFAULT_TOLERANCE : Math.abs(number('tolerance'));
  return typed === 0 ? DEFAULT_TOLERANCE : typed;
}

/** The side a word means, or the side the width lies on where the cell is empty. */
export function readSide(text: string, y: number, driverSide: 'left' | 'right'): Side | undefined {
  const other = driverSide === 'left' ? 'right' : 'left';
  const word = text.toLowerCase().replace(/[^a-z]/g, '');
  if (word === '') return Math.abs(y) < 1 ? 'centre' : y < 0 ? 'left' : 'right';
  if (['l', 'left', 'lh', 'lhs'].includes(word)) return 'left';
  if (['r', 'right', 'rh', 'rhs'].includes(word)) return 'right';
  if (['c', 'm', 'centre', 'center', 'middle', 'mid'].includes(word)) return 'centre';
  if (['offside', 'os', 'drivers', 'driver', 'driversside'].includes(word)) return driverSide;
  if (['nearside', 'ns', 'passengers', 'passenger', 'passengersside'].includes(word)) return other;
  return undefined;
}

function readMeasure(text: string): Measure | undefined {
  const word = text.toLowerCase().replace(/[^a-z]/g, '');
  if (['', 'tip', 'tiptotip', 't', 'direct', 'straight'].includes(word)) return 'tip';
  if (['level', 'l', 'plan', 'datum', 'horizontal'].includes(word)) return 'level';
  return undefined;
}

const pointText = (p: DraftPoint): string =>
  `${p.code}  ${p.name}  ${p.side}  ${[p.x, p.y, p.z].map((mm) => formatLength(mm)).join('  ')}  limit ${formatLength(p.tolerance)}`;

const dimensionText = (d: DraftDimension): string =>
  `${d.code}  ${d.from} – ${d.to}  ${formatLength(d.value)}  ${d.measure}  limit ${formatLength(d.tolerance)}`;
