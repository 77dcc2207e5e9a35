import { inverse, Matrix } from 'ml-matrix';
import { factorise, invert } from '../../maths/linear/cholesky';

/** A column of a design by its entries that are not zero. */
export interface Sparse {
  readonly rows: readonly number[];
  readonly values: readonly number[];
}

/**
 * The weight matrix of deviations, symmetric, 3n×3n: the inverse of their covariance, with what a model may
 * explain taken out of it. Least squares needs nothing else: for a design B and deviations d the estimate is
 * (BᵀWB)⁻¹ BᵀWd, and the sum of squares falls by dᵀWB (BᵀWB)⁻¹ BᵀWd.
 */
export class Weights {
  private constructor(
    readonly size: number,
    private readonly w: Float64Array,
  ) {}

  /** @param covariance definite, mm² */
  static of(covariance: Matrix): Weights {
    const size = covariance.rows;
    const flat = new Float64Array(size * size);
    for (let i = 0; i < size; i++) for (let k = 0; k <= i; k++) flat[i * size + k] = covariance.get(i, k);
    const factor = factorise(flat, size);
    if (!factor) throw new Error('the covariance of the deviations is not definite');
    return new Weights(size, invert(factor));
  }

  /** W b. */
  times({ rows, values }: Sparse): Float64Array {
    const { size, w } = this;
    const product = new Float64Array(size);
    for (let j = 0; j < rows.length; j++) {
      const value = values[j]!;
      const start = rows[j]! * size;
      for (let i = 0; i < size; i++) product[i]! += value * w[start + i]!;
    }
    return product;
  }

  /** W d of a full column. */
  timesAll(d: Float64Array): Float64Array {
    const { size, w } = this;
    const product = new Float64Array(size);
    for (let i = 0; i < size; i++) {
      let sum = 0;
      for (let k = 0; k < size; k++) sum += w[i * size + k]! * d[k]!;
      product[i] = sum;
    }
    return product;
  }

  /** The weights left once a model has explained what it can: W − WB (BᵀWB)⁻¹ BᵀW. */
  without(columns: readonly Sparse[]): Weights {
    if (columns.length === 0) return this;
    const { size } = this;
    const products = columns.map((column) => this.times(column));
    const inverted = inverse(gramOf(columns, products));
    const left = this.w.slice();
    columns.forEach((_, a) => {
      const mixed = new Float64Array(size);
      products.forEach((product, b) => {
        const share = inverted.get(a, b);
        for (let i = 0; i < size; i++) mixed[i]! += share * product[i]!;
      });
      const own = products[a]!;
      for (let i = 0; i < size; i++) {
        const value = own[i]!;
        if (value === 0) continue;
        const start = i * size;
        for (let k = 0; k < size; k++) left[start + k]! -= value * mixed[k]!;
      }
    });
    return new Weights(size, left);
  }

  /** The weights of the other points once one is left out of the deviations altogether. */
  withoutPoint(point: number): Weights {
    const rows = [3 * point, 3 * point + 1, 3 * point + 2];
    const released = this.without(rows.map((row) => ({ rows: [row], values: [1] })));
    const kept = Array.from({ length: this.size }, (_, i) => i).filter((i) => !rows.includes(i));
    const w = new Float64Array(kept.length ** 2);
    kept.forEach((from, i) => kept.forEach((to, k) => (w[i * kept.length + k] = released.w[from * this.size + to]!)));
    return new Weights(kept.length, w);
  }

  /** The 3×3 block of one point. */
  block(point: number): Matrix {
    const at = (i: number, k: number) => this.w[(3 * point + i) * this.size + 3 * point + k]!;
    return new Matrix([0, 1, 2].map((i) => [0, 1, 2].map((k) => at(i, k))));
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
