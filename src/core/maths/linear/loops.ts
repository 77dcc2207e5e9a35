/** Where a sparse factor in blocks keeps what: see `block-factor.ts`. */
export interface BlockShape {
  readonly widths: Int32Array;
  /** The number of the first row of each block, and of all. */
  readonly first: Int32Array;
  /** Where each panel begins among all elements, and where they end. */
  readonly panelAt: Int32Array;
  /** Where the blocks that a panel reaches begin in `reach`, and where they end. */
  readonly reachAt: Int32Array;
  readonly reach: Int32Array;
  /** The rows at which they begin, from `reachAt[j] + j` on, and where the last ends. */
  readonly begins: Int32Array;
}

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
  /** Products A v of a square matrix, which is not to be changed from the first on. */
  readonly multiplier: (matrix: Float64Array, size: number) => (v: Float64Array) => Float64Array;
  /** A − Σ (u vᵀ + v uᵀ)/2 over the rows of u and v, in place. */
  readonly lessen: (matrix: Float64Array, size: number, u: Float64Array, v: Float64Array) => void;
  /**
   * Factorises the panels of a sparse factor into L D Lᵀ, in place, each pivot more than this share of its diagonal element; false,
   * with nothing changed, where one is not, or where this kernel has no faster way than its caller.
   */
  readonly factoriseBlocks: (shape: BlockShape, values: Float64Array, pivots: Float64Array, nothing: number) => boolean;
  /**
   * Turns a right-hand side into the solution by what `factoriseBlocks` made of the panels, in place; false, with nothing changed,
   * where this kernel has no faster way. Panels that were solved by before may be remembered: they are not to be changed.
   */
  readonly solveBlocks: (shape: BlockShape, values: Float64Array, pivots: Float64Array, x: Float64Array) => boolean;
}
