import { apart, pushingApart } from '../../structure/shell-frame';
import { sagOf, type CriticalLength, type StageStiffness } from '../../structure/slack';
import { displaced } from '../../structure/stiffness';
import type { BraceCandidate } from './candidates';

/** The lengths to hold, what pushes them, and how far they sag in the uncut shell. */
export interface ToHold {
  readonly lengths: readonly CriticalLength[];
  /** N */
  readonly handling: number;
  readonly uncut: readonly number[];
}

/**
 * A stage with some braces in it, as its flexibility: everything a brace is judged by, kept up to date by one rank a brace and
 * never factorised again. With b the unit line of a brace of stiffness k and z = K⁻¹ b, putting it in takes
 * k/(1 + k bᵀz) z zᵀ off K⁻¹ (Sherman and Morrison 1950); its weight hangs on its ends.
 */
export class Braced {
  private constructor(
    private readonly hold: ToHold,
    /** Where the three displacements of a node begin in a row; −1 for one no brace can be put at. */
    private readonly rowOf: Int32Array,
    private readonly width: number,
    /** Displacements of all nodes under a unit force at each freedom of each node a brace can be put at, row by row, mm/N. */
    private readonly flexibility: Float64Array,
    /** Displacements under unit forces that push each length's ends apart, mm/N. */
    private readonly pushed: readonly Float64Array[],
    private readonly pushes: readonly number[],
    private readonly sagged: Float64Array,
    private readonly sags: readonly number[],
  ) {}

  /** The stage with no brace, for braces between some of its nodes. */
  static without(stage: StageStiffness, hold: ToHold, nodes: readonly number[]): Braced {
    const { frame, stiffness } = stage;
    const count = frame.nodes.length;
    const width = 3 * count;
    const shifts = (moved: Float64Array) =>
      Float64Array.from({ length: width }, (_, i) => moved[6 * Math.floor(i / 3) + (i % 3)]!);
    const rowOf = new Int32Array(count).fill(-1);
    const flexibility = new Float64Array(3 * nodes.length * width);
    nodes.forEach((node, i) => {
      rowOf[node] = 3 * i;
      for (let k = 0; k < 3; k++) {
        const load = new Float64Array(6 * count);
        load[6 * node + k] = 1;
        flexibility.set(shifts(displaced(stiffness, load)), (3 * i + k) * width);
      }
    });
    const pushed = hold.lengths.map(({ from, to }) => displaced(stiffness, pushingApart(frame, from, to)));
    const pushes = hold.lengths.map(({ from, to }, d) => apart(frame, from, to, pushed[d]!));
    const sags = sagOf(stage, hold.lengths);
    return new Braced(hold, rowOf, width, flexibility, pushed.map(shifts), pushes, shifts(stage.sagged), sags);
  }

  /** How far each length gives, by its limit: above 1 it is loose. */
  ratios(): number[] {
    const { hold, pushed } = this;
    return hold.lengths.map((_, d) => {
      let worst = 0;
      for (const each of pushed[d]!) worst = Math.max(worst, Math.abs(each));
      return this.ratio(d, this.pushes[d]!, worst, this.sags[d]!);
    });
  }

  /**
   * How far each length would give with one more brace.
   *
   * @param upTo undefined as soon as one gives more than this
   */
  ratiosWith(brace: BraceCandidate, upTo = Infinity): number[] | undefined {
    const z = this.along(brace);
    const { share, sagShare } = this.shares(brace, z);
    const { from, to, weight } = brace;
    const ratios: number[] = [];
    const pulls: number[] = [];
    // Cheap first: what pushing and sagging alone forbid need not be looked at node by node.
    for (let d = 0; d < this.pushed.length; d++) {
      const y = this.pushed[d]!;
      const own = stretch(brace, y);
      const push = this.pushes[d]! - share * own * own;
      const hung = this.sags[d]! - (weight / 2) * (y[3 * from + 2]! + y[3 * to + 2]!);
      const least = this.ratio(d, push, 0, hung - sagShare * own);
      if (least > upTo) return undefined;
      ratios.push(least);
      pulls.push(share * own);
    }
    for (let d = 0; d < ratios.length; d++) {
      const y = this.pushed[d]!;
      const pull = pulls[d]!;
      let worst = 0;
      for (let i = 0; i < y.length; i++) {
        const size = Math.abs(y[i]! - pull * z[i]!);
        if (size > worst) worst = size;
      }
      ratios[d] = Math.max(ratios[d]!, (this.hold.handling * worst) / this.hold.lengths[d]!.limit);
      if (ratios[d]! > upTo) return undefined;
    }
    return ratios;
  }

  /** With one more brace in. */
  with(brace: BraceCandidate): Braced {
    const z = this.along(brace);
    const { share, sagShare } = this.shares(brace, z);
    const { from, to, weight } = brace;
    const less = (y: Float64Array, by: number) => y.map((each, i) => each - by * z[i]!);
    const { flexibility: before, width, rowOf } = this;
    const flexibility = new Float64Array(before.length);
    for (let first = 0; first < before.length; first += width) {
      const by = share * stretchAt(brace, before, first);
      for (let i = 0; i < width; i++) flexibility[first + i] = before[first + i]! - by * z[i]!;
    }
    const [a, b] = [(rowOf[from]! + 2) * width, (rowOf[to]! + 2) * width];
    const sagged = this.sagged.map(
      (each, i) => each - (weight / 2) * (before[a + i]! + before[b + i]!) - sagShare * z[i]!,
    );
    const own = this.pushed.map((y) => stretch(brace, y));
    return new Braced(
      this.hold,
      rowOf,
      width,
      flexibility,
      this.pushed.map((y, d) => less(y, share * own[d]!)),
      this.pushes.map((push, d) => push - share * own[d]! ** 2),
      sagged,
      this.sags.map((sag, d) => {
        const y = this.pushed[d]!;
        return sag - (weight / 2) * (y[3 * from + 2]! + y[3 * to + 2]!) - sagShare * own[d]!;
      }),
    );
  }

  private ratio(d: number, push: number, worst: number, sag: number): number {
    const { handling, lengths, uncut } = this.hold;
    return Math.max(handling * Math.abs(push), handling * worst, Math.abs(sag - uncut[d]!)) / lengths[d]!.limit;
  }

  /** z = K⁻¹ b. */
  private along({ from, to, along }: BraceCandidate): Float64Array {
    const { flexibility, rowOf, width } = this;
    const z = new Float64Array(width);
    for (let k = 0; k < 3; k++) {
      const [a, b] = [(rowOf[from]! + k) * width, (rowOf[to]! + k) * width];
      const share = along[k]!;
      for (let i = 0; i < width; i++) z[i]! += share * (flexibility[b + i]! - flexibility[a + i]!);
    }
    return z;
  }

  /** k/(1 + k bᵀz), and the same times what the brace would be stretched by under the weight, its own included. */
  private shares(brace: BraceCandidate, z: Float64Array) {
    const { from, to, stiffness, weight } = brace;
    const share = stiffness / (1 + stiffness * stretch(brace, z));
    const hung = stretch(brace, this.sagged) - (weight / 2) * (z[3 * from + 2]! + z[3 * to + 2]!);
    return { share, sagShare: share * hung };
  }
}

const stretchAt = ({ from, to, along }: BraceCandidate, y: Float64Array, first: number): number => {
  let sum = 0;
  for (let k = 0; k < 3; k++) sum += along[k]! * (y[first + 3 * to + k]! - y[first + 3 * from + k]!);
  return sum;
};

/** How far apart the ends of a brace move. */
const stretch = (brace: BraceCandidate, y: Float64Array): number => stretchAt(brace, y, 0);
