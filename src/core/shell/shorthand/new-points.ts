import type { LengthUnit } from '../../maths/units/length';
import type { Side } from '../job/entities';
import { mirroredCode } from '../mirrored-code';
import { parseLine, type ParsedLine, type Subjects } from './line';

/** A point that a line names and that is not there yet. */
export interface NewPoint {
  readonly code: string;
  /** As its code lets guess. */
  readonly side: Side;
  /** The code of its mirror image, where that is not there either. */
  readonly mirror?: string;
}

/** A line, and the points it would make. */
export type LineWithNew =
  (Extract<ParsedLine, { ok: true }> & { readonly made?: readonly NewPoint[] }) | Extract<ParsedLine, { ok: false }>;

const CODE = /^[a-z][a-z0-9_]{0,39}$/i;
/** Words of a line that are no codes. */
const WORDS = new Set(['to', 'head', 'free', 'tight', 'no', 'tip', 'level', 'p', 'pointers', 'l', 'w', 'h', 'g', 'f']);

/** What a new point is known by in a line until it has an identity. */
export const newPointId = (code: string): string => `new ${code}`;

/** The side a code tells: an L or R at its end, or before a number at its beginning. */
export function sideOfCode(code: string): Side {
  // A word that happens to end so is no code of a side.
  const own = code.length <= 4 || /\d/.test(code) ? /[lr]$/i.exec(code)?.[0] : undefined;
  const letter = own ?? /^[lr](?=\d)/i.exec(code)?.[0];
  return letter === undefined ? 'centre' : /l/i.test(letter) ? 'left' : 'right';
}

/**
 * Reads a line in which one or both of the points may be new: `FL FR 1230` in a job that knows neither. A line that makes
 * sense without new points makes none; one that makes no sense with them is refused as it stands.
 */
export function readWithNew(text: string, subjects: Subjects, unit: LengthUnit): LineWithNew {
  const plain = parseLine(text, subjects, unit);
  if (plain.ok) return plain;
  const codes = unknownCodes(text, subjects);
  if (codes.length === 0) return plain;
  const points = codes.map((code) => ({ id: newPointId(code), code, side: sideOfCode(code) }));
  const parsed = parseLine(text, { ...subjects, points: [...subjects.points, ...points] }, unit);
  if (!parsed.ok) return startsWithReading(text) ? plain : parsed;
  const known = new Set([...subjects.points, ...points].map(({ code }) => code.toUpperCase()));
  return {
    ...parsed,
    made: points.map(({ code, side }) => {
      const mirror = mirroredCode(code, side);
      return { code, side, ...(known.has(mirror.toUpperCase()) ? {} : { mirror }) };
    }),
  };
}

/** The codes among the first words of a line that name nothing yet; new ones are written in capitals. */
function unknownCodes(text: string, { points, stations, partHoles = [] }: Subjects): string[] {
  const words = text.trim().split(/[\s,–>-]+/);
  const known = new Set([...points, ...stations, ...partHoles].map(({ code }) => code.toLowerCase()));
  const subject = words.slice(0, words[1]?.toLowerCase() === 'to' ? 3 : 2);
  const codes = subject.filter((word, i) => isCode(word, i) && !known.has(word.toLowerCase()));
  return [...new Set(codes.map((code) => code.toUpperCase()))];
}

/** A word that can be a code: in the second place not one that says what is read, `h` or `h215`; `F1R` is one. */
const isCode = (word: string, place: number): boolean =>
  CODE.test(word) && !WORDS.has(word.toLowerCase()) && (place === 0 || !/^[lwhgf]\d+(mm|cm|m|in|ft)?$/i.test(word));

const startsWithReading = (text: string): boolean => /^\s*[\d.,+-]/.test(text);
