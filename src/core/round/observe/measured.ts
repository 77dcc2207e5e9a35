import type { Axis } from '../../maths/geometry/vector';
import { grouped } from '../../maths/grouped';
import type { Quantity, Reading } from '../../shell/job/entities';
import type { Observed } from './observe';

/** One quantity of one subject in one round: the weighted mean of the readings that stand. */
export interface MeasuredValue {
  readonly value: number;
  /** One standard deviation, mm. */
  readonly sd: number;
  readonly readingIds: readonly string[];
}

/** What a round has measured of one point, along the axes of the round's own zero planes. */
export type PointMeasurement = { readonly [A in Axis]?: MeasuredValue };

export interface MeasuredDistance extends MeasuredValue {
  readonly fromPointId: string;
  readonly toPointId: string;
  readonly measure: 'tip' | 'level';
}

export interface MeasuredGap extends MeasuredValue {
  readonly stationId: string;
  readonly quantity: 'gap' | 'flush';
}

/** Everything a round's standing readings say, combined per subject. */
export interface MeasuredRound {
  readonly points: ReadonlyMap<string, PointMeasurement>;
  readonly distances: readonly MeasuredDistance[];
  readonly gaps: readonly MeasuredGap[];
}

export const AXIS_OF: Readonly<Partial<Record<Quantity, Axis>>> = {
  length: 'x',
  width: 'y',
  height: 'z',
};

/** Combines the observed readings of a round per subject, without the net: repeats become their mean. */
export function measure(observed: readonly Observed[]): MeasuredRound {
  const points = new Map<string, PointMeasurement>();
  const distances: MeasuredDistance[] = [];
  const gaps: MeasuredGap[] = [];
  for (const group of grouped(observed, ({ subject }) => subject).values()) {
    const first: Reading = group[0]!.reading;
    const mean = meanOf(group);
    const axis = AXIS_OF[first.quantity];
    if (axis && first.pointId) points.set(first.pointId, { ...points.get(first.pointId), [axis]: mean });
    else if (first.quantity === 'distance') distances.push(distanceOf(mean, first));
    else if (first.stationId)
      gaps.push({ ...mean, stationId: first.stationId, quantity: first.quantity as 'gap' | 'flush' });
  }
  return { points, distances, gaps };
}

/** Written out: a spread is slow where a round has thousands. */
const distanceOf = ({ value, sd, readingIds }: MeasuredValue, first: Reading): MeasuredDistance => ({
  value,
  sd,
  readingIds,
  fromPointId: first.pointId!,
  toPointId: first.toPointId!,
  measure: first.measure!,
});

/**
 * The mean of several observations of one subject and its standard deviation. Those with one instrument share its
 * bias: n of them have the variance σ_b² + 1/Σ(1/σᵢ²), and instruments are combined by the inverse of theirs.
 */
function meanOf(group: readonly Observed[]): MeasuredValue {
  // Most things are read once.
  if (group.length === 1) {
    const [{ reading, amount, sigma, bias }] = group as [Observed];
    return { value: amount, sd: bias ? Math.hypot(sigma, bias.sigma) : sigma, readingIds: [reading.id] };
  }
  let [sum, weights] = [0, 0];
  for (const bundle of grouped(group, ({ reading, bias }) => bias?.group ?? reading.id).values()) {
    const own = bundle.reduce((all, { sigma }) => all + 1 / sigma ** 2, 0);
    const mean = bundle.reduce((all, { sigma, amount }) => all + amount / sigma ** 2, 0) / own;
    // Repeats over lengths that differ a little differ as little in the bias they share.
    const shared = bundle.reduce((all, { bias }) => all + (bias?.sigma ?? 0) ** 2, 0) / bundle.length;
    const weight = 1 / (shared + 1 / own);
    sum += weight * mean;
    weights += weight;
  }
  return { value: sum / weights, sd: 1 / Math.sqrt(weights), readingIds: group.map(({ reading }) => reading.id) };
}

/** The distance read between two points, from either end, the way `measure` says. */
export function distanceBetween(
  measured: MeasuredRound,
  ends: {
    readonly fromPointId: string;
    readonly toPointId: string;
    readonly measure: 'tip' | 'level';
  },
): MeasuredDistance | undefined {
  const wanted = new Set([ends.fromPointId, ends.toPointId]);
  return measured.distances.find(
    (each) => each.measure === ends.measure && wanted.has(each.fromPointId) && wanted.has(each.toPointId),
  );
}
