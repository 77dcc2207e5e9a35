import type { Reading } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { SLIP_WORD } from '@/core/report/vocabulary/words';
import type { Unlikely } from '@/core/walk/unlikely';
import type { Formatter } from '@/formats/formatter';
import { targetPrefix, type Target } from '@/core/walk/targets';
import { parseLine, type Subjects } from '@/core/shell/shorthand/line';
import { readWithNew, type LineWithNew } from '@/core/shell/shorthand/new-points';

/** What a line can name in this job. */
export function subjectsOf(rows: JobRows): Subjects & { readonly names: ReadonlyMap<string, string> } {
  const seamCode = new Map(rows.seams.map((seam) => [seam.id, seam.code]));
  return {
    points: rows.points,
    stations: rows.seamStations.map((station) => ({
      id: station.id,
      code: `${seamCode.get(station.seamId)}.${station.number}`,
    })),
    partHoles: rows.partHoles.map(({ id, gaugePartId, code, clearance }) => ({
      ...{ id, clearance },
      code: `${rows.gaugeParts.find((part) => part.id === gaugePartId)?.code}.${code}`,
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

/** The question a line raises before it is taken: what is expected, by how much it is off, and the slip that explains it. */
export function unlikelyQuestion({ expected, over, slip }: Unlikely, format: Formatter): string {
  const by = `${format.length(Math.abs(over))} ${over > 0 ? 'over' : 'under'}`;
  const said = `expected ${format.length(expected.value)} ${format.plusMinus(2 * expected.sd)} ${format.unit}: ${by}`;
  return `${said}${slip ? `: ${SLIP_WORD[slip]}?` : '.'} Enter again takes it all the same.`;
}

/** Codes of the points some readings speak of. */
export const codesOf = (rows: JobRows, readings: readonly Reading[] | undefined): string[] =>
  (readings ?? []).flatMap(({ pointId, toPointId }) =>
    rows.points.filter(({ id }) => id === pointId || id === toPointId).map(({ code }) => code),
  );
