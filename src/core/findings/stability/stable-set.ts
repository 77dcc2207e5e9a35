import { inverse, Matrix } from 'ml-matrix';
import {
  covariance as spreadOf,
  displacement,
  type Covariance,
  type Displacement,
  type Frame,
} from '../../maths/geometry/vector';
import { Room } from '../../maths/linear/room';
import { Symmetric } from '../../maths/linear/symmetric';

/** How a point's difference compares with what the other points of a set let expect. */
export interface Discrepancy<F extends Frame> {
  readonly change: Displacement<F>;
  readonly covariance: Covariance<F>;
  readonly chiSquare: number;
}

const AXES3 = [0, 1, 2] as const;
/** So many updates of an inverse are trusted. */
const UPDATES = 12;
const CHANGED = new Room();

/**
 * Points taken as stable, with the inverse of the covariance of their differences kept up as points leave
 * and come back: each change costs the square of their number, not its cube.
 */
export class StableSet<F extends Frame> {
  private constructor(
    private readonly differences: readonly Displacement<F>[],
    /** Covariance of all differences, definite. */
    private readonly covariance: Symmetric,
    readonly members: readonly number[],
    /** Inverse of the members' block. */
    private readonly weights: Symmetric,
    /** So many points left or came since it was taken. */
    private readonly updates: number,
  ) {}

  static of<F extends Frame>(
    differences: readonly Displacement<F>[],
    covariance: Symmetric,
    members: readonly number[],
  ): StableSet<F> {
    const block = covariance.part(members.flatMap((member) => AXES3.map((axis) => 3 * member + axis)));
    return new StableSet(differences, covariance, members, block.inverse(), 0);
  }

  get size(): number {
    return this.members.length;
  }

  /** The same set with its inverse taken anew: updates pile up rounding errors. */
  fresh(): StableSet<F> {
    return this.updates === 0 ? this : StableSet.of(this.differences, this.covariance, this.members);
  }

  private get d(): number[] {
    return this.members.flatMap((i) => [...this.differences[i]!]);
  }

  /** dᵀ W d: χ² with 3·members − 6 degrees of freedom where none moved. */
  chiSquare(): number {
    return this.weights.quadratic(this.d);
  }

  /** Every member against the other members. */
  membersTested(): Discrepancy<F>[] {
    const weighted = this.weights.times(this.d);
    return this.members.map((_, k) => {
      const covariance = inverse(this.block(k));
      const own = Matrix.columnVector(AXES3.map((axis) => weighted[3 * k + axis]!));
      return discrepancy(covariance.mmul(own), covariance);
    });
  }

  /** A point outside against the members. */
  outsiderTested(point: number): Discrepancy<F> {
    const { change, covariance } = this.expected(point);
    return discrepancy(change, covariance);
  }

  private block(k: number): Matrix {
    return Matrix.from1DArray(3, 3, this.weights.block(k, k));
  }

  /** Columns of G = W Σₛᵢ, the point's difference less what the members let expect, and the covariance of that. */
  private expected(point: number): { gain: Float64Array[]; change: Matrix; covariance: Matrix } {
    const { covariance, members } = this;
    const cross = AXES3.map((axis) =>
      Float64Array.from(
        members.flatMap((member) => AXES3.map((r) => covariance.get(3 * member + r, 3 * point + axis))),
      ),
    );
    const gain = this.weights.timesEach(cross);
    const d = this.d;
    const own = Matrix.from1DArray(3, 3, covariance.block(point, point));
    const change = AXES3.map((axis) => this.differences[point]![axis] - product(gain[axis]!, d));
    const shared = new Matrix(cross.map((a) => gain.map((b) => product(a, b))));
    return { gain, change: Matrix.columnVector(change), covariance: own.sub(shared) };
  }

  /** The set with a point more: the inverse of a matrix bordered by it. */
  with(point: number): StableSet<F> {
    const { gain, covariance } = this.expected(point);
    const { size } = this.weights;
    const inverted = inverse(covariance);
    const share = AXES3.map((r) => {
      const column = new Float64Array(size);
      AXES3.forEach((c) => gain[c]!.forEach((value, i) => (column[i]! += inverted.get(r, c) * value)));
      return column;
    });
    const inner = this.weights.copy(CHANGED).lessen(AXES3.map((c) => ({ u: share[c]!, v: gain[c]!, share: -1 })));
    const wide = Symmetric.zeros(size + 3);
    for (let i = 0; i < size; i++) wide.values.set(inner.values.subarray(i * size, (i + 1) * size), i * wide.size);
    for (const c of AXES3) {
      for (let i = 0; i < size; i++) wide.set(i, size + c, -share[c]![i]!);
      for (const r of AXES3) wide.set(size + r, size + c, inverted.get(r, c));
    }
    return this.updated([...this.members, point], wide);
  }

  /** The set without its k-th member: W − W·ᵢ Wᵢᵢ⁻¹ Wᵢ· on the others. */
  without(k: number): StableSet<F> {
    const { size, values } = this.weights;
    const inverted = inverse(this.block(k));
    const rows = AXES3.map((axis) => values.slice((3 * k + axis) * size, (3 * k + axis + 1) * size));
    const mixed = AXES3.map((r) => {
      const sum = new Float64Array(size);
      AXES3.forEach((c) => rows[c]!.forEach((value, i) => (sum[i]! += inverted.get(r, c) * value)));
      return sum;
    });
    const left = this.weights.copy(CHANGED).lessen(AXES3.map((c) => ({ u: rows[c]!, v: mixed[c]! })));
    const kept = Array.from({ length: size }, (_, i) => i).filter((i) => Math.floor(i / 3) !== k);
    return this.updated(
      this.members.filter((_, m) => m !== k),
      left.part(kept),
    );
  }

  private updated(members: readonly number[], weights: Symmetric): StableSet<F> {
    const set = new StableSet(this.differences, this.covariance, members, weights, this.updates + 1);
    return set.updates < UPDATES ? set : set.fresh();
  }
}

function product(a: ArrayLike<number>, b: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!;
  return sum;
}

const discrepancy = <F extends Frame>(change: Matrix, covariance: Matrix): Discrepancy<F> => ({
  change: displacement<F>(change.to1DArray() as [number, number, number]),
  covariance: spreadOf<F>(covariance.to1DArray()),
  chiSquare: change.transpose().mmul(inverse(covariance)).mmul(change).get(0, 0),
});
