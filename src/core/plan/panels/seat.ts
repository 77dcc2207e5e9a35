import { Matrix, SingularValueDecomposition } from 'ml-matrix';
import { add, cross, norm, scale, subtract, type Vector } from '../../maths/geometry/vector';
import { minimise } from '../../maths/search/small-quadratic';

/** A place along a panel's edge, with what was read there and what is wanted, mm; `across` and `out` are unit vectors. */
export interface SeatStation {
  readonly at: Vector;
  /** The way in which the gap opens. */
  readonly across: Vector;
  readonly gap: Wanted;
  readonly out?: Vector;
  readonly flush?: Wanted;
}

export interface Wanted {
  readonly now: number;
  readonly target: number;
  readonly limit: number;
  readonly weight: number;
}

/** Values a setting may have: those that are named, every step from the first, or anything between. */
export interface Range {
  readonly from: number;
  readonly to: number;
  readonly step?: number;
  /** Ascending, from `from` to `to`. */
  readonly values?: readonly number[];
}

/** Something that can be set: a point of the panel moved along a unit vector, or so much a unit at some stations. */
export type SeatSetting = Range &
  (
    | { readonly at: Vector; readonly along: Vector }
    | { readonly effects: readonly { readonly station: number; readonly gap: number; readonly flush: number }[] }
  );

export interface SeatHold {
  readonly at: Vector;
  readonly along: Vector;
}

export interface Figures {
  readonly gap: number;
  readonly flush?: number;
}

export interface Seating {
  readonly values: readonly number[];
  readonly cost: number;
  /** With every setting 0, allowed or not. */
  readonly before: number;
  readonly stations: readonly Figures[];
  /** Over all six freedoms of the rigid panel: what no position can take away. */
  readonly free: { readonly cost: number; readonly stations: readonly Figures[] };
  readonly proven: boolean;
}

export type SeatResult =
  | { readonly ok: true; readonly value: Seating }
  /** Settings that move the panel and holds are not six conditions that say where it is. */
  | { readonly ok: false; readonly conditions: number };

/** Conditions are six in earnest where the smallest singular value is above this share of the largest. */
const INDEPENDENT = 1e-6;
/** A value within this of a step is on it. */
const ON_STEP = 1e-9;
/** With more settings than these so many branches are looked at and no more. */
const PROVEN_SETTINGS = 6;
const MOST_BRANCHES = 20_000;

/** One figure that counts: what it is now less its target, over its limit, times the root of its weight; and what moves it. */
interface Row {
  readonly station: number;
  readonly kind: 'gap' | 'flush';
  /** Of a movement t + w × p: the three shifts, then the three turns about the middle, each over its own scale. */
  readonly motion: readonly number[];
  readonly now: number;
  readonly per: number;
}

/**
 * The settings that bring gaps and flushes nearest their targets. The panel is rigid and moves little; six conditions, of its
 * settings and holds, make its movement a linear function of the settings, and the cost a quadratic one. Steps are found by
 * branch and bound (Land and Doig 1960) over the same programme with steps left out.
 */
export function seat(
  stations: readonly SeatStation[],
  settings: readonly SeatSetting[],
  holds: readonly SeatHold[],
): SeatResult {
  const posed = pose(stations, settings, holds);
  if (!posed.ok) return posed;
  const { rows, effects } = posed;
  const A = rows.map(({ per }, r) => effects[r]!.map((value) => value * per));
  const b = rows.map(({ now, per }) => -now * per);
  const found = bestSettings(A, b, settings);
  return {
    ok: true,
    value: {
      values: found.values,
      cost: costOf(A, b, found.values),
      before: costOf(
        A,
        b,
        settings.map(() => 0),
      ),
      stations: figuresBy(stations, rows, (_, r) => dotOf(effects[r]!, found.values)),
      free: freelySeated(stations, rows),
      proven: found.proven,
    },
  };
}

/** Gap and flush of every station where each row is moved by so much, mm. */
function figuresBy(
  stations: readonly SeatStation[],
  rows: readonly Row[],
  by: (row: Row, r: number) => number,
): Figures[] {
  const moved = new Map(rows.map((row, r) => [`${row.station} ${row.kind}`, by(row, r)]));
  return stations.map(({ gap, flush }, i) => ({
    gap: gap.now + moved.get(`${i} gap`)!,
    ...(flush ? { flush: flush.now + moved.get(`${i} flush`)! } : {}),
  }));
}

/** What is left where nothing holds the panel. */
function freelySeated(stations: readonly SeatStation[], rows: readonly Row[]): Seating['free'] {
  const b = rows.map(({ now, per }) => -now * per);
  const { cost, motion } = freely(rows, b);
  return { cost, stations: figuresBy(stations, rows, (row) => dotOf(row.motion, motion)) };
}

/** What settings do to a panel's stations. */
export interface SeatEffects {
  /** What one of each setting adds to the gap and the flush of each station, mm: a row a station, an entry a setting. */
  readonly effects: readonly (readonly Figures[])[];
  readonly free: Seating['free'];
}

export function seatEffects(
  stations: readonly SeatStation[],
  settings: readonly SeatSetting[],
  holds: readonly SeatHold[],
): { readonly ok: true; readonly value: SeatEffects } | Extract<SeatResult, { readonly ok: false }> {
  const posed = pose(stations, settings, holds);
  if (!posed.ok) return posed;
  const { rows, effects } = posed;
  const of = (station: number, kind: Row['kind']) =>
    effects[rows.findIndex((row) => row.station === station && row.kind === kind)];
  const value = stations.map((_, station) =>
    settings.map((__, i) => {
      const flush = of(station, 'flush');
      return { gap: of(station, 'gap')![i]!, ...(flush ? { flush: flush[i]! } : {}) };
    }),
  );
  return { ok: true, value: { effects: value, free: freelySeated(stations, rows) } };
}

const dotOf = (row: readonly number[], x: readonly number[]): number =>
  row.reduce((sum, value, i) => sum + value * x[i]!, 0);

/** Every figure that counts, and what one of each setting adds to it, mm. */
function pose(
  stations: readonly SeatStation[],
  settings: readonly SeatSetting[],
  holds: readonly SeatHold[],
):
  | { readonly ok: true; readonly rows: readonly Row[]; readonly effects: readonly (readonly number[])[] }
  | Extract<SeatResult, { readonly ok: false }> {
  const moving = settings.flatMap((setting, i) => ('at' in setting ? [{ ...setting, i }] : []));
  const conditions = [...moving, ...holds];
  if (conditions.length !== 6) return { ok: false, conditions: conditions.length };
  const middle = scale(
    conditions.reduce((sum, { at }) => add(sum, at), [0, 0, 0] as Vector),
    1 / 6,
  );
  const size = Math.max(1e-12, ...conditions.map(({ at }) => norm(subtract(at, middle))));
  const turned = (at: Vector, along: Vector) => [...along, ...cross(scale(subtract(at, middle), 1 / size), along)];
  const six = new SingularValueDecomposition(new Matrix(conditions.map(({ at, along }) => turned(at, along))));
  const values = six.diagonal;
  if (!(Math.min(...values) > INDEPENDENT * Math.max(...values))) return { ok: false, conditions: 6 };
  const inverse = six.inverse();
  const rows = rowsOf(stations, turned);
  const effect = (row: Row, i: number): number => {
    const setting = settings[i]!;
    if ('effects' in setting) {
      const own = setting.effects.find(({ station }) => station === row.station);
      return own ? own[row.kind] : 0;
    }
    const k = moving.findIndex((each) => each.i === i);
    return row.motion.reduce((sum, value, c) => sum + value * inverse.get(c, k), 0);
  };
  return { ok: true, rows, effects: rows.map((row) => settings.map((_, i) => effect(row, i))) };
}

function rowsOf(stations: readonly SeatStation[], turned: (at: Vector, along: Vector) => number[]): Row[] {
  const row = (station: number, kind: Row['kind'], at: Vector, along: Vector, wanted: Wanted): Row => ({
    ...{ station, kind, motion: turned(at, along) },
    now: wanted.now - wanted.target,
    per: Math.sqrt(wanted.weight) / wanted.limit,
  });
  return stations.flatMap(({ at, across, gap, out, flush }, i) => [
    row(i, 'gap', at, across, gap),
    ...(out && flush ? [row(i, 'flush', at, out, flush)] : []),
  ]);
}

function costOf(A: readonly (readonly number[])[], b: readonly number[], x: readonly number[]): number {
  return b.reduce((sum, want, r) => sum + (A[r]!.reduce((total, value, i) => total + value * x[i]!, 0) - want) ** 2, 0);
}

/** The least squares over all six freedoms; where the stations leave some of them open the smallest movement. */
function freely(
  rows: readonly Row[],
  b: readonly number[],
): { readonly motion: readonly number[]; readonly cost: number } {
  if (rows.length === 0) return { motion: [0, 0, 0, 0, 0, 0], cost: 0 };
  const A = rows.map(({ motion, per }) => motion.map((value) => value * per));
  const svd = new SingularValueDecomposition(new Matrix(A), { autoTranspose: true });
  const motion = svd.solve(Matrix.columnVector([...b])).to1DArray();
  return { motion, cost: costOf(A, b, motion) };
}

export interface Found {
  readonly values: readonly number[];
  readonly proven: boolean;
}

/** The values a setting may have near one, on either side of it; undefined where it may have any. */
interface Grid {
  readonly last: number;
  readonly under: (value: number) => number;
  readonly over: (value: number) => number;
}

function gridOf({ from, to, step, values }: Range): Grid | undefined {
  if (values)
    return {
      last: values.at(-1)!,
      under: (value) => values.findLast((each) => each <= value + ON_STEP) ?? values[0]!,
      over: (value) => values.find((each) => each >= value - ON_STEP) ?? values.at(-1)!,
    };
  if (step === undefined) return undefined;
  const last = from + Math.floor((to - from) / step + ON_STEP / step) * step;
  const within = (value: number) => Math.min(last, Math.max(from, value));
  return {
    last,
    under: (value) => within(from + Math.floor((value - from) / step) * step),
    over: (value) => within(from + Math.ceil((value - from) / step) * step),
  };
}

/**
 * The values that bring A·x nearest b, each setting within its range and on its steps. Branch and bound: the programme without
 * steps bounds every branch from below.
 *
 * @param near what is no better than the best by this much is not looked for
 */
export function bestSettings(
  A: readonly (readonly number[])[],
  b: readonly number[],
  settings: readonly Range[],
  near = 0,
): Found {
  const n = settings.length;
  const columns = settings.map((_, i) => A.map((row) => row[i]!));
  const H = columns.map((p) => columns.map((q) => p.reduce((sum, value, r) => sum + value * q[r]!, 0)));
  const g = columns.map((p) => p.reduce((sum, value, r) => sum + value * b[r]!, 0));
  const units = settings.map((_, i) => settings.map((__, j) => (i === j ? 1 : 0)));
  const grids = settings.map(gridOf);
  /** The best between two ends of each setting, its steps left out; counted from the lower end, so that nothing is always allowed. */
  const relaxed = (low: readonly number[], high: readonly number[]): number[] => {
    const from = g.map((value, i) => value - dotOf(H[i]!, low));
    const bounds = units.flatMap((a, i) => [
      { a, b: Math.max(0, high[i]! - low[i]!) },
      { a: a.map((value) => -value), b: 0 },
    ]);
    return minimise(H, from, bounds).map((value, i) => Math.min(high[i]!, Math.max(low[i]!, low[i]! + value)));
  };
  const last = settings.map(({ to }, i) => grids[i]?.last ?? to);
  const nearest = (x: readonly number[]) =>
    x.map((value, i) => {
      const grid = grids[i];
      if (!grid) return value;
      const [under, over] = [grid.under(value), grid.over(value)];
      return value - under < over - value ? under : over;
    });
  let [values, least]: [readonly number[], number] = [[], Infinity];
  const keep = (x: readonly number[]) => {
    const cost = costOf(A, b, x);
    if (cost < least) [values, least] = [x, cost];
  };
  const open: { readonly low: readonly number[]; readonly high: readonly number[] }[] = [
    { low: settings.map(({ from, values: named }) => named?.[0] ?? from), high: last },
  ];
  let branches = 0;
  while (open.length > 0 && (n <= PROVEN_SETTINGS || branches < MOST_BRANCHES)) {
    const { low, high } = open.pop()!;
    branches++;
    const x = relaxed(low, high);
    if (costOf(A, b, x) >= least * (1 - 1e-12) - 1e-15 - near) continue;
    keep(withFreeOnes(nearest(x)));
    const split = farthestFromStep(x, grids);
    if (split < 0) {
      keep(x);
      continue;
    }
    const { under, over } = grids[split]!;
    const [down, up] = [
      { low, high: high.map((value, i) => (i === split ? under(x[split]!) : value)) },
      { low: low.map((value, i) => (i === split ? over(x[split]!) : value)), high },
    ];
    // The nearer side is looked at first.
    if (x[split]! - under(x[split]!) < over(x[split]!) - x[split]!) open.push(up, down);
    else open.push(down, up);
  }
  return { values, proven: open.length === 0 };

  /** What has no steps, set best for the steps that the others are at. */
  function withFreeOnes(x: readonly number[]): readonly number[] {
    if (grids.every((grid) => grid !== undefined)) return x;
    return relaxed(
      x.map((value, i) => (grids[i] ? value : settings[i]!.from)),
      x.map((value, i) => (grids[i] ? value : settings[i]!.to)),
    );
  }
}

/** The setting that lies farthest between two of its steps, in shares of one; −1 where all lie on one. */
function farthestFromStep(x: readonly number[], grids: readonly (Grid | undefined)[]): number {
  let [split, farthest] = [-1, 1e-7];
  grids.forEach((grid, i) => {
    if (!grid) return;
    const [under, over] = [grid.under(x[i]!), grid.over(x[i]!)];
    const off = over > under ? Math.min(x[i]! - under, over - x[i]!) / (over - under) : 0;
    if (off > farthest) [split, farthest] = [i, off];
  });
  return split;
}
