import { fitSelected } from '../../maths/rigid/fit';
import { withFreeMotion } from '../../maths/rigid/freedom';
import { findUndisturbed } from '../../maths/search/undisturbed';
import {
  from,
  place,
  type Covariance,
  type Displacement,
  type Frame,
  type Motion,
  type Position,
} from '../../maths/geometry/vector';
import type { Joint } from '../../maths/linear/joint';
import { chiSquareLimit, chiSquareTail, holm } from '../../maths/statistics/distributions';
import { StableSet } from './stable-set';

/** A round adjusted free, in its own axes. */
export interface FreeRound<F extends Frame> {
  readonly points: ReadonlyMap<string, Position<F>>;
  readonly joint: Joint<F>;
}

type Earlier = FreeRound<'earlier'>;
type Later = FreeRound<'later'>;

/** One point tested against the points taken as stable. */
export interface PointTest<F extends Frame = 'earlier'> {
  readonly id: string;
  /** Later minus earlier, mm. */
  readonly change: Displacement<F>;
  /** Of the change. */
  readonly covariance: Covariance<F>;
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
  | { readonly ok: false; readonly reason: string };

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
export function congruence(earlier: Earlier, later: Later): Congruence {
  const ids = [...earlier.points.keys()].filter((id) => later.points.has(id));
  if (ids.length < FEWEST)
    return {
      ok: false,
      reason: `the rounds have ${ids.length === 0 ? 'no' : `only ${ids.length}`} located points in common: measure at least ${FEWEST} of the earlier round’s points again`,
    };
  const motion = roughMotion(ids, earlier, later);
  if (!motion)
    return {
      ok: false,
      reason: 'the points the rounds have in common lie on one line: measure one well off that line again',
    };
  const differences = ids.map((id) => from(earlier.points.get(id)!, place(motion, later.points.get(id)!)));
  const spread = earlier.joint.matrix(ids).add(later.joint.turned(motion).matrix(ids));
  const covariance = withFreeMotion(
    spread,
    ids.map((id) => earlier.points.get(id)!),
  );
  const all = StableSet.of(
    differences,
    covariance,
    ids.map((_, i) => i),
  );
  const agree = agreeing(ids, earlier, later);
  const sets = [release(all), release(StableSet.of(differences, covariance, agree))].map((set) =>
    extend(set, ids.length),
  );
  const largest = sets.reduce((best, set) => (set.size > best.size ? set : best));
  const stable = largest.fresh();
  if (stable.size < FEWEST - 1)
    return {
      ok: false,
      reason: 'no three points kept their places among themselves: the rounds have nothing stable to be joined on',
    };
  const tests = testAll(stable, ids.length);
  const rejected = holm(
    tests.map(({ probability }) => probability),
    FAMILY_LEVEL,
  );
  const freedoms = 3 * stable.size - 6;
  const chiSquare = stable.chiSquare();
  return {
    ok: true,
    stable: stable.members.map((i) => ids[i]!),
    tests: tests.map((test, i) => ({ ...test, id: ids[i]!, stable: stable.members.includes(i), moved: rejected[i]! })),
    global: { chiSquare, freedoms, probability: chiSquareTail(chiSquare, freedoms) },
  };
}

type Stable = StableSet<'earlier'>;

const passes = (set: Stable): boolean => set.chiSquare() <= chiSquareLimit(FAMILY_LEVEL, 3 * set.size - 6);

/** Releases point after point, always the one that lowers the statistic most, until the rest is congruent. */
function release(start: Stable): Stable {
  let set = start;
  while (set.size > FEWEST - 1 && !passes(set)) {
    const falls = set.membersTested().map(({ chiSquare }) => chiSquare);
    set = set.without(falls.indexOf(Math.max(...falls)));
  }
  return set;
}

/** Takes back points that fit the stable ones as well as chance lets expect, the nearest first. */
function extend(start: Stable, count: number): Stable {
  let set = start;
  const outside = Array.from({ length: count }, (_, i) => i)
    .filter((i) => !set.members.includes(i))
    .map((i) => ({ i, off: start.outsiderTested(i).chiSquare }))
    .filter(({ off }) => off <= chiSquareLimit(FAMILY_LEVEL, 3) * 2)
    .sort((a, b) => a.off - b.off);
  for (const { i } of outside) {
    if (chiSquareTail(set.outsiderTested(i).chiSquare, 3) <= FAMILY_LEVEL) continue;
    const wider = set.with(i);
    if (passes(wider)) set = wider;
  }
  return set;
}

/** Every point against the stable others, in the order of the points. */
function testAll(stable: Stable, count: number): Omit<PointTest, 'id' | 'stable' | 'moved'>[] {
  const members = new Map(stable.membersTested().map((test, k) => [stable.members[k]!, test]));
  return Array.from({ length: count }, (_, i) => {
    const test = members.get(i) ?? stable.outsiderTested(i);
    return { ...test, probability: chiSquareTail(test.chiSquare, 3) };
  });
}

const pairsOf = (ids: readonly string[], earlier: Earlier, later: Later) =>
  ids.map((id) => ({
    id,
    reference: earlier.points.get(id)!,
    measured: later.points.get(id)!,
  }));

/** Any motion near enough for what follows to be linear. */
function roughMotion(ids: readonly string[], earlier: Earlier, later: Later): Motion<'later', 'earlier'> | undefined {
  const fit = fitSelected(pairsOf(ids, earlier, later).map((pair) => ({ ...pair, sigma: 1 })));
  return fit.ok ? fit.motion : undefined;
}

/** The largest set whose points are no farther off than three times their own spread in both rounds. */
function agreeing(ids: readonly string[], earlier: Earlier, later: Later): number[] {
  const variance = (own: readonly number[]) => Math.max(0, own[0]! + own[4]! + own[8]!);
  const pairs = pairsOf(ids, earlier, later).map((pair) => ({
    ...pair,
    agree: 3 * Math.sqrt((variance(earlier.joint.block(pair.id)) + variance(later.joint.block(pair.id))) / 3) + 0.1,
  }));
  const found = findUndisturbed(pairs, 1);
  return found.ok ? found.used.map((id) => ids.indexOf(id)) : ids.map((_, i) => i);
}
