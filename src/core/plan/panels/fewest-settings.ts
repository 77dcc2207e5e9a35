import { bestSettings, type Figures, type SeatSetting, type SeatStation, type Wanted } from './seat';

/** What one of each setting does to gap and flush of each station, mm: station by station. */
export type Effects = readonly (readonly Figures[])[];

/** A setting that takes less than this off the sum of squares is not worth a spanner. */
const WORTH = 0.2;

/** A gap that falls short of its least by less than this keeps it, mm. */
const KEEPS = 0.05;
/** A gap that would get smaller than its least is brought to it by so much weight. */
const HEAVY = 1000;
/** A setting at the end of its range costs so much by itself: of two that do the same, the smaller. */
const AT_ITS_END = 0.02;
/** What is better by less than this is the same. */
const SAME = 0.01;

/** The settings that are best, and what they come to. */
interface Best {
  readonly values: readonly number[];
  readonly after: readonly Figures[];
  readonly cost: number;
  readonly proven: boolean;
}

/**
 * The best settings, and of them as few as do: without their steps one after the other is left as it is, the least useful first,
 * while little is lost; the rest are then set by their steps, unless all together are better by more.
 */
export function inFewest(
  stations: readonly SeatStation[],
  settings: readonly SeatSetting[],
  effects: Effects,
  leasts: readonly number[],
): Best {
  const solved = (used: readonly number[], stepped: boolean): Best => {
    const narrow = new Set<number>();
    const ranges = used.map((i) => (stepped ? settings[i]! : { from: settings[i]!.from, to: settings[i]!.to }));
    for (;;) {
      const judged = stations.map((each, i) =>
        narrow.has(i) ? { ...each, gap: { ...each.gap, target: leasts[i]!, weight: HEAVY * each.gap.weight } } : each,
      );
      const { A, b } = programme(judged, used, settings, effects);
      const found = bestSettings(A, b, ranges, stepped ? SAME : 0);
      const values = settings.map((_, i) => found.values[used.indexOf(i)] ?? 0);
      const after = figuresAt({ stations, effects }, values);
      const under = after.flatMap(({ gap }, i) => (gap < leasts[i]! - KEEPS && !narrow.has(i) ? [i] : []));
      if (under.length === 0) return { values, after, cost: costOf(stations, after), proven: found.proven };
      under.forEach((i) => narrow.add(i));
    }
  };
  const all = settings.map((_, i) => i);
  const everything = solved(all, true);
  const free = solved(all, false).cost;
  let used: readonly number[] = all;
  for (;;) {
    const [next] = used
      .filter((i) => settings[i]!.from <= 0 && settings[i]!.to >= 0)
      .map((i) => used.filter((each) => each !== i))
      .map((fewer) => ({ fewer, cost: solved(fewer, false).cost }))
      .toSorted((a, b) => a.cost - b.cost);
    if (!next || next.cost - free > WORTH) break;
    used = next.fewer;
  }
  const few = solved(used, true);
  return few.cost - everything.cost > WORTH ? everything : { ...few, proven: everything.proven };
}

/** Rows of what counts, each over its limit and by its weight, and a little for every setting's being moved at all. */
function programme(
  stations: readonly SeatStation[],
  used: readonly number[],
  settings: readonly SeatSetting[],
  effects: Effects,
): { readonly A: number[][]; readonly b: number[] } {
  const rows = stations.flatMap(({ gap, flush }, s) =>
    ([['gap', gap], ...(flush ? [['flush', flush] as const] : [])] as const).map(([key, wanted]) => {
      const per = Math.sqrt(wanted.weight) / wanted.limit;
      return { a: used.map((i) => (effects[s]![i]![key] ?? 0) * per), b: (wanted.target - wanted.now) * per };
    }),
  );
  const small = used.map((i, k) => {
    const most = Math.max(Math.abs(settings[i]!.from), Math.abs(settings[i]!.to)) || 1;
    return { a: used.map((_, c) => (c === k ? Math.sqrt(AT_ITS_END) / most : 0)), b: 0 };
  });
  const all = [...rows, ...small];
  return { A: all.map(({ a }) => a), b: all.map((row) => row.b) };
}

export type Judged = Pick<SeatStation, 'gap' | 'flush'>;
/** Gap and flush as they are read. */
export const asItIs = ({ gap, flush }: Judged): Figures => ({ gap: gap.now, ...(flush ? { flush: flush.now } : {}) });

/** The sum of squares over limits at some gaps and flushes. */
export function costOf(stations: readonly Judged[], figures: readonly Figures[]): number {
  const square = (value: number, { target, limit, weight }: Wanted) => weight * ((value - target) / limit) ** 2;
  return stations.reduce(
    (sum, { gap, flush }, i) =>
      sum + square(figures[i]!.gap, gap) + (flush ? square(figures[i]!.flush ?? flush.now, flush) : 0),
    0,
  );
}

/** Stations with what settings do to them. */
interface Figured {
  readonly stations: readonly Judged[];
  readonly effects: Effects;
}

/** Gap and flush of every station with the settings at some values, mm. */
export const figuresAt = ({ stations, effects }: Figured, values: readonly number[]): Figures[] =>
  stations.map(({ gap, flush }, i) => {
    const moved = (key: 'gap' | 'flush') =>
      values.reduce((sum, value, k) => sum + value * (effects[i]![k]![key] ?? 0), 0);
    return { gap: gap.now + moved('gap'), ...(flush ? { flush: flush.now + moved('flush') } : {}) };
  });
