import { inverse, Matrix } from 'ml-matrix';
import type { Vector } from '../../maths/geometry/vector';
import { factorise, invert } from '../../maths/linear/cholesky';

/** How a point's difference compares with what the other points of a set let expect. */
export interface Discrepancy {
  readonly change: Vector;
  /** 3×3 row major, mm². */
  readonly covariance: readonly number[];
  readonly chiSquare: number;
}

/**
 * Points taken as stable, with the inverse of the covariance of their differences kept up as points leave
 * and come back: each change costs the square of their number, not its cube.
 */
export class StableSet {
  private constructor(
    private readonly differences: readonly Vector[],
    /** Covariance of all differences, definite. */
    private readonly covariance: Matrix,
    readonly members: readonly number[],
    /** Inverse of the members' block, row major. */
    private readonly weights: Float64Array,
  ) {}

  static of(differences: readonly Vector[], covariance: Matrix, members: readonly number[]): StableSet {
    const size = 3 * members.length;
    const block = new Float64Array(size * size);
    members.forEach((a, i) =>
      members.forEach((b, k) => {
        for (let r = 0; r < 3; r++)
          for (let c = 0; c < 3; c++) block[(3 * i + r) * size + 3 * k + c] = covariance.get(3 * a + r, 3 * b + c);
      }),
    );
    const factor = factorise(block, size);
    if (!factor) throw new Error('the covariance of the differences is not definite');
    return new StableSet(differences, covariance, members, invert(factor));
  }

  get size(): number {
    return this.members.length;
  }

  /** The same set with its inverse taken anew: updates pile up rounding errors. */
  fresh(): StableSet {
    return StableSet.of(this.differences, this.covariance, this.members);
  }

  /** W d over the members. */
  private weighted(): Float64Array {
    const size = 3 * this.size;
    const d = this.members.flatMap((i) => [...this.differences[i]!]);
    const product = new Float64Array(size);
    for (let i = 0; i < size; i++) {
      let sum = 0;
      for (let k = 0; k < size; k++) sum += this.weights[i * size + k]! * d[k]!;
      product[i] = sum;
    }
    return product;
  }

  /** dᵀ W d: χ² with 3·members − 6 degrees of freedom where none moved. */
  chiSquare(): number {
    const weighted = this.weighted();
    return this.members.reduce(
      (sum, i, k) => sum + this.differences[i]!.reduce((own, d, axis) => own + d * weighted[3 * k + axis]!, 0),
      0,
    );
  }

  /** Every member against the other members. */
  membersTested(): Discrepancy[] {
    const weighted = this.weighted();
    return this.members.map((_, k) => {
      const covariance = inverse(this.block(k));
      const own = Matrix.columnVector([0, 1, 2].map((axis) => weighted[3 * k + axis]!));
      return discrepancy(covariance.mmul(own), covariance);
    });
  }

  /** A point outside against the members. */
  outsiderTested(point: number): Discrepancy {
    const { change, covariance } = this.expected(point);
    return discrepancy(change, covariance);
  }

  private block(k: number): Matrix {
    const size = 3 * this.size;
    return new Matrix([0, 1, 2].map((r) => [0, 1, 2].map((c) => this.weights[(3 * k + r) * size + 3 * k + c]!)));
  }

  /** G = W Σₛᵢ, the point's difference less what the members let expect, and the covariance of that. */
  private expected(point: number): { gain: Matrix; change: Matrix; covariance: Matrix } {
    const size = 3 * this.size;
    const cross = Matrix.zeros(size, 3);
    this.members.forEach((member, k) =>
      cross.setSubMatrix(this.covariance.subMatrix(3 * member, 3 * member + 2, 3 * point, 3 * point + 2), 3 * k, 0),
    );
    const gain = Matrix.zeros(size, 3);
    for (let i = 0; i < size; i++)
      for (let c = 0; c < 3; c++) {
        let sum = 0;
        for (let k = 0; k < size; k++) sum += this.weights[i * size + k]! * cross.get(k, c);
        gain.set(i, c, sum);
      }
    const d = Matrix.columnVector(this.members.flatMap((i) => [...this.differences[i]!]));
    const own = Matrix.columnVector([...this.differences[point]!]);
    return {
      gain,
      change: own.sub(gain.transpose().mmul(d)),
      covariance: this.covariance
        .subMatrix(3 * point, 3 * point + 2, 3 * point, 3 * point + 2)
        .sub(cross.transpose().mmul(gain)),
    };
  }

  /** The set with a point more: the inverse of a matrix bordered by it. */
  with(point: number): StableSet {
    const { gain, covariance } = this.expected(point);
    const size = 3 * this.size;
    const inverted = inverse(covariance);
    const share = gain.mmul(inverted);
    const wide = size + 3;
    const weights = new Float64Array(wide * wide);
    for (let i = 0; i < size; i++)
      for (let k = 0; k < size; k++) {
        let sum = this.weights[i * size + k]!;
        for (let c = 0; c < 3; c++) sum += share.get(i, c) * gain.get(k, c);
        weights[i * wide + k] = sum;
      }
    for (let c = 0; c < 3; c++) {
      for (let i = 0; i < size; i++) weights[i * wide + size + c] = weights[(size + c) * wide + i] = -share.get(i, c);
      for (let r = 0; r < 3; r++) weights[(size + r) * wide + size + c] = inverted.get(r, c);
    }
    return new StableSet(this.differences, this.covariance, [...this.members, point], weights);
  }

  /** The set without its k-th member: W − W·ᵢ Wᵢᵢ⁻¹ Wᵢ· on the others. */
  without(k: number): StableSet {
    const size = 3 * this.size;
    const inverted = inverse(this.block(k));
    const kept = Array.from({ length: size }, (_, i) => i).filter((i) => Math.floor(i / 3) !== k);
    const weights = new Float64Array(kept.length ** 2);
    kept.forEach((row, i) => {
      const share = [0, 1, 2].map((c) =>
        [0, 1, 2].reduce((sum, r) => sum + this.weights[row * size + 3 * k + r]! * inverted.get(r, c), 0),
      );
      kept.forEach((column, j) => {
        let value = this.weights[row * size + column]!;
        for (let c = 0; c < 3; c++) value -= share[c]! * this.weights[(3 * k + c) * size + column]!;
        weights[i * kept.length + j] = value;
      });
    });
    return new StableSet(
      this.differences,
      this.covariance,
      this.members.filter((_, m) => m !== k),
      weights,
    );
  }
}

const discrepancy = (change: Matrix, covariance: Matrix): Discrepancy => ({
  change: change.to1DArray() as unknown as Vector,
  covariance: covariance.to1DArray(),
  chiSquare: change.transpose().mmul(inverse(covariance)).mmul(change).get(0, 0),
});
