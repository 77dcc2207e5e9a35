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
  /** The solution of L Lᵀ x = b. The last factor made may be remembered: it is not to be changed but by `factorise`. */
  readonly solve: (lower: Float64Array, size: number, b: Float64Array) => Float64Array;
  /** A v of a square matrix. */
  readonly times: (matrix: Float64Array, size: number, v: Float64Array) => Float64Array;
  /** A − Σ (u vᵀ + v uᵀ)/2 over the rows of u and v, in place. */
  readonly less: (matrix: Float64Array, size: number, u: Float64Array, v: Float64Array) => void;
}
