import { once } from '../../maths/once';
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

/** A brace that is in: what the stage before it answers when its ends are pushed apart, and the share of that it takes back. */
interface Inside {
  readonly z: Float64Array;
  readonly share: number;
}

/**
 * A stage with some braces in it, as its flexibility: everything a brace is judged by, kept up to date by one rank a brace and
 * never factorised again. With b the unit line of a brace of stiffness k and z = K⁻¹ b, putting it in takes
 * k/(1 + k bᵀz) z zᵀ off K⁻¹ (Sherman and Morrison 1950); its weight hangs on its ends.
 */
export class Braced {
  /** The freedoms at which each length gives most under one force there. */
  private readonly hot: readonly Int32Array[];
  /** The lengths, those first that give most for their limits: what is too much is found soonest there. */
  private readonly order: readonly number[];
  /** Of each length and each of these what they answer to a unit force at each node a brace can be put at; made when first asked. */
  private atHot?: Float64Array;

  private constructor(
    private readonly hold: ToHold,
    private readonly bare: Flexibility,
    private readonly inside: readonly Inside[],
    /** Displacements under unit forces that push each length's ends apart, mm/N. */
    private readonly pushed: readonly Float64Array[],
    private readonly pushes: readonly number[],
    private readonly sagged: Float64Array,
    private readonly sags: readonly number[],
  ) {
    this.hot = pushed.map(largest);
    const ratios = this.ratios();
    this.order = ratios.map((_, d) => d).toSorted((a, b) => ratios[b]! - ratios[a]!);
  }

  /** The stage with no brace, for braces between some of its nodes. */
  static of(stage: StageStiffness, hold: ToHold, nodes: readonly number[]): Braced {
    const { frame, stiffness } = stage;
    const count = frame.nodes.length;
    const width = 3 * count;
    const shifts = (moved: Float64Array) =>
      Float64Array.from({ length: width }, (_, i) => moved[6 * Math.floor(i / 3) + (i % 3)]!);
    const slotOf = new Int32Array(count).fill(-1);
    const rows = new Float64Array(3 * nodes.length * width);
    nodes.forEach((node, i) => {
      slotOf[node] = i;
      for (let k = 0; k < 3; k++) {
        const load = new Float64Array(6 * count);
        load[6 * node + k] = 1;
        rows.set(shifts(displaced(stiffness, load)), (3 * i + k) * width);
      }
    });
    const pushed = hold.lengths.map(({ from, to }) => displaced(stiffness, pushingApart(frame, from, to)));
    const pushes = hold.lengths.map(({ from, to }, d) => apart(frame, from, to, pushed[d]!));
    const sags = sagOf(stage, hold.lengths);
    const bare = { rows, nodes, slotOf, slots: nodes.length, width, opened: new Map<BraceCandidate, number>() };
    return new Braced(hold, bare, [], pushed.map(shifts), pushes, shifts(stage.sagged), sags);
  }

  /** How far each length gives, by its limit: above 1 it is loose. */
  ratios(): number[] {
    return this.pushed.map((moved, d) => {
      const [worst] = this.hot[d]!;
      return this.ratio(d, this.pushes[d]!, worst === undefined ? 0 : Math.abs(moved[worst]!), this.sags[d]!);
    });
  }

  /**
   * How far each length would give with one more brace, at least: pushed, sagging, and where it gave most before. It costs a
   * hundredth of the whole, and nearly every brace is turned down by it.
   *
   * @param upTo undefined as soon as one gives more than this
   */
  leastRatiosWith(brace: BraceCandidate, upTo = Infinity): number[] | undefined {
    const { from, to, weight, stiffness, along } = brace;
    const { slotOf, slots } = this.bare;
    const [x, y, z] = along;
    const share = stiffness / (1 + stiffness * this.opens(brace));
    const { handling, lengths } = this.hold;
    const answers = (this.atHot ??= this.answersAtHot());
    const [a, b] = [3 * slotOf[from]!, 3 * slotOf[to]!];
    const ratios: number[] = [];
    for (const d of this.order) {
      const moved = this.pushed[d]!;
      const own = stretch(brace, moved);
      const by = handling / lengths[d]!.limit;
      let ratio = by * Math.abs(this.pushes[d]! - share * own * own);
      const hot = this.hot[d]!;
      for (let k = 0, first = 3 * slots * HOT * d; k < hot.length && ratio <= upTo; k++, first += 3 * slots) {
        const [p, q] = [first + a, first + b];
        const answer =
          x * (answers[q]! - answers[p]!) +
          y * (answers[q + 1]! - answers[p + 1]!) +
          z * (answers[q + 2]! - answers[p + 2]!);
        const size = by * Math.abs(moved[hot[k]!]! - share * own * answer);
        if (size > ratio) ratio = size;
      }
      if (ratio > upTo) return undefined;
      ratios[d] = ratio;
    }
    // What hangs on it is asked last: it turns down hardly any.
    const at = this.answerTo(brace);
    const hung = stretch(brace, this.sagged) - (weight / 2) * (at(3 * from + 2) + at(3 * to + 2));
    for (const d of this.order) {
      const moved = this.pushed[d]!;
      const under = this.sags[d]! - (weight / 2) * (moved[3 * from + 2]! + moved[3 * to + 2]!);
      const sag = Math.abs(under - share * hung * stretch(brace, moved) - this.hold.uncut[d]!);
      ratios[d] = Math.max(ratios[d]!, sag / lengths[d]!.limit);
      if (ratios[d]! > upTo) return undefined;
    }
    return ratios;
  }

  /**
   * How far each length would give with one more brace.
   *
   * @param upTo undefined as soon as one gives more than this
   */
  ratiosWith(brace: BraceCandidate, upTo = Infinity): number[] | undefined {
    const least = this.leastRatiosWith(brace, upTo);
    if (!least) return undefined;
    const z = this.along(brace);
    const { share } = this.shares(brace, z);
    for (const d of this.order) {
      const y = this.pushed[d]!;
      const pull = share * stretch(brace, y);
      let worst = 0;
      for (let i = 0; i < y.length; i++) {
        const size = Math.abs(y[i]! - pull * z[i]!);
        if (size > worst) worst = size;
      }
      least[d] = Math.max(least[d]!, (this.hold.handling * worst) / this.hold.lengths[d]!.limit);
      if (least[d]! > upTo) return undefined;
    }
    return least;
  }

  /** With one more brace in. */
  with(brace: BraceCandidate): Braced {
    const z = this.along(brace);
    const { share, sagShare } = this.shares(brace, z);
    const { from, to, weight } = brace;
    const less = (y: Float64Array, by: number) => {
      const left = y.slice();
      for (let i = 0; i < left.length; i++) left[i]! -= by * z[i]!;
      return left;
    };
    const [a, b] = [this.row(from, 2), this.row(to, 2)];
    const sagged = less(this.sagged, sagShare);
    for (let i = 0; i < sagged.length; i++) sagged[i]! -= (weight / 2) * (a[i]! + b[i]!);
    const own = this.pushed.map((y) => stretch(brace, y));
    return new Braced(
      this.hold,
      this.bare,
      [...this.inside, { z, share }],
      this.pushed.map((y, d) => less(y, share * own[d]!)),
      this.pushes.map((push, d) => push - share * own[d]! ** 2),
      sagged,
      this.sags.map((sag, d) => {
        const y = this.pushed[d]!;
        return sag - (weight / 2) * (y[3 * from + 2]! + y[3 * to + 2]!) - sagShare * own[d]!;
      }),
    );
  }

  /** With a brace that is in taken out again: as if one that pulls as much as it pushed came beside it. */
  without(brace: BraceCandidate): Braced {
    return this.with({ ...brace, stiffness: -brace.stiffness, weight: -brace.weight });
  }

  private ratio(d: number, push: number, worst: number, sag: number): number {
    const { handling, lengths, uncut } = this.hold;
    return Math.max(handling * Math.abs(push), handling * worst, Math.abs(sag - uncut[d]!)) / lengths[d]!.limit;
  }

  /** What each freedom answers when the ends of a brace are pushed apart, one by one. */
  private answerTo(brace: BraceCandidate): (i: number) => number {
    const { inside } = this;
    const shares = inside.map(({ z, share }) => share * stretch(brace, z));
    const bare = bareAnswer(this.bare, brace);
    return (i) => {
      let answer = bare(i);
      for (let k = 0; k < inside.length; k++) answer -= shares[k]! * inside[k]!.z[i]!;
      return answer;
    };
  }

  /** How far apart the ends of a brace go under a unit force that pushes them, mm/N. */
  private opens(brace: BraceCandidate): number {
    let give = once(this.bare.opened, brace, () => {
      const bare = bareAnswer(this.bare, brace);
      return brace.along.reduce((sum, each, k) => sum + each * (bare(3 * brace.to + k) - bare(3 * brace.from + k)), 0);
    });
    for (const { z, share } of this.inside) give -= share * stretch(brace, z) ** 2;
    return give;
  }

  /** What each length's freedoms of `hot` answer to a unit force at each node a brace can be put at, along each axis. */
  private answersAtHot(): Float64Array {
    const { rows, nodes, width, slots } = this.bare;
    const answers = new Float64Array(this.hot.length * HOT * slots * 3);
    this.hot.forEach((hot, d) =>
      hot.forEach((i, k) => {
        const first = 3 * slots * (HOT * d + k);
        for (let s = 0; s < 3 * slots; s++) answers[first + s] = rows[s * width + i]!;
        for (const { z, share } of this.inside)
          for (let s = 0; s < slots; s++)
            for (let c = 0; c < 3; c++) answers[first + 3 * s + c]! -= share * z[i]! * z[3 * nodes[s]! + c]!;
      }),
    );
    return answers;
  }

  /** z = K⁻¹ b. */
  private along(brace: BraceCandidate): Float64Array {
    const at = this.answerTo(brace);
    const z = new Float64Array(this.bare.width);
    for (let i = 0; i < z.length; i++) z[i] = at(i);
    return z;
  }

  /** What all freedoms answer to a unit force at one of a node a brace can be put at. */
  private row(node: number, k: 0 | 1 | 2): Float64Array {
    const { rows, slotOf, width } = this.bare;
    const start = (3 * slotOf[node]! + k) * width;
    const row = rows.slice(start, start + width);
    for (const { z, share } of this.inside) {
      const by = share * z[3 * node + k]!;
      for (let i = 0; i < width; i++) row[i]! -= by * z[i]!;
    }
    return row;
  }

  /** k/(1 + k bᵀz), and the same times what the brace would be stretched by under the weight, its own included. */
  private shares(brace: BraceCandidate, z: Float64Array) {
    const { from, to, stiffness, weight } = brace;
    const share = stiffness / (1 + stiffness * stretch(brace, z));
    const hung = stretch(brace, this.sagged) - (weight / 2) * (z[3 * from + 2]! + z[3 * to + 2]!);
    return { share, sagShare: share * hung };
  }
}

/** A stage without braces. */
interface Flexibility {
  /** Displacements of all nodes under a unit force at each freedom of each node a brace can be put at, row by row, mm/N. */
  readonly rows: Float64Array;
  /** The nodes a brace can be put at, in the order of their rows, how many, and each node's place among them; −1 where it has none. */
  readonly nodes: readonly number[];
  readonly slots: number;
  readonly slotOf: Int32Array;
  readonly width: number;
  /** How far the ends of a brace go apart under a unit force that pushes them, mm/N. */
  readonly opened: Map<BraceCandidate, number>;
}

/** What each freedom of a stage without braces answers when the ends of a brace are pushed apart. */
function bareAnswer(
  { rows, slotOf, width }: Flexibility,
  { from, to, along: [x, y, z] }: BraceCandidate,
): (i: number) => number {
  const [a, b] = [3 * slotOf[from]! * width, 3 * slotOf[to]! * width];
  return (i) =>
    x * (rows[b + i]! - rows[a + i]!) +
    y * (rows[b + width + i]! - rows[a + width + i]!) +
    z * (rows[b + 2 * width + i]! - rows[a + 2 * width + i]!);
}

/** So many of the largest are looked at first. */
const HOT = 6;

/** The places of the largest elements, by their size. */
function largest(of: Float64Array): Int32Array {
  const places = new Int32Array(Math.min(HOT, of.length)).fill(-1);
  for (let i = 0; i < of.length; i++) {
    let k = places.length;
    while (k > 0 && (places[k - 1]! < 0 || Math.abs(of[i]!) > Math.abs(of[places[k - 1]!]!))) k--;
    if (k === places.length) continue;
    places.copyWithin(k + 1, k, places.length - 1);
    places[k] = i;
  }
  return places;
}

/** How far apart the ends of a brace move. */
const stretch = ({ from, to, along: [x, y, z] }: BraceCandidate, moved: Float64Array): number =>
  x * (moved[3 * to]! - moved[3 * from]!) +
  y * (moved[3 * to + 1]! - moved[3 * from + 1]!) +
  z * (moved[3 * to + 2]! - moved[3 * from + 2]!);
