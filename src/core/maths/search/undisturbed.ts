import { distance, type Frame, type Motion } from '../geometry/vector';
import { FastFit } from '../rigid/fast-fit';
import { fitSelected, type PairedPoint } from '../rigid/fit';

/** A point in both frames. */
export interface SearchedPoint<From extends Frame = 'round', To extends Frame = 'chart'> extends PairedPoint<From, To> {
  /** How far this point may be off, mm, where it is not the same for all: so many times its own spread. */
  readonly agree?: number;
}

export type UndisturbedResult<From extends Frame = 'round', To extends Frame = 'chart'> =
  | {
      readonly ok: true;
      readonly motion: Motion<From, To>;
      readonly used: readonly string[];
      readonly moved: readonly string[];
      /** The set is shown to be the largest; otherwise it is the best found. */
      readonly proven: boolean;
      /** The largest set among the moved points that agrees in itself: what stood still if the majority moved. */
      readonly rival: readonly string[];
    }
  | { readonly ok: false; readonly reason: string };

/** Nodes of the search before it gives up proving: so many for sixty points, fewer for more, since each costs more. */
const MOST_NODES = 4000;
const USUAL_SIZE = 60;
/** A rival is shown as the best found and never as proven, and the best comes early. */
const MOST_FOR_A_RIVAL = 1000;
/** Shells so small are searched to the end. */
const SEARCHED_TO_THE_END = 25;
const LAWSON_ROUNDS = 6;
const SMALLEST = 3;

/**
 * The largest set of points that agrees: after the least-squares fit on it none of its points is farther
 * than `agree` from its reference. On a tie the set with the smaller sum of squares.
 *
 * Branch and bound over sets of points. If a set agrees, the distances within it differ from the
 * reference's by at most 2·agree (triangle inequality), so it is a clique of the graph of pairs that do; a
 * greedy colouring of that graph bounds its size (Tomita and Seki 2003). A node whose whole set agrees needs
 * no children; otherwise its worst point is left out first, then kept for good.
 *
 * Where points carry an `agree` of their own, each is fitted with the weight 1/agree² and held to its own
 * distance, so that a set agrees with the covariances of a round instead of one tolerance for all.
 *
 * @param agree mm, above zero
 */
export function findUndisturbed<From extends Frame, To extends Frame>(
  points: readonly SearchedPoint<From, To>[],
  agree: number,
): UndisturbedResult<From, To> {
  const search = new Search(points, agree);
  search.run();
  const best = search.best;
  if (!best)
    return {
      ok: false,
      reason: `no three points agree within ${agree} mm: look for exchanged points, or allow more`,
    };
  const chosen = best.set.map((i) => points[i]!);
  const fit = fitSelected(chosen.map((point) => ({ ...point, sigma: point.agree ?? 1 })));
  if (!fit.ok) return fit;
  const used = new Set(chosen.map(({ id }) => id));
  const left = points.filter(({ id }) => !used.has(id));
  const rivals = new Search(left, agree, MOST_FOR_A_RIVAL);
  if (left.length >= SMALLEST) rivals.run();
  return {
    ok: true,
    motion: fit.motion,
    used: chosen.map(({ id }) => id),
    moved: left.map(({ id }) => id),
    proven: search.proven,
    rival: rivals.best?.set.map((i) => left[i]!.id) ?? [],
  };
}

interface Agreement {
  readonly set: readonly number[];
  readonly sum: number;
}

class Search<From extends Frame, To extends Frame> {
  best: Agreement | undefined;
  proven = true;
  private nodes = 0;
  /** Pairs whose two distances are near enough that one motion could bring both points home. */
  private readonly compatible: readonly Uint8Array[];
  private readonly agree: readonly number[];
  private readonly fits: FastFit;
  private readonly mostNodes: number;

  constructor(
    private readonly points: readonly SearchedPoint<From, To>[],
    agree: number,
    mostNodes = MOST_NODES,
  ) {
    this.agree = points.map((point) => point.agree ?? agree);
    this.fits = new FastFit(points);
    this.mostNodes = mostNodes * Math.min(1, (USUAL_SIZE / points.length) ** 3);
    this.compatible = points.map(() => new Uint8Array(points.length).fill(1));
    for (let i = 0; i < points.length; i++)
      for (let k = 0; k < i; k++) {
        const [a, b] = [points[i]!, points[k]!];
        const apart = distance(a.measured, b.measured) - distance(a.reference, b.reference);
        const may = Math.abs(apart) <= this.agree[i]! + this.agree[k]! + 1e-9 ? 1 : 0;
        this.compatible[i]![k] = this.compatible[k]![i] = may;
      }
  }

  run(): void {
    const all = this.points.map((_, i) => i);
    this.explore([], all, this.without(new Int32Array(all.length), all, 1));
  }

  /**
   * Looks for sets that hold all of `kept` and any of `open`; every one of `open` fits every one of `kept`.
   *
   * @param misfits of every point, how many of `open` it does not fit
   * @param keptFit the kept points are known not to be too far apart
   */
  private explore(kept: readonly number[], open: readonly number[], misfits: Int32Array, keptFit = false): void {
    const size = kept.length + open.length;
    if (size < SMALLEST || size < (this.best?.set.length ?? 0)) return;
    if (++this.nodes > this.mostNodes && this.points.length > SEARCHED_TO_THE_END) {
      this.proven = false;
      return;
    }
    if (this.best && kept.length + this.colours(open) < this.best.set.length) return;
    const set = kept.concat(open);
    const residuals = this.residuals(set);
    if (!residuals) return;
    if (residuals.every((d) => d <= 1)) {
      this.offer(set, residuals);
      return;
    }
    if (size === this.best?.set.length || open.length === 0) return;
    // The kept points alone are farther apart in the mean than any agreeing set can be.
    if (!keptFit && kept.length >= SMALLEST && this.tooFar(kept)) return;
    const worst = mostInTheWay(set, kept.length, residuals, misfits);
    const others = open.filter((i) => i !== worst);
    const left = this.without(misfits, [worst]);
    this.explore(kept, others, left, true);
    const fits = this.compatible[worst]!;
    const gone = others.filter((i) => fits[i] === 0);
    this.explore(
      [...kept, worst],
      gone.length === 0 ? others : others.filter((i) => fits[i] === 1),
      this.without(left, gone),
    );
  }

  /** How many each point does not fit once some are gone from those that are counted; they come in with a sign of 1. */
  private without(misfits: Int32Array, gone: readonly number[], sign = -1): Int32Array {
    const left = misfits.slice();
    for (const i of gone) {
      const fits = this.compatible[i]!;
      for (let k = 0; k < left.length; k++) left[k]! += sign * (1 - fits[k]!);
    }
    return left;
  }

  private offer(set: readonly number[], residuals: Float64Array): void {
    const sum = residuals.reduce((all, d) => all + d * d, 0);
    const { best } = this;
    if (best && (best.set.length > set.length || (best.set.length === set.length && best.sum <= sum))) return;
    this.best = { set: [...set].sort((a, b) => a - b), sum };
  }

  /** Distances from their references after the fit on the set, as shares of what is allowed; undefined where it cannot be fitted. */
  private residuals(set: readonly number[]): Float64Array | undefined {
    const weights = new Float64Array(set.length);
    for (let k = 0; k < set.length; k++) weights[k] = 1 / this.agree[set[k]!]! ** 2;
    return this.shares(set, weights, new Float64Array(set.length));
  }

  private shares(set: readonly number[], weights: Float64Array, into: Float64Array): Float64Array | undefined {
    if (!this.fits.fit(set, weights)) return undefined;
    for (let k = 0; k < set.length; k++) into[k] = this.fits.distances[k]! / this.agree[set[k]!]!;
    return into;
  }

  /**
   * No motion brings every kept point within what it is allowed: the root of the weighted mean of the squares
   * after a weighted fit bounds the largest distance of any motion from below, whatever the weights; Lawson's
   * reweighting (1961) drives the bound up, in half the rounds with the squares of the distances.
   */
  private tooFar(kept: readonly number[]): boolean {
    const size = kept.length;
    const weights = new Float64Array(size).fill(1 / size);
    const scaled = new Float64Array(size);
    const shares = new Float64Array(size);
    for (let round = 0; round < LAWSON_ROUNDS; round++) {
      for (let k = 0; k < size; k++) scaled[k] = Math.max(weights[k]!, 1e-9) / this.agree[kept[k]!]! ** 2;
      if (!this.shares(kept, scaled, shares)) return false;
      let bound = 0;
      let largest = 0;
      for (let k = 0; k < size; k++) {
        const d = shares[k]!;
        bound += weights[k]! * d * d;
        largest = Math.max(largest, d);
      }
      if (bound > 1) return true;
      if (largest <= 1) return false;
      for (let k = 0; k < size; k++) weights[k]! *= shares[k]! ** 2 / bound;
    }
    return false;
  }

  /** Colours of a greedy colouring of the points that do not fit each other: no clique is larger. */
  private colours(open: readonly number[]): number {
    const classes: number[][] = [];
    for (const i of open) {
      const home = classes.find((members) => members.every((j) => this.compatible[i]![j] === 0));
      if (home) home.push(i);
      else classes.push([i]);
    }
    return classes.length;
  }
}

/** Of the open points of a set (those after the kept ones) the one that fits fewest others, then the one farthest off. */
function mostInTheWay(set: readonly number[], kept: number, residuals: Float64Array, misfits: Int32Array): number {
  let worst = set[kept]!;
  let most = -1;
  for (let k = kept; k < set.length; k++) {
    const strain = misfits[set[k]!]! * 1e6 + residuals[k]!;
    if (strain < most) continue;
    worst = set[k]!;
    most = strain;
  }
  return worst;
}
