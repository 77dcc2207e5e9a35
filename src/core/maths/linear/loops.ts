/** The inner loops every dense computation spends its time in. Matrices are row major and not kept. */
export interface Kernel {
  readonly name: 'plain' | 'simd';
  /** Cholesky's factor of the lower triangle, in place; false where the matrix is not positive definite. */
  readonly factorise: (matrix: Float64Array, size: number) => boolean;
  /** The inverse of L Lᵀ, both triangles. */
  readonly invert: (lower: Float64Array, size: number) => Float64Array;
  /** L z for `count` rows z. */
  readonly coloured: (lower: Float64Array, size: number, noise: Float64Array, count: number) => Float64Array;
  /** A Bᵀ, both of rows of `length` elements. */
  readonly product: (a: Float64Array, b: Float64Array, length: number) => Float64Array;
}
