import type { Reading } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { targetPrefix, type Target } from '@/core/walk/targets';
import { parseLine, type ParsedLine, type Subjects } from '@/core/shell/shorthand/line';
import { readWithNew, type LineWithNew } from '@/core/shell/shorthand/new-points';

/** A number this many times what is expected is asked about. */
const TOO_MANY_TIMES = 5;
/** Lengths below this are too short for such a ratio to say anything, mm. */
const TOO_SHORT = 30;

/** What a line can name in this job. */
export function subjectsOf(rows: JobRows): Subjects & { readonly names: ReadonlyMap<string, string> } {
  const seamCode = new Map(rows.seams.map((seam) => [seam.id, seam.code]));
  return {
    points: rows.points,
    stations: rows.seamStations.map((station) => ({
      id: station.id,
      code: `${seamCode.get(station.seamId)}.${station.number}`,
    })),
    pairs: rows.dimensions,
    names: new Map(rows.points.map(({ code, name }) => [code, name])),
  };
}

/** A line as it stands, or, where that says nothing, as the amount of what is wanted now. */
export const lineReader =
  (subjects: Subjects, unit: Parameters<typeof parseLine>[2], target: Target | undefined) =>
  (text: string): LineWithNew => {
    const whole = readWithNew(text, subjects, unit);
    if (whole.ok || !target || /^\s*[a-z]/i.test(text)) return whole;
    const level = target.measure === 'level' && !/\b(tip|level)\s*$/i.test(text) ? ' level' : '';
    return parseLine(`${targetPrefix(target)}${text}${level}`, subjects, unit);
  };

/** The question about a length many times longer or shorter than expected. */
export function outlandish(
  parsed: ParsedLine,
  expected: { value: number } | undefined,
  show: (mm: number) => string,
): string | undefined {
  const value = parsed.ok ? parsed.readings[0]!.value : 0;
  if (!parsed.ok || !expected || expected.value < TOO_SHORT) return undefined;
  const ratio = value / expected.value;
  if (ratio < TOO_MANY_TIMES && ratio > 1 / TOO_MANY_TIMES) return undefined;
  return `${show(value)} is typed, about ${show(expected.value)} is expected: Enter again takes it all the same.`;
}

/** Codes of the points some readings speak of. */
export const codesOf = (rows: JobRows, readings: readonly Reading[] | undefined): string[] =>
  (readings ?? []).flatMap(({ pointId, toPointId }) =>
    rows.points.filter(({ id }) => id === pointId || id === toPointId).map(({ code }) => code),
  );
