import { inverse, Matrix, solve } from 'ml-matrix';
import { fitSelected, place, type RigidMotion } from '../alignment/selected';
import { jointMatrix, turned, withFreeMotion, withoutBlock } from '../alignment/rigid-freedom';
import { findUndisturbed } from '../alignment/undisturbed';
import { subtract, type Position, type Vector } from '../geometry/vector';
import { chiSquareLimit, chiSquareTail, holm } from '../statistics/distributions';

/** A round adjusted free, in its own axes. */
export interface FreeRound {
  readonly points: ReadonlyMap<string, Vector>;
  /** Covariance of two of its points, 3×3 row major, mm². */
  readonly joint: (a: string, b: string) => readonly number[];
}

/** One point tested against the points taken as stable. */
export interface PointTest {
  readonly id: string;
  /** Later minus earlier, axes of the earlier round, mm. */
  readonly change: Vector;
  /** Covariance of the change, 3×3 row major, mm². */
  readonly covariance: readonly number[];
  /** changeᵀ covariance⁻¹ change: χ² with three degrees of freedom where nothing moved. */
  readonly chiSquare: number;
  readonly probability: number;
  readonly stable: boolean;
  /** Rejected by Holm's correction over all points. */
  readonly moved: boolean;
}

export type Congruence =
  | {
      readonly ok: true;
      readonly stable: readonly string[];
      readonly tests: readonly PointTest[];
      /** Global test of the stable points: statistic, degrees of freedom and its probability. */
      readonly global: { readonly chiSquare: number; readonly freedoms: number; readonly probability: number };
    }
  | { readonly ok: false; readonly reason: string }; // prettier-ignore

/** Chance of calling an unmoved shell moved, per family of tests. */
export const FAMILY_LEVEL = 0.05;
const FEWEST = 4;

/**
 * What moved between two rounds. Both are free nets; the later is brought onto the earlier by the points
 * that a test of congruence accepts as stable, so that a shift or tilt of the whole shell on its supports
 * takes nothing with it (Pelzer 1971; Niemeier, Ausgleichungsrechnung, §15): from all common points the
 * one whose release lowers dᵀ Σ⁻¹ d most is released, until the rest passes at 5 %. The same is tried from
 * the largest set that agrees within the rounds' own uncertainty, and the larger stable set is kept.
 */
export function congruence(earlier: FreeRound, later: FreeRound): Congruence {
  const ids = [...earlier.points.keys()].filter((id) => later.points.has(id));
  if (ids.length < FEWEST)
    return {
      ok: false,
      reason: `the rounds have ${ids.length === 0 ? 'no' : `only ${ids.length}`} located points in common: measure at least ${FEWEST} of the earlier round’s points again`,
    };
  const motion = roughMotion(ids, earlier, later);
  if (!motion) return { ok: false, reason: 'the points the rounds have in common lie on one line: measure one well off that line again' }; // prettier-ignore
  const differences = ids.map((id) => subtract(place(motion, later.points.get(id)! as Position<'round'>), earlier.points.get(id)!)); // prettier-ignore
  const spread = jointMatrix(ids, earlier.joint).add(turned(jointMatrix(ids, later.joint), motion.rotation)); // prettier-ignore
  const covariance = withFreeMotion(spread, ids.map((id) => earlier.points.get(id)!)); // prettier-ignore
  const net: Net = { differences, covariance };
  const all = ids.map((_, i) => i);
  const sets = [release(net, all), release(net, agreeing(ids, earlier, later))].map((set) => extend(net, set)); // prettier-ignore
  const stable = sets.reduce((best, set) => (set.length > best.length ? set : best));
  if (stable.length < FEWEST - 1)
    return { ok: false, reason: 'no three points kept their places among themselves: the rounds have nothing stable to be joined on' }; // prettier-ignore
  const tests = ids.map((_, i) => testPoint(net, stable, i));
  const rejected = holm(tests.map(({ probability }) => probability), FAMILY_LEVEL); // prettier-ignore
  const freedoms = 3 * stable.length - 6;
  const chiSquare = quadraticForm(net, stable);
  return {
    ok: true,
    stable: stable.map((i) => ids[i]!),
    tests: tests.map((test, i) => ({ ...test, id: ids[i]!, stable: stable.includes(i), moved: rejected[i]! })), // prettier-ignore
    global: { chiSquare, freedoms, probability: chiSquareTail(chiSquare, freedoms) },
  };
}

interface Net {
  readonly differences: readonly Vector[];
  /** With the rigid motion free. */
  readonly covariance: Matrix;
}

const rowsOf = (points: readonly number[]): number[] => points.flatMap((i) => [3 * i, 3 * i + 1, 3 * i + 2]); // prettier-ignore
const column = (net: Net, points: readonly number[]): Matrix => Matrix.columnVector(points.flatMap((i) => [...net.differences[i]!])); // prettier-ignore

function quadraticForm(net: Net, set: readonly number[]): number {
  const d = column(net, set);
  return d
    .transpose()
    .mmul(solve(block(net, set, set), d))
    .get(0, 0);
}

const block = (net: Net, a: readonly number[], b: readonly number[]): Matrix =>
  net.covariance.selection(rowsOf(a), rowsOf(b));

/** Releases point after point until the rest is congruent. */
function release(net: Net, from: readonly number[]): number[] {
  let set = [...from];
  if (set.length < FEWEST - 1) return set;
  let inverted = inverse(block(net, set, set));
  for (;;) {
    const weighted = inverted.mmul(column(net, set));
    const d = column(net, set);
    const total = d.transpose().mmul(weighted).get(0, 0);
    if (set.length <= FEWEST - 1 || total <= chiSquareLimit(FAMILY_LEVEL, 3 * set.length - 6)) return set;
    const falls = set.map((_, k) => {
      const own = [3 * k, 3 * k + 1, 3 * k + 2];
      const u = weighted.selection(own, [0]);
      return u.transpose().mmul(solve(inverted.selection(own, own), u)).get(0, 0);
    });
    const worst = falls.indexOf(Math.max(...falls));
    inverted = withoutBlock(inverted, worst);
    set = set.filter((_, k) => k !== worst);
  }
} // prettier-ignore

/** Takes back points that fit the stable ones as well as chance lets expect. */
function extend(net: Net, from: readonly number[]): number[] {
  const set = [...from];
  const outside = net.differences
    .map((_, i) => i)
    .filter((i) => !set.includes(i))
    .map((i) => ({ i, off: testPoint(net, set, i).chiSquare }))
    .sort((a, b) => a.off - b.off);
  for (const { i } of outside) {
    const { probability } = testPoint(net, set, i);
    const wider = [...set, i];
    if (probability > FAMILY_LEVEL && quadraticForm(net, wider) <= chiSquareLimit(FAMILY_LEVEL, 3 * wider.length - 6)) set.push(i); // prettier-ignore
  }
  return set.sort((a, b) => a - b);
}

/** A point against the other stable points: its change predicted from them, and the spread of that. */
function testPoint(net: Net, stable: readonly number[], i: number): Omit<PointTest, 'id' | 'stable' | 'moved'> {
  const others = stable.filter((each) => each !== i);
  const cross = block(net, [i], others);
  const gain = solve(block(net, others, others), cross.transpose()).transpose();
  const change = column(net, [i]).sub(gain.mmul(column(net, others)));
  const covariance = block(net, [i], [i]).sub(gain.mmul(cross.transpose()));
  const chiSquare = change.transpose().mmul(solve(covariance, change)).get(0, 0);
  return {
    change: change.to1DArray() as unknown as Vector,
    covariance: covariance.to1DArray(),
    chiSquare,
    probability: chiSquareTail(chiSquare, 3),
  };
} // prettier-ignore

const pairsOf = (ids: readonly string[], earlier: FreeRound, later: FreeRound) =>
  ids.map((id) => ({
    id,
    reference: earlier.points.get(id)! as Position<'chart'>,
    measured: later.points.get(id)! as Position<'round'>,
  }));

/** Any motion near enough for what follows to be linear. */
function roughMotion(ids: readonly string[], earlier: FreeRound, later: FreeRound): RigidMotion | undefined {
  const fit = fitSelected(pairsOf(ids, earlier, later).map((pair) => ({ ...pair, sigma: 1 })));
  return fit.ok ? fit.motion : undefined;
} // prettier-ignore

/** The largest set whose points are no farther off than three times their own spread in both rounds. */
function agreeing(ids: readonly string[], earlier: FreeRound, later: FreeRound): number[] {
  const variance = (round: FreeRound, id: string) => {
    const own = round.joint(id, id);
    return Math.max(0, own[0]! + own[4]! + own[8]!);
  };
  const pairs = pairsOf(ids, earlier, later).map((pair) => ({
    ...pair,
    agree: 3 * Math.sqrt((variance(earlier, pair.id) + variance(later, pair.id)) / 3) + 0.1,
  }));
  const found = findUndisturbed(pairs, 1);
  return found.ok ? found.used.map((id) => ids.indexOf(id)) : ids.map((_, i) => i);
}
