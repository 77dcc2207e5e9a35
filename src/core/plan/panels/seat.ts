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

/** Values a setting may have: every step from the first, or anything between. */
export interface Range {
  readonly from: number;
  readonly to: number;
  readonly step?: number;
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
  const A = rows.map((row) => settings.map((_, i) => effect(row, i) * row.per));
  const b = rows.map(({ now, per }) => -now * per);
  const found = best(A, b, settings);
  const figures = (by: (row: Row, r: number) => number): Figures[] => {
    const moved = new Map(rows.map((row, r) => [`${row.station} ${row.kind}`, by(row, r)]));
    return stations.map(({ gap, flush }, i) => ({
      gap: gap.now + moved.get(`${i} gap`)!,
      ...(flush ? { flush: flush.now + moved.get(`${i} flush`)! } : {}),
    }));
  };
  const free = freely(rows, b);
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
      stations: figures((_, r) => A[r]!.reduce((sum, value, i) => sum + value * found.values[i]!, 0) / rows[r]!.per),
      free: {
        cost: free.cost,
        stations: figures((row) => row.motion.reduce((sum, value, c) => sum + value * free.motion[c]!, 0)),
      },
      proven: found.proven,
    },
  };
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

interface Found {
  readonly values: readonly number[];
  readonly proven: boolean;
}

/** Of a setting the values it may have: its first, and how many steps there are from it. */
const stepsOf = ({ from, to, step }: Range): number =>
  step === undefined ? 0 : Math.floor((to - from) / step + ON_STEP / step);

/** Branch and bound: the programme without steps bounds every branch from below. */
function best(A: readonly (readonly number[])[], b: readonly number[], settings: readonly SeatSetting[]): Found {
  const n = settings.length;
  const columns = settings.map((_, i) => A.map((row) => row[i]!));
  const H = columns.map((p) => columns.map((q) => p.reduce((sum, value, r) => sum + value * q[r]!, 0)));
  const g = columns.map((p) => p.reduce((sum, value, r) => sum + value * b[r]!, 0));
  const units = settings.map((_, i) => settings.map((__, j) => (i === j ? 1 : 0)));
  /** The best between two ends of each setting, its steps left out; counted from the lower end, so that nothing is always allowed. */
  const relaxed = (low: readonly number[], high: readonly number[]): number[] => {
    const from = g.map((value, i) => value - H[i]!.reduce((sum, h, j) => sum + h * low[j]!, 0));
    const bounds = units.flatMap((a, i) => [
      { a, b: Math.max(0, high[i]! - low[i]!) },
      { a: a.map((value) => -value), b: 0 },
    ]);
    return minimise(H, from, bounds).map((value, i) => Math.min(high[i]!, Math.max(low[i]!, low[i]! + value)));
  };
  const last = settings.map((setting) =>
    setting.step === undefined ? setting.to : setting.from + stepsOf(setting) * setting.step,
  );
  const nearest = (x: readonly number[]) =>
    x.map((value, i) => {
      const { from, step } = settings[i]!;
      return step === undefined
        ? value
        : Math.min(last[i]!, Math.max(from, from + Math.round((value - from) / step) * step));
    });
  let [values, least]: [readonly number[], number] = [[], Infinity];
  const keep = (x: readonly number[]) => {
    const cost = costOf(A, b, x);
    if (cost < least) [values, least] = [x, cost];
  };
  const open: { readonly low: readonly number[]; readonly high: readonly number[] }[] = [
    { low: settings.map(({ from }) => from), high: last },
  ];
  let branches = 0;
  while (open.length > 0 && (n <= PROVEN_SETTINGS || branches < MOST_BRANCHES)) {
    const { low, high } = open.pop()!;
    branches++;
    const x = relaxed(low, high);
    if (costOf(A, b, x) >= least * (1 - 1e-12) - 1e-15) continue;
    keep(withFreeOnes(nearest(x)));
    const split = farthestFromStep(x, settings);
    if (split < 0) {
      keep(x);
      continue;
    }
    const { from, step } = settings[split]!;
    const under = from + Math.floor((x[split]! - from) / step!) * step!;
    const [down, up] = [
      { low, high: high.map((value, i) => (i === split ? under : value)) },
      { low: low.map((value, i) => (i === split ? under + step! : value)), high },
    ];
    // The nearer side is looked at first.
    if (x[split]! - under < step! / 2) open.push(up, down);
    else open.push(down, up);
  }
  return { values, proven: open.length === 0 };

  /** What has no steps, set best for the steps that the others are at. */
  function withFreeOnes(x: readonly number[]): readonly number[] {
    if (settings.every(({ step }) => step !== undefined)) return x;
    const isFree = settings.map(({ step }) => step === undefined);
    return relaxed(
      x.map((value, i) => (isFree[i] ? settings[i]!.from : value)),
      x.map((value, i) => (isFree[i] ? settings[i]!.to : value)),
    );
  }
}

/** The setting that lies farthest between two of its steps; −1 where all lie on one. */
function farthestFromStep(x: readonly number[], settings: readonly SeatSetting[]): number {
  let [split, farthest] = [-1, 1e-7];
  settings.forEach(({ from, step }, i) => {
    if (step === undefined) return;
    const at = (x[i]! - from) / step;
    const off = Math.abs(at - Math.round(at));
    if (off > farthest) [split, farthest] = [i, off];
  });
  return split;
}
