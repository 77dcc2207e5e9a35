/** A symmetric matrix by its upper triangle, column by column: rows of a column ascending, its diagonal last. */
export interface SparseSymmetric {
  readonly size: number;
  /** Where each column begins; one more than there are columns. */
  readonly starts: Int32Array;
  readonly rows: Int32Array;
  readonly values: Float64Array;
}

/** A pivot this small against its own diagonal element counts as nothing. */
const NOTHING = 1e-12;

/**
 * The factor L D Lᵀ of a sparse symmetric matrix that is positive definite but for directions it does not resist: up-looking,
 * column by column along the elimination tree (Davis 2005, Algorithm 849; Liu 1990). It fills in as the order of the columns
 * lets it; that is for the caller to choose.
 */
export class SparseFactor {
  /** Directions without resistance, each with 1 at the pivot it was found at; empty where the matrix is regular. */
  readonly free: readonly Float64Array[];
  private readonly starts: Int32Array;
  private readonly rows: Int32Array;
  private readonly values: Float64Array;
  private readonly pivots: Float64Array;

  constructor(private readonly matrix: SparseSymmetric) {
    const { size } = matrix;
    const { parents, counts } = eliminationTree(matrix);
    this.starts = new Int32Array(size + 1);
    for (let k = 0; k < size; k++) this.starts[k + 1] = this.starts[k]! + counts[k]!;
    this.rows = new Int32Array(this.starts[size]!);
    this.values = new Float64Array(this.starts[size]!);
    this.pivots = new Float64Array(size);
    this.free = this.factorise(parents);
  }

  get size(): number {
    return this.matrix.size;
  }

  /** Elements of the factor below its diagonal. */
  get fill(): number {
    return this.rows.length;
  }

  /** Solves A x = b in place. Along a direction without resistance the pivot's own element stays 0. */
  solve(x: Float64Array): Float64Array {
    const { starts, rows, values, pivots, size } = this;
    for (let j = 0; j < size; j++) {
      const own = x[j]!;
      if (own !== 0) for (let p = starts[j]!, end = starts[j + 1]!; p < end; p++) x[rows[p]!]! -= values[p]! * own;
    }
    for (let j = 0; j < size; j++) x[j]! /= pivots[j]!;
    for (let j = size - 1; j >= 0; j--) {
      let own = x[j]!;
      for (let p = starts[j]!, end = starts[j + 1]!; p < end; p++) own -= values[p]! * x[rows[p]!]!;
      x[j] = own;
    }
    return x;
  }

  private factorise(parents: Int32Array): Float64Array[] {
    const { starts, rows, values, pivots, matrix } = this;
    const { size } = matrix;
    const free: Float64Array[] = [];
    const ends = starts.slice(0, size);
    const row = new Float64Array(size);
    const pattern = new Int32Array(size);
    const path = new Int32Array(size);
    const mark = new Int32Array(size).fill(-1);
    for (let k = 0; k < size; k++) {
      // Row k of L: its pattern are the paths in the tree from the rows of column k up to k.
      let top = size;
      mark[k] = k;
      for (let p = matrix.starts[k]!, end = matrix.starts[k + 1]!; p < end; p++) {
        let i = matrix.rows[p]!;
        row[i]! += matrix.values[p]!;
        let length = 0;
        for (; mark[i] !== k; i = parents[i]!) {
          path[length++] = i;
          mark[i] = k;
        }
        while (length > 0) pattern[--top] = path[--length]!;
      }
      const diagonal = row[k]!;
      let pivot = diagonal;
      row[k] = 0;
      for (; top < size; top++) {
        const i = pattern[top]!;
        const own = row[i]!;
        row[i] = 0;
        const end = ends[i]!;
        for (let p = starts[i]!; p < end; p++) row[rows[p]!]! -= values[p]! * own;
        const share = own / pivots[i]!;
        pivot -= share * own;
        rows[end] = k;
        values[end] = share;
        ends[i] = end + 1;
      }
      pivots[k] = pivot;
      if (pivot > NOTHING * diagonal) continue;
      free.push(this.freeDirection(k, ends));
      // From here on it is held.
      pivots[k] = Infinity;
    }
    return free;
  }

  /** The direction that the first k + 1 columns do not resist: Lᵀ v = e, by the rows known so far. */
  private freeDirection(k: number, ends: Int32Array): Float64Array {
    const { starts, rows, values, pivots } = this;
    const direction = new Float64Array(this.size);
    direction[k] = 1;
    for (let i = k - 1; i >= 0; i--) {
      if (pivots[i] === Infinity) continue;
      let own = 0;
      for (let p = starts[i]!, end = ends[i]!; p < end; p++) own -= values[p]! * direction[rows[p]!]!;
      direction[i] = own;
    }
    return direction;
  }
}

/** Parent of each column in the elimination tree, −1 for a root, and how many elements the factor has below each diagonal. */
function eliminationTree({ size, starts, rows }: SparseSymmetric) {
  const parents = new Int32Array(size).fill(-1);
  const mark = new Int32Array(size).fill(-1);
  const counts = new Int32Array(size);
  for (let k = 0; k < size; k++) {
    mark[k] = k;
    for (let p = starts[k]!, end = starts[k + 1]!; p < end; p++)
      for (let i = rows[p]!; mark[i] !== k; i = parents[i]!) {
        if (parents[i] === -1) parents[i] = k;
        counts[i]!++;
        mark[i] = k;
      }
  }
  return { parents, counts };
}
