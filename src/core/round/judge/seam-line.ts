import { judge, type Judgement } from '../../maths/statistics/verdict';

/** A figure of a whole seam against its limit, mm. */
export interface LineFigure extends Judgement {
  readonly value: number;
  readonly sd: number;
  readonly limit: number;
}

/** One station that was read: how far along the seam, what it is off its target, and what is known of that, mm. */
export interface ReadStation {
  /** From the first station; in any unit, growing along the seam. */
  readonly along: number;
  readonly deviation: number;
  readonly sd: number;
  readonly limit: number;
}

/** A seam taken as a line. Absent figures have too few stations. */
export interface SeamLine {
  /** Wider or narrower than wanted, on the whole. */
  readonly mean: LineFigure;
  /** From its first station to its last it opens by so much, by the straight line through all. */
  readonly taper?: LineFigure;
  /** The furthest a station stands off that line. */
  readonly wave?: LineFigure & { readonly at: number };
}

const figure = (value: number, sd: number, limit: number): LineFigure => ({
  ...judge(value, sd, limit),
  ...{ value, sd, limit },
});

/**
 * Mean, taper and waviness of a seam: the straight line through the deviations of its stations by weighted least squares, and
 * what is left of them. Readings of one caliper share nothing here: their own sds are weighed as they are.
 *
 * @returns undefined where no station is judged
 */
export function seamLine(stations: readonly ReadStation[]): SeamLine | undefined {
  if (stations.length === 0) return undefined;
  const weights = stations.map(({ sd }) => 1 / Math.max(sd, LEAST_SD) ** 2);
  const sum = (of: (station: ReadStation, i: number) => number) =>
    stations.reduce((total, station, i) => total + weights[i]! * of(station, i), 0);
  const all = sum(() => 1);
  const limit = Math.min(...stations.map((station) => station.limit));
  const [middle, mean] = [sum(({ along }) => along) / all, sum(({ deviation }) => deviation) / all];
  const spread = sum(({ along }) => (along - middle) ** 2);
  const line: SeamLine = { mean: figure(mean, Math.sqrt(1 / all), limit) };
  if (spread === 0) return line;
  const slope = sum(({ along, deviation }) => (along - middle) * (deviation - mean)) / spread;
  const places = stations.map(({ along }) => along);
  const length = Math.max(...places) - Math.min(...places);
  const taper = figure(slope * length, length / Math.sqrt(spread), limit);
  if (stations.length < 3) return { ...line, taper };
  const left = stations.map(({ along, deviation }) => deviation - mean - slope * (along - middle));
  const at = left.reduce((most, value, i) => (Math.abs(value) > Math.abs(left[most]!) ? i : most), 0);
  const leverage = weights[at]! * (1 / all + (places[at]! - middle) ** 2 / spread);
  const sd = Math.sqrt(Math.max(0, (1 - leverage) / weights[at]!));
  return { ...line, taper, wave: { ...figure(left[at]!, sd, limit), at } };
}

/** A reading known better than this is weighed as if it were not, mm. */
const LEAST_SD = 0.01;

/** How far a seam differs from its other side, by the stations read on both: left less right, mm. */
export function sidesDiffer(
  left: ReadonlyMap<number, ReadStation>,
  right: ReadonlyMap<number, ReadStation>,
): LineFigure | undefined {
  const both = [...left].flatMap(([number, station]) => {
    const other = right.get(number);
    return other ? [{ by: station.deviation - other.deviation, sd: Math.hypot(station.sd, other.sd), station }] : [];
  });
  if (both.length === 0) return undefined;
  const mean = both.reduce((total, { by }) => total + by, 0) / both.length;
  const sd = Math.hypot(...both.map((each) => each.sd)) / both.length;
  return figure(mean, sd, Math.min(...both.map(({ station }) => station.limit)));
}
