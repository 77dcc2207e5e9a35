import Papa from 'papaparse';
import { parseLength, type LengthUnit } from '@/core/maths/units/length';
import type { Fault } from './faults';

/** A line of a text in cells, and where its faults go. */
export interface TypedLine {
  readonly cells: readonly string[];
  readonly fault: (message: string) => void;
}

/** The lines of a text in cells, blank ones left out; a fault names its line. */
export function linesOf(text: string, path: string, faults: Fault[]): TypedLine[] {
  const { data } = Papa.parse<string[]>(text, { delimiter: ';', skipEmptyLines: false });
  return data.flatMap((raw, i) => {
    const cells = raw.map((cell) => cell.trim());
    const fault = (message: string) => void faults.push({ path, message: `line ${i + 1}: ${message}` });
    return cells.every((cell) => cell === '') ? [] : [{ cells, fault }];
  });
}

/** Reads a length of a line, in the unit of bare numbers. */
export function lengthOf({ cells, fault }: TypedLine, k: number, what: string, unit: LengthUnit): number {
  const parsed = parseLength(cells[k] ?? '', unit);
  if (!parsed.ok) fault(`${what}: ${parsed.reason}`);
  return parsed.ok ? parsed.mm : 0;
}
