import { kernel } from './kernel';
import type { Kernel } from './loops';
import { Room } from './room';

/** What a change of low rank is the sum of: share · (u vᵀ + v uᵀ)/2. */
interface Term {
  readonly u: Float64Array;
  readonly v?: Float64Array;
  readonly share?: number;
}

/** Factors that are made for an inverse alone. */
const FACTORS = new Room();

/** A symmetric matrix, both triangles kept, row major. */
export class Symmetric {
  constructor(
    readonly size: number,
    readonly values: Float64Array,
  ) {}

  static zeros(size: number): Symmetric {
    return new Symmetric(size, new Float64Array(size * size));
  }

  /** A symmetric matrix of the linear-algebra package. */
  static of(matrix: { readonly rows: number; to1DArray(): number[] }): Symmetric {
    return new Symmetric(matrix.rows, Float64Array.from(matrix.to1DArray()));
  }

  get(i: number, k: number): number {
    return this.values[i * this.size + k]!;
  }

  /** Sets an element and its mirror image. */
  set(i: number, k: number, value: number): void {
    this.values[i * this.size + k] = this.values[k * this.size + i] = value;
  }

  /** @param room where the copy lies until the next is made there, if given */
  copy(room?: Room): Symmetric {
    return new Symmetric(this.size, room?.copyOf(this.values) ?? this.values.slice());
  }

  /** Adds to the diagonal, in place. */
  addDiagonal(amount: number | ((i: number) => number)): this {
    for (let i = 0; i < this.size; i++)
      this.values[i * (this.size + 1)]! += typeof amount === 'number' ? amount : amount(i);
    return this;
  }

  /** Adds another of the same size, in place. */
  add(other: Symmetric): this {
    for (let i = 0; i < this.values.length; i++) this.values[i]! += other.values[i]!;
    return this;
  }

  /** The rows and columns chosen, in their order. */
  part(chosen: readonly number[]): Symmetric {
    const { size, values } = this;
    const part = new Float64Array(chosen.length ** 2);
    let at = 0;
    for (const row of chosen) for (const column of chosen) part[at++] = values[row * size + column]!;
    return new Symmetric(chosen.length, part);
  }

  /** The 3×3 block of points i and k, row major. */
  block(i: number, k: number): number[] {
    const start = 3 * i * this.size + 3 * k;
    const { size, values } = this;
    const entries: number[] = [];
    for (let r = start; entries.length < 9; r += size) entries.push(values[r]!, values[r + 1]!, values[r + 2]!);
    return entries;
  }

  times(vector: ArrayLike<number>): Float64Array {
    return this.multiplier()(Float64Array.from(vector));
  }

  /** A v for one v after the other, while the matrix stays as it is. */
  multiplier(): (v: Float64Array) => Float64Array {
    return kernel.multiplier(this.values, this.size);
  }

  /** A v for each of several v. */
  timesEach(vectors: readonly Float64Array[]): Float64Array[] {
    const { size } = this;
    const rows = new Float64Array(vectors.length * size);
    vectors.forEach((vector, i) => rows.set(vector, i * size));
    const products = kernel.product(rows, this.values, size);
    return vectors.map((_, i) => products.slice(i * size, (i + 1) * size));
  }

  /** vᵀ A v. */
  quadratic(vector: ArrayLike<number>): number {
    const product = this.times(vector);
    let sum = 0;
    for (let i = 0; i < this.size; i++) sum += product[i]! * vector[i]!;
    return sum;
  }

  /**
   * A − Σ share · (u vᵀ + v uᵀ)/2 over the terms: a change of low rank. With v left out it is u uᵀ.
   * (Sherman and Morrison 1950; Woodbury for several at once.)
   */
  less(terms: readonly Term[]): Symmetric {
    return terms.length === 0 ? this : this.copy().lessen(terms);
  }

  /** The same in place. */
  lessen(terms: readonly Term[]): this {
    const { size, values } = this;
    const [first, second] = [new Float64Array(terms.length * size), new Float64Array(terms.length * size)];
    terms.forEach(({ u, v = u, share = 1 }, t) => {
      for (let i = 0; i < size; i++) first[t * size + i] = share * u[i]!;
      second.set(v, t * size);
    });
    if (terms.length > 0) kernel.lessen(values, size, first, second);
    return this;
  }

  /** Cholesky's factor; undefined where the matrix is not positive definite. */
  factor(by: Kernel = kernel): SymmetricFactor | undefined {
    return SymmetricFactor.of(this.values.slice(), this.size, by);
  }

  /** @throws where the matrix is not positive definite */
  inverse(): Symmetric {
    const factor = SymmetricFactor.of(FACTORS.copyOf(this.values), this.size);
    if (!factor) throw new Error('the matrix is not positive definite');
    return factor.inverse();
  }
}

/** A = L Lᵀ of a positive definite matrix, and what it answers. */
export class SymmetricFactor {
  private constructor(
    readonly size: number,
    /** Row major; its upper triangle is meaningless. */
    readonly lower: Float64Array,
    private readonly by: Kernel,
  ) {}

  /**
   * Factorises the lower triangle of `matrix` in place, which becomes the factor's own.
   *
   * @returns undefined where the matrix is not positive definite
   */
  static of(matrix: Float64Array, size: number, by: Kernel = kernel): SymmetricFactor | undefined {
    return by.factorise(matrix, size) ? new SymmetricFactor(size, matrix, by) : undefined;
  }

  /** The solution of A x = b. */
  solve(b: Float64Array): Float64Array {
    return this.by.solve(this.lower, this.size, b);
  }

  inverse(): Symmetric {
    return new Symmetric(this.size, this.by.invert(this.lower, this.size));
  }

  /** The smallest weight any unknown has once those before it are eliminated, as its root. */
  smallestPivot(): number {
    let least = Infinity;
    for (let i = 0; i < this.size; i++) least = Math.min(least, this.lower[i * (this.size + 1)]!);
    return least;
  }

  /**
   * Independent noise of unit variance becomes noise whose covariance is A.
   *
   * @param noise `count` rows
   * @returns rows in the same order
   */
  coloured(noise: Float64Array, count: number): Float64Array {
    return this.by.coloured(this.lower, this.size, noise, count);
  }
}
