import { covariance, type Covariance, type Frame, type Matrix3, type Motion } from '../geometry/vector';
import { Symmetric } from './symmetric';

/** The joint covariance of many points of one frame, asked for by their identities, mm². */
export class Joint<F extends Frame> {
  private readonly index: ReadonlyMap<string, number>;
  /** The rotation, row major. */
  private readonly turn: Float64Array | undefined;

  /**
   * @param ids     the points
   * @param columns first of the three columns of each in `whole`; −1 for one held fixed
   */
  private constructor(
    readonly ids: readonly string[],
    private readonly columns: ArrayLike<number>,
    private readonly whole: Symmetric,
    private readonly rotation?: Matrix3,
  ) {
    this.turn = rotation && Float64Array.from(rotation.flat());
    this.index = new Map(ids.map((id, i) => [id, i]));
  }

  static of<F extends Frame>(ids: readonly string[], columns: ArrayLike<number>, whole: Symmetric): Joint<F> {
    return new Joint<F>(ids, columns, whole);
  }

  has(id: string): boolean {
    return this.index.has(id);
  }

  /** Covariance of two points, 3×3; of one with itself where the second is left out. */
  block(a: string, b: string = a): Covariance<F> {
    const m = scratch;
    this.fill(m, this.index.get(a)!, this.index.get(b)!);
    return covariance<F>([m[0]!, m[1]!, m[2]!, m[3]!, m[4]!, m[5]!, m[6]!, m[7]!, m[8]!]);
  }

  /** Several points as one matrix, 3n×3n. */
  matrix(ids: readonly string[]): Symmetric {
    const size = 3 * ids.length;
    const { values } = Symmetric.zeros(size);
    const block = new Float64Array(9);
    const places = ids.map((id) => this.index.get(id)!);
    for (let i = 0; i < places.length; i++)
      for (let k = 0; k <= i; k++) {
        this.fill(block, places[i]!, places[k]!);
        for (let r = 0; r < 3; r++)
          for (let c = 0; c < 3; c++) {
            values[(3 * i + r) * size + 3 * k + c] = block[3 * r + c]!;
            values[(3 * k + c) * size + 3 * i + r] = block[3 * r + c]!;
          }
      }
    return new Symmetric(size, values);
  }

  /** The same in the axes a motion leads to: R Σ Rᵀ on every pair. */
  turned<To extends Frame>({ rotation }: Motion<F, To>): Joint<To> {
    const { rotation: before } = this;
    const both = before
      ? ([0, 1, 2].map((r) =>
          [0, 1, 2].map((c) => [0, 1, 2].reduce((sum, k) => sum + rotation[r]![k]! * before[k]![c]!, 0)),
        ) as unknown as Matrix3)
      : rotation;
    return new Joint<To>(this.ids, this.columns, this.whole, both);
  }

  private fill(block: Float64Array, a: number, b: number): void {
    const { whole, turn } = this;
    const p = this.columns[a]!;
    const q = this.columns[b]!;
    if (p < 0 || q < 0) {
      block.fill(0);
      return;
    }
    for (let r = 0; r < 3; r++)
      for (let c = 0; c < 3; c++) block[3 * r + c] = whole.values[(p + r) * whole.size + q + c]!;
    if (turn) turnBlock(block, turn);
  }
}

const scratch = new Float64Array(9);
const half = new Float64Array(9);

/** R B Rᵀ in place. */
function turnBlock(block: Float64Array, turn: Float64Array): void {
  for (let r = 0; r < 9; r += 3)
    for (let c = 0; c < 3; c++)
      half[r + c] = turn[r]! * block[c]! + turn[r + 1]! * block[3 + c]! + turn[r + 2]! * block[6 + c]!;
  for (let r = 0; r < 9; r += 3)
    for (let c = 0; c < 3; c++)
      block[r + c] = half[r]! * turn[3 * c]! + half[r + 1]! * turn[3 * c + 1]! + half[r + 2]! * turn[3 * c + 2]!;
}
