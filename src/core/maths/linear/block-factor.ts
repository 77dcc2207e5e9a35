import { kernel } from './kernel';
import type { BlockShape } from './loops';

/** Which blocks of a symmetric matrix of blocks are not empty, in the order they are eliminated. */
export interface BlockPattern {
  /** Rows and columns of each block on the diagonal; may be none. */
  readonly widths: ArrayLike<number>;
  /** Of each block the others it shares a block with; those before it do not count. */
  readonly neighbours: readonly Iterable<number>[];
}

/** A pivot this small against its own diagonal element counts as nothing. */
const NOTHING = 1e-12;

/**
 * A sparse symmetric matrix of small dense blocks and its factor L D Lᵀ in the same place: each block column is one dense panel,
 * its own rows first and then those of every later block it fills, row by row. Panels are factorised from the left and their
 * outer products taken off the panels to their right (right-looking supernodal Cholesky, e.g. Davis, Rajamanickam and
 * Sid-Lakhdar 2016, A survey of direct methods, §4 and 6). It fills in as the order of the blocks lets it.
 */
export class BlockFactor {
  readonly size: number;
  /** The number of the first row of each block. */
  readonly first: Int32Array;
  private readonly widths: Int32Array;
  /** Later blocks that each block column reaches, ascending, itself at the beginning. */
  private readonly reach: readonly Int32Array[];
  /** Where in a panel the rows of each of these begin. */
  private readonly begins: readonly Int32Array[];
  private readonly panels: readonly Float64Array[];
  /** All panels, one behind the other. */
  private readonly values: Float64Array;
  private readonly shape: BlockShape;
  /** The number of every row of a panel. */
  private readonly rows: readonly Int32Array[];
  private readonly pivots: Float64Array;

  constructor({ widths, neighbours }: BlockPattern) {
    const count = neighbours.length;
    this.widths = Int32Array.from(widths);
    this.first = new Int32Array(count + 1);
    for (let j = 0; j < count; j++) this.first[j + 1] = this.first[j]! + this.widths[j]!;
    this.size = this.first[count]!;
    this.reach = reaches(neighbours);
    this.begins = this.reach.map((blocks) => {
      const begins = new Int32Array(blocks.length + 1);
      blocks.forEach((block, p) => (begins[p + 1] = begins[p]! + this.widths[block]!));
      return begins;
    });
    this.shape = shapeOf(this.widths, this.first, this.reach, this.begins);
    const { panelAt } = this.shape;
    this.values = new Float64Array(panelAt[count]!);
    this.panels = this.reach.map((_, j) => this.values.subarray(panelAt[j], panelAt[j + 1]));
    this.rows = this.reach.map((blocks, j) => {
      const rows = new Int32Array(this.begins[j]!.at(-1)!);
      blocks.forEach((block, p) => {
        for (let a = 0; a < this.widths[block]!; a++) rows[this.begins[j]![p]! + a] = this.first[block]! + a;
      });
      return rows;
    });
    this.pivots = new Float64Array(this.size);
  }

  /** Elements of the factor, those of whole blocks on the diagonal too. */
  get fill(): number {
    return this.values.length;
  }

  /**
   * Where the block of two blocks is kept: its first element in its panel, and how far apart its rows are.
   *
   * @param row not before the column
   */
  place(
    row: number,
    column: number,
  ): { readonly panel: Float64Array; readonly start: number; readonly stride: number } {
    const at = placeIn(this.reach[column]!, row);
    const stride = this.widths[column]!;
    return { panel: this.panels[column]!, start: this.begins[column]![at]! * stride, stride };
  }

  /**
   * Factorises what was put into the panels.
   *
   * @returns directions without resistance, each with 1 at the pivot it was found at; none where the matrix is regular
   */
  factorise(by = kernel): Float64Array[] {
    return by.factoriseBlocks(this.shape, this.values, this.pivots, NOTHING) ? [] : this.plainly();
  }

  /** The same without a kernel, column after column. */
  private plainly(): Float64Array[] {
    const { widths, first } = this;
    const diagonals = new Float64Array(this.size);
    this.panels.forEach((panel, j) => {
      for (let c = 0; c < widths[j]!; c++) diagonals[first[j]! + c] = panel[c * widths[j]! + c]!;
    });
    const free: Float64Array[] = [];
    for (let j = 0; j < widths.length; j++) {
      if (widths[j] === 0) continue;
      this.own(j, diagonals, free);
      this.takeOff(j);
    }
    return free;
  }

  /** Solves A x = b in place. Along a direction without resistance the pivot's own element becomes 0. */
  solve(x: Float64Array, by = kernel): Float64Array {
    if (by.solveBlocks(this.shape, this.values, this.pivots, x)) return x;
    const { panels, widths, rows, pivots, first } = this;
    for (let j = 0; j < panels.length; j++) {
      const [panel, width, at, f] = [panels[j]!, widths[j]!, rows[j]!, first[j]!];
      for (let r = 1; r < width; r++) for (let c = 0; c < r; c++) x[f + r]! -= panel[r * width + c]! * x[f + c]!;
      takeRowsOff(panel, width, at, x, f);
    }
    for (let i = 0; i < x.length; i++) x[i] = pivots[i] === 0 ? 0 : x[i]! / pivots[i]!;
    for (let j = panels.length - 1; j >= 0; j--) {
      const [panel, width, at, f] = [panels[j]!, widths[j]!, rows[j]!, first[j]!];
      takeColumnsOff(panel, width, at, x, f);
      for (let r = width - 1; r > 0; r--) for (let c = 0; c < r; c++) x[f + c]! -= panel[r * width + c]! * x[f + r]!;
    }
    return x;
  }

  /** Factorises the panel of a block column; the pivot of a free direction is 0, and what is below it. */
  private own(j: number, diagonals: Float64Array, free: Float64Array[]): void {
    const { pivots } = this;
    const [panel, width, f] = [this.panels[j]!, this.widths[j]!, this.first[j]!];
    const count = this.rows[j]!.length;
    const shares = new Float64Array(width);
    for (let c = 0; c < width; c++) {
      let pivot = panel[c * width + c]!;
      for (let k = 0; k < c; k++) {
        const share = panel[c * width + k]!;
        shares[k] = share * pivots[f + k]!;
        pivot -= share * shares[k]!;
      }
      const isFree = !(pivot > NOTHING * diagonals[f + c]!);
      pivots[f + c] = isFree ? 0 : pivot;
      for (let r = c + 1; r < count; r++) {
        const start = r * width;
        let sum = panel[start + c]!;
        for (let k = 0; k < c; k++) sum -= panel[start + k]! * shares[k]!;
        panel[start + c] = isFree ? 0 : sum / pivot;
      }
      if (isFree) free.push(this.freeDirection(f + c));
    }
  }

  /** Takes the outer products of a factorised panel off the panels of the blocks it reaches. */
  private takeOff(j: number): void {
    const { pivots, panels, widths } = this;
    const [panel, width, f, reach, begins] = [panels[j]!, widths[j]!, this.first[j]!, this.reach[j]!, this.begins[j]!];
    for (let p = 1; p < reach.length; p++) {
      const i = reach[p]!;
      const [target, across, places, offsets] = [panels[i]!, widths[i]!, this.reach[i]!, this.begins[i]!];
      // The rows of block i, each by its pivots.
      const scaled = new Float64Array(across * width);
      for (let b = 0; b < across; b++)
        for (let c = 0; c < width; c++) scaled[b * width + c] = panel[(begins[p]! + b) * width + c]! * pivots[f + c]!;
      for (let q = p, at = 0; q < reach.length; q++, at++) {
        while (places[at] !== reach[q]) at++;
        const count = begins[q + 1]! - begins[q]!;
        subtractProduct(panel, begins[q]! * width, scaled, target, offsets[at]! * across, { count, across, width });
      }
    }
  }

  /** The direction that the columns up to one do not resist: Lᵀ v = e. */
  private freeDirection(last: number): Float64Array {
    const { panels, widths, rows, first } = this;
    const direction = new Float64Array(this.size);
    direction[last] = 1;
    for (let j = panels.length - 1; j >= 0; j--) {
      const [panel, width, at, f] = [panels[j]!, widths[j]!, rows[j]!, first[j]!];
      for (let c = width - 1; c >= 0; c--) {
        if (f + c >= last) continue;
        let sum = 0;
        for (let r = c + 1; r < at.length && at[r]! <= last; r++) sum += panel[r * width + c]! * direction[at[r]!]!;
        direction[f + c] = -sum;
      }
    }
    return direction;
  }
}

function shapeOf(
  widths: Int32Array,
  first: Int32Array,
  reaches: readonly Int32Array[],
  begins: readonly Int32Array[],
): BlockShape {
  const ends = (sizes: readonly number[]) => {
    const at = new Int32Array(sizes.length + 1);
    sizes.forEach((size, j) => (at[j + 1] = at[j]! + size));
    return at;
  };
  const joined = (lists: readonly Int32Array[]) => {
    const all = new Int32Array(lists.reduce((sum, { length }) => sum + length, 0));
    let next = 0;
    for (const list of lists) {
      all.set(list, next);
      next += list.length;
    }
    return all;
  };
  return {
    ...{ widths, first, reach: joined(reaches), begins: joined(begins) },
    panelAt: ends(begins.map((rows, j) => rows.at(-1)! * widths[j]!)),
    reachAt: ends(reaches.map(({ length }) => length)),
  };
}

interface Shape {
  readonly count: number;
  readonly across: number;
  readonly width: number;
}

/** target −= rows · scaledᵀ, `count` rows of `width` by `across` rows of `width`. */
function subtractProduct(
  panel: Float64Array,
  from: number,
  scaled: Float64Array,
  target: Float64Array,
  to: number,
  { count, across, width }: Shape,
): void {
  if (width === 6) {
    for (let a = 0, s = from, t = to; a < count; a++, s += 6) {
      const s0 = panel[s]!;
      const s1 = panel[s + 1]!;
      const s2 = panel[s + 2]!;
      const s3 = panel[s + 3]!;
      const s4 = panel[s + 4]!;
      const s5 = panel[s + 5]!;
      for (let b = 0, d = 0; b < across; b++, d += 6, t++)
        target[t]! -=
          s0 * scaled[d]! +
          s1 * scaled[d + 1]! +
          s2 * scaled[d + 2]! +
          s3 * scaled[d + 3]! +
          s4 * scaled[d + 4]! +
          s5 * scaled[d + 5]!;
    }
    return;
  }
  for (let a = 0, s = from, t = to; a < count; a++, s += width)
    for (let b = 0, d = 0; b < across; b++, d += width, t++) {
      let sum = 0;
      for (let c = 0; c < width; c++) sum += panel[s + c]! * scaled[d + c]!;
      target[t]! -= sum;
    }
}

/** Takes what a solved block says off every later row of its panel; nearly all blocks are six wide. */
function takeRowsOff(panel: Float64Array, width: number, at: Int32Array, x: Float64Array, f: number): void {
  if (width === 6) {
    const [x0, x1, x2] = [x[f]!, x[f + 1]!, x[f + 2]!];
    const [x3, x4, x5] = [x[f + 3]!, x[f + 4]!, x[f + 5]!];
    // Nothing is pushed yet before the first load.
    if (x0 === 0 && x1 === 0 && x2 === 0 && x3 === 0 && x4 === 0 && x5 === 0) return;
    for (let r = 6, s = 36; r < at.length; r++, s += 6)
      x[at[r]!]! -=
        panel[s]! * x0 +
        panel[s + 1]! * x1 +
        panel[s + 2]! * x2 +
        panel[s + 3]! * x3 +
        panel[s + 4]! * x4 +
        panel[s + 5]! * x5;
    return;
  }
  for (let r = width; r < at.length; r++) {
    let sum = 0;
    for (let c = 0, s = r * width; c < width; c++) sum += panel[s + c]! * x[f + c]!;
    x[at[r]!]! -= sum;
  }
}

/** The other way round: takes what all later rows say off a block. */
function takeColumnsOff(panel: Float64Array, width: number, at: Int32Array, x: Float64Array, f: number): void {
  if (width === 6) {
    let [x0, x1, x2] = [x[f]!, x[f + 1]!, x[f + 2]!];
    let [x3, x4, x5] = [x[f + 3]!, x[f + 4]!, x[f + 5]!];
    for (let r = 6, s = 36; r < at.length; r++, s += 6) {
      const own = x[at[r]!]!;
      x0 -= panel[s]! * own;
      x1 -= panel[s + 1]! * own;
      x2 -= panel[s + 2]! * own;
      x3 -= panel[s + 3]! * own;
      x4 -= panel[s + 4]! * own;
      x5 -= panel[s + 5]! * own;
    }
    x[f] = x0;
    x[f + 1] = x1;
    x[f + 2] = x2;
    x[f + 3] = x3;
    x[f + 4] = x4;
    x[f + 5] = x5;
    return;
  }
  for (let r = width; r < at.length; r++) {
    const own = x[at[r]!]!;
    for (let c = 0, s = r * width; c < width; c++) x[f + c]! -= panel[s + c]! * own;
  }
}

/** The later blocks that each block column of the factor reaches, itself first: its neighbours, and what its children reach. */
function reaches(neighbours: readonly Iterable<number>[]): Int32Array[] {
  const count = neighbours.length;
  const children: number[][] = Array.from({ length: count }, () => []);
  const reached: Int32Array[] = [];
  const mark = new Int32Array(count).fill(-1);
  for (let j = 0; j < count; j++) {
    const own = [j];
    mark[j] = j;
    const take = (block: number) => {
      if (block <= j || mark[block] === j) return;
      mark[block] = j;
      own.push(block);
    };
    for (const block of neighbours[j]!) take(block);
    for (const child of children[j]!) reached[child]!.forEach(take);
    const sorted = Int32Array.from(own).sort();
    reached.push(sorted);
    if (sorted.length > 1) children[sorted[1]!]!.push(j);
  }
  return reached;
}

/** Where a block stands in an ascending list it is in. */
function placeIn(blocks: Int32Array, block: number): number {
  let [low, high] = [0, blocks.length - 1];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (blocks[middle]! < block) low = middle + 1;
    else high = middle;
  }
  return low;
}
