import type { Symmetric } from './symmetric';

/** A row a of a design with few entries that are not zero. */
export interface Gradient {
  count: number;
  readonly columns: Int32Array;
  readonly coefficients: Float64Array;
}

/** The entries of a row that are not zero. */
export type Entries = readonly (readonly [column: number, coefficient: number])[];

/** A row by its entries. */
export const gradientOf = (entries: Entries): Gradient => ({
  count: entries.length,
  columns: Int32Array.from(entries, ([column]) => column),
  coefficients: Float64Array.from(entries, ([, coefficient]) => coefficient),
});

/** Q aᵀ. */
export function spreadBy({ size, values }: Symmetric, row: Gradient): Float64Array {
  const spread = new Float64Array(size);
  for (let p = 0; p < row.count; p++) {
    const start = row.columns[p]! * size;
    const share = row.coefficients[p]!;
    for (let c = 0; c < size; c++) spread[c]! += share * values[start + c]!;
  }
  return spread;
}

/** a q for a full column q. */
export function along(spread: Float64Array, row: Gradient): number {
  let sum = 0;
  for (let p = 0; p < row.count; p++) sum += row.coefficients[p]! * spread[row.columns[p]!]!;
  return sum;
}

/** a Q aᵀ. */
export const varianceAlong = (covariance: Symmetric, row: Gradient): number => covarianceAlong(covariance, row, row);

/** a Q bᵀ. */
export function covarianceAlong({ size, values }: Symmetric, a: Gradient, b: Gradient): number {
  let sum = 0;
  for (let p = 0; p < a.count; p++) {
    const start = a.columns[p]! * size;
    for (let q = 0; q < b.count; q++) sum += a.coefficients[p]! * b.coefficients[q]! * values[start + b.columns[q]!]!;
  }
  return sum;
}
