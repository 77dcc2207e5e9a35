import { inverse, Matrix } from 'ml-matrix';
import type { Symmetric } from '../../maths/linear/symmetric';

/** A column of a design by its entries that are not zero. */
export interface Sparse {
  readonly rows: readonly number[];
  readonly values: readonly number[];
}

/** u vᵀ */
interface Outer {
  readonly u: Float64Array;
  readonly v: Float64Array;
}

export function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!;
  return sum;
}

function subtract(from: Float64Array, column: Float64Array, share: number): void {
  if (share === 0) return;
  for (let i = 0; i < from.length; i++) from[i]! -= share * column[i]!;
}

/**
 * The weight matrix of deviations, symmetric, 3n×3n: the inverse of their covariance, with what a model may
 * explain taken out of it. Least squares needs nothing else: for a design B and deviations d the estimate is
 * (BᵀWB)⁻¹ BᵀWd, and the sum of squares falls by dᵀWB (BᵀWB)⁻¹ BᵀWd.
 */
export class Weights {
  /** W is `w` less the outer products of what was taken out of it since: of low rank, so that nothing is written anew. */
  private constructor(
    private readonly w: Symmetric,
    private readonly taken: readonly Outer[] = [],
  ) {}

  /** @param covariance definite, mm² */
  static of(covariance: Symmetric): Weights {
    return new Weights(covariance.inverse());
  }

  get size(): number {
    return this.w.size;
  }

  /** W b. */
  times({ rows, values }: Sparse): Float64Array {
    const { size, values: w } = this.w;
    const product = new Float64Array(size);
    for (let j = 0; j < rows.length; j++) {
      const value = values[j]!;
      const row = rows[j]! * size;
      for (let i = 0; i < size; i++) product[i]! += value * w[row + i]!;
    }
    return this.less(product, { rows, values });
  }

  /** W b where the product of b with the weights before anything was taken out of them is known; that is changed. */
  less(product: Float64Array, column: Sparse): Float64Array {
    for (const { u, v } of this.taken) subtract(product, u, dotSparse(column, v));
    return product;
  }

  /** A column of the weights before anything was taken out of them, not to be changed. */
  column(k: number): Float64Array {
    return this.w.values.subarray(k * this.size, (k + 1) * this.size);
  }

  /** W d of a full column. */
  timesAll(d: Float64Array): Float64Array {
    const product = this.w.times(d);
    for (const { u, v } of this.taken) subtract(product, u, dot(v, d));
    return product;
  }

  /** The weights left once a model has explained what it can: W − WB (BᵀWB)⁻¹ BᵀW. */
  without(columns: readonly Sparse[]): Weights {
    if (columns.length === 0) return this;
    const products = columns.map((column) => this.times(column));
    const inverted = inverse(gramOf(columns, products));
    const mixed = columns.map((_, a) => {
      const sum = new Float64Array(this.size);
      products.forEach((product, b) => {
        const share = inverted.get(a, b);
        for (let i = 0; i < sum.length; i++) sum[i]! += share * product[i]!;
      });
      return sum;
    });
    return new Weights(this.w, [...this.taken, ...products.map((u, a) => ({ u, v: mixed[a]! }))]);
  }

  /** The weights of the other points once one is left out of the deviations altogether. */
  withoutPoint(point: number): Weights {
    const rows = [3 * point, 3 * point + 1, 3 * point + 2];
    const released = this.without(rows.map((row) => ({ rows: [row], values: [1] })));
    const kept = Array.from({ length: this.size }, (_, i) => i).filter((i) => !rows.includes(i));
    return new Weights(this.w.less(released.taken).part(kept));
  }

  /** The 3×3 block of one point. */
  block(point: number): Matrix {
    const block = this.w.block(point, point);
    for (const { u, v } of this.taken)
      for (let r = 0; r < 3; r++)
        for (let c = 0; c < 3; c++) block[3 * r + c]! -= u[3 * point + r]! * v[3 * point + c]!;
    return Matrix.from1DArray(3, 3, block);
  }
}

export function dotSparse({ rows, values }: Sparse, column: Float64Array): number {
  let sum = 0;
  for (let j = 0; j < rows.length; j++) sum += values[j]! * column[rows[j]!]!;
  return sum;
}

/** B₁ᵀWB₂ from the columns of B₁ and of WB₂, which may be the same. */
export function gramOf(columns: readonly Sparse[], products: readonly Float64Array[]): Matrix {
  const gram = Matrix.zeros(columns.length, products.length);
  columns.forEach((column, i) => products.forEach((product, k) => gram.set(i, k, dotSparse(column, product))));
  return gram;
}
