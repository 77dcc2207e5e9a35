import { fitSelected } from '../../maths/rigid/fit';
import { apply, add, type Position, type Vector } from '../../maths/geometry/vector';
import type { Point } from '../../shell/job/entities';
import type { SurveyPoint, SurveyReading } from '../../survey/survey';

const AXIS = { station: 0, offset: 1, height: 2 } as const;
/** Where a shift alone leaves the middle reading farther off than this, the round's axes are turned, mm. */
const TURNED = 40;

/**
 * Chart positions moved as a whole to where the round's heights, lengths and widths put them: shifted by the
 * middle of what they say, and turned first where the round's axes are not the chart's.
 */
export function startingPoints(
  positions: readonly { point: Point; at: Vector | undefined }[],
  readings: readonly SurveyReading[],
): SurveyPoint[] {
  const charted = new Map(positions.flatMap(({ point, at }) => (at ? [[point.code, at] as const] : [])));
  const chart = turnedOnto(charted, readings);
  const shifts: [number[], number[], number[]] = [[], [], []];
  for (const reading of readings) {
    if (reading.kind !== 'station' && reading.kind !== 'offset' && reading.kind !== 'height') continue;
    const at = chart.get(reading.point);
    if (at) shifts[AXIS[reading.kind]].push(reading.value - at[AXIS[reading.kind]]);
  }
  const shift = shifts.map(median) as unknown as Vector;
  const centre = [0, 1, 2].map((axis) => [...chart.values()].reduce((sum, at) => sum + at[axis]! / chart.size, 0));
  const beside = new Map(positions.map(({ point }) => [point.id, point.code]));
  return positions.map(({ point, at }) => {
    // A substitute stands beside its point, not in it.
    const aside = at || point.substituteForId === null ? 0 : 20;
    const near =
      chart.get(point.code) ??
      chart.get(beside.get(point.substituteForId ?? '') ?? '') ??
      (centre as unknown as Vector);
    return { id: point.code, start: [near[0] + shift[0] + aside, near[1] + shift[1] + aside / 2, near[2] + shift[2]] };
  });
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = Math.floor(sorted.length / 2);
  if (sorted.length === 0) return 0;
  return sorted.length % 2 === 1 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2;
}

/** The chart in the round's axes where whole positions were read in axes that are turned against it. */
function turnedOnto(
  chart: ReadonlyMap<string, Vector>,
  readings: readonly SurveyReading[],
): ReadonlyMap<string, Vector> {
  const read = new Map<string, (number | undefined)[]>();
  for (const reading of readings) {
    if (!(reading.kind in AXIS) || !('point' in reading) || typeof reading.value !== 'number') continue;
    const axes = read.get(reading.point) ?? [undefined, undefined, undefined];
    axes[AXIS[reading.kind as keyof typeof AXIS]] = reading.value;
    read.set(reading.point, axes);
  }
  const whole = [...read].flatMap(([id, axes]) => {
    const at = chart.get(id);
    return at && axes.every((value) => value !== undefined)
      ? [{ id, measured: at as Position<'round'>, reference: axes as unknown as Position<'chart'>, sigma: 1 }]
      : [];
  });
  const shift = [0, 1, 2].map((k) => median(whole.map(({ measured, reference }) => reference[k]! - measured[k]!)));
  const off = median(
    whole.map(({ measured, reference }) =>
      Math.hypot(...[0, 1, 2].map((k) => reference[k]! - measured[k]! - shift[k]!)),
    ),
  );
  const fit = off > TURNED ? fitSelected(whole) : undefined;
  if (!fit?.ok) return chart;
  const { rotation, translation } = fit.motion;
  return new Map([...chart].map(([id, at]) => [id, add(apply(rotation, at), translation)]));
}
