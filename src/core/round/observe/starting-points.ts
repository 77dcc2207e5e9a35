import { fitSelected } from '../../maths/rigid/fit';
import { mapAxes, place, position, type Position, type Vector } from '../../maths/geometry/vector';
import type { Point } from '../../shell/job/entities';
import { referencePosition, type ChosenReferences } from '../../shell/references/chosen';
import { placeAmong } from '../../survey/rough-start';
import type { SurveyPoint, SurveyReading } from '../../survey/survey';

const AXIS = { station: 0, offset: 1, height: 2 } as const;
/** Where a shift alone leaves the middle reading farther off than this, the round's axes are turned, mm. */
const TURNED = 40;
/** A substitute stands beside its point, not in it, mm. */
const ASIDE: Vector = [20, 10, 0];

/**
 * Chart positions moved as a whole to where the round's heights, lengths and widths put them: shifted by the
 * middle of what they say, and turned first where the round's axes are not the chart's.
 */
export function startingPoints(
  points: readonly Point[],
  references: ChosenReferences,
  readings: readonly SurveyReading[],
  former: (id: string) => Position<'chart'> | undefined = () => undefined,
): SurveyPoint[] {
  const charted = new Map(
    points.flatMap(({ id }) => {
      // A point the chart no longer speaks of stands where it stood.
      const at = referencePosition(references, id) ?? former(id);
      return at ? [[id, at] as const] : [];
    }),
  );
  const turned = turnedOnto(charted, readings);
  const shifts: [number[], number[], number[]] = [[], [], []];
  for (const reading of readings) {
    if (reading.kind !== 'station' && reading.kind !== 'offset' && reading.kind !== 'height') continue;
    const at = turned.get(reading.point);
    if (at) shifts[AXIS[reading.kind]].push(reading.value - at[AXIS[reading.kind]]);
  }
  // In whole millimetres: one reading more then seldom moves where all points start, and the last solution serves on.
  const shift = mapAxes((axis) => Math.round(median(shifts[axis])));
  const centre = mapAxes((axis) => [...turned.values()].reduce((sum, at) => sum + at[axis] / turned.size, 0));
  const standing = new Map([...turned].map(([id, at]) => [id, mapAxes((axis) => at[axis] + shift[axis])] as const));
  const side = new Map(points.map((point) => [point.id, point.side]));
  const ids = [...side.keys()];
  // Usually the chart has them all.
  const others = ids.every((id) => standing.has(id))
    ? standing
    : placeAmong(standing, ids, readings, (id) => side.get(id));
  return points.map(({ id, substituteForId }) => {
    const beside = standing.get(substituteForId ?? '');
    const own = standing.get(id) ?? (beside && mapAxes((axis) => beside[axis] + ASIDE[axis])) ?? others.get(id);
    return { id, start: own ?? mapAxes((axis) => centre[axis] + shift[axis]) };
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
  chart: ReadonlyMap<string, Position<'chart'>>,
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
      ? [{ id, measured: at, reference: position<'round'>(axes as number[]), sigma: 1 }]
      : [];
  });
  const shift = mapAxes((k) => median(whole.map(({ measured, reference }) => reference[k] - measured[k])));
  const off = median(
    whole.map(({ measured, reference }) => Math.hypot(...mapAxes((k) => reference[k] - measured[k] - shift[k]))),
  );
  const fit = off > TURNED ? fitSelected(whole) : undefined;
  if (!fit?.ok) return chart;
  return new Map([...chart].map(([id, at]) => [id, place(fit.motion, at)]));
}
