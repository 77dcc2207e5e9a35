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
const MOST_FOR_A_RIVAL = 2000;
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
  /** Of every point, how many of the open ones it does not fit, at the node the search is at. */
  private readonly misfits: Int32Array;
  // Thousands of nodes write these anew: weights of a set's points, as they are fitted with, and shares of what is allowed.
  private readonly weights: Float64Array;
  private readonly scaled: Float64Array;
  private readonly shares: Float64Array;
  private readonly mostNodes: number;

  constructor(
    private readonly points: readonly SearchedPoint<From, To>[],
    agree: number,
    mostNodes = MOST_NODES,
  ) {
    this.agree = points.map((point) => point.agree ?? agree);
    this.fits = new FastFit(points);
    this.misfits = new Int32Array(points.length);
    [this.weights, this.scaled, this.shares] = [0, 1, 2].map(() => new Float64Array(points.length)) as [
      Float64Array,
      Float64Array,
      Float64Array,
    ];
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
    this.misfits.fill(0);
    this.count(all, 1);
    this.explore([], all);
  }

  /**
   * Looks for sets that hold all of `kept` and any of `open`; every one of `open` fits every one of `kept`.
   *
   * @param keptFit the kept points are known not to be too far apart
   */
  private explore(kept: readonly number[], open: readonly number[], keptFit = false): void {
    const size = kept.length + open.length;
    if (size < SMALLEST || size < (this.best?.set.length ?? 0)) return;
    if (++this.nodes > this.mostNodes && this.points.length > SEARCHED_TO_THE_END) {
      this.proven = false;
      return;
    }
    if (this.best && kept.length + this.colours(open) < this.best.set.length) return;
    const set = kept.concat(open);
    for (let k = 0; k < size; k++) this.scaled[k] = 1 / this.agree[set[k]!]! ** 2;
    if (!this.fitted(set)) return;
    if (largest(this.shares, size) <= 1) {
      this.offer(set);
      return;
    }
    const worst = this.mostInTheWay(set, kept.length);
    if (size === this.best?.set.length || open.length === 0) return;
    // The kept points alone are farther apart in the mean than any agreeing set can be.
    if (!keptFit && kept.length >= SMALLEST && this.tooFar(kept)) return;
    const others = open.filter((i) => i !== worst);
    const fits = this.compatible[worst]!;
    const gone = others.filter((i) => fits[i] === 0);
    this.count([worst], -1);
    this.explore(kept, others, true);
    this.count(gone, -1);
    this.explore([...kept, worst], gone.length === 0 ? others : others.filter((i) => fits[i] === 1));
    this.count(gone, 1);
    this.count([worst], 1);
  }

  /** Points come to the open ones, or leave them: −1. */
  private count(points: readonly number[], sign: 1 | -1): void {
    const { misfits } = this;
    for (const i of points) {
      const fits = this.compatible[i]!;
      for (let k = 0; k < misfits.length; k++) misfits[k]! += sign * (1 - fits[k]!);
    }
  }

  /** Of the open points of a set (those after the kept ones) the one that fits fewest others, then the one farthest off. */
  private mostInTheWay(set: readonly number[], kept: number): number {
    let worst = set[kept]!;
    let most = -1;
    for (let k = kept; k < set.length; k++) {
      const strain = this.misfits[set[k]!]! * 1e6 + this.shares[k]!;
      if (strain < most) continue;
      worst = set[k]!;
      most = strain;
    }
    return worst;
  }

  private offer(set: readonly number[]): void {
    let sum = 0;
    for (let k = 0; k < set.length; k++) sum += this.shares[k]! ** 2;
    const { best } = this;
    if (best && (best.set.length > set.length || (best.set.length === set.length && best.sum <= sum))) return;
    this.best = { set: [...set].sort((a, b) => a - b), sum };
  }

  /** Fits a set with the weights in `scaled` and puts the distances from the references into `shares`; false where it cannot be fitted. */
  private fitted(set: readonly number[]): boolean {
    if (!this.fits.fit(set, this.scaled)) return false;
    for (let k = 0; k < set.length; k++) this.shares[k] = this.fits.distances[k]! / this.agree[set[k]!]!;
    return true;
  }

  /**
   * No motion brings every kept point within what it is allowed: the root of the weighted mean of the squares
   * after a weighted fit bounds the largest distance of any motion from below, whatever the weights; Lawson's
   * reweighting (1961) drives the bound up, in half the rounds with the squares of the distances.
   */
  private tooFar(kept: readonly number[]): boolean {
    const { weights, scaled, shares } = this;
    const size = kept.length;
    weights.fill(1 / size, 0, size);
    for (let round = 0; round < LAWSON_ROUNDS; round++) {
      for (let k = 0; k < size; k++) scaled[k] = Math.max(weights[k]!, 1e-9) / this.agree[kept[k]!]! ** 2;
      if (!this.fitted(kept)) return false;
      let bound = 0;
      for (let k = 0; k < size; k++) bound += weights[k]! * shares[k]! ** 2;
      if (bound > 1) return true;
      if (largest(shares, size) <= 1) return false;
      for (let k = 0; k < size; k++) weights[k]! *= shares[k]! ** 2 / bound;
    }
    return false;
  }

  /** Colours of a greedy colouring of the points that do not fit each other: no clique is larger. */
  private colours(open: readonly number[]): number {
    const classes: number[][] = [];
    for (const i of open) {
      const fits = this.compatible[i]!;
      const home = classes.find((members) => members.every((j) => fits[j] === 0));
      if (home) home.push(i);
      else classes.push([i]);
    }
    return classes.length;
  }
}

/** The largest of the first so many. */
function largest(values: Float64Array, count: number): number {
  let most = 0;
  for (let k = 0; k < count; k++) if (values[k]! > most) most = values[k]!;
  return most;
}
