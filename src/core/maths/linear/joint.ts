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
    const [x, y, z] = BLOCK;
    this.fill(BLOCK, this.columns[this.index.get(a)!]!, [this.columns[this.index.get(b)!]!]);
    return covariance<F>([x[0]!, x[1]!, x[2]!, y[0]!, y[1]!, y[2]!, z[0]!, z[1]!, z[2]!]);
  }

  /** Several points as one matrix, 3n×3n. */
  matrix(ids: readonly string[]): Symmetric {
    const size = 3 * ids.length;
    const values = new Float64Array(size * size);
    const columns = ids.map((id) => this.columns[this.index.get(id)!]!);
    const rows = threeRows(size);
    columns.forEach((from, i) => {
      this.fill(rows, from, columns);
      rows.forEach((row, r) => values.set(row, (3 * i + r) * size));
    });
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

  /** The blocks of the point in the three columns from `from` on with each of those in `columns`, side by side. */
  private fill(rows: Rows, from: number, columns: readonly number[]): void {
    const { whole, turn } = this;
    for (let r = 0; r < 3; r++)
      if (from < 0) rows[r]!.fill(0);
      else gather(rows[r]!, whole.values, (from + r) * whole.size, columns);
    if (turn) turnRows(rows, turn);
  }
}

type Rows = readonly [Float64Array, Float64Array, Float64Array];

const threeRows = (length: number): Rows => [
  new Float64Array(length),
  new Float64Array(length),
  new Float64Array(length),
];

const BLOCK = threeRows(3);

/** Out of a row that begins at `row` three entries for each of the columns, one after the other. */
function gather(into: Float64Array, values: Float64Array, row: number, columns: readonly number[]): void {
  for (let k = 0; k < columns.length; k++) {
    const from = columns[k]!;
    const at = row + from;
    for (let c = 0; c < 3; c++) into[3 * k + c] = from < 0 ? 0 : values[at + c]!;
  }
}

/** R B Rᵀ in place for each of the 3×3 blocks B that stand side by side in three rows. */
function turnRows([x, y, z]: Rows, turn: Float64Array): void {
  const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0, g = 0, h = 0, i = 0] = turn;
  for (let k = 0; k < x.length; k++) {
    const u = x[k]!;
    const v = y[k]!;
    const w = z[k]!;
    x[k] = a * u + b * v + c * w;
    y[k] = d * u + e * v + f * w;
    z[k] = g * u + h * v + i * w;
  }
  for (const row of [x, y, z])
    for (let k = 0; k < row.length; k += 3) {
      const u = row[k]!;
      const v = row[k + 1]!;
      const w = row[k + 2]!;
      row[k] = a * u + b * v + c * w;
      row[k + 1] = d * u + e * v + f * w;
      row[k + 2] = g * u + h * v + i * w;
    }
}
