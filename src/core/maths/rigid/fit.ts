import { Matrix, SVD, determinant } from 'ml-matrix';
import {
  apply,
  centroid,
  from as between,
  motion,
  norm,
  place,
  subtract,
  type Displacement,
  type Frame,
  type Matrix3,
  type Motion,
  type Position,
  type Vector,
} from '../geometry/vector';

/** One point as it was measured and as its reference has it: two frames, joined by the motion that is sought. */
export interface PairedPoint<From extends Frame = 'round', To extends Frame = 'chart'> {
  readonly id: string;
  readonly reference: Position<To>;
  readonly measured: Position<From>;
}

export interface AlignmentPoint<From extends Frame = 'round', To extends Frame = 'chart'> extends PairedPoint<
  From,
  To
> {
  /** One standard deviation of each axis, mm; the weight is 1/sigma². */
  readonly sigma: number;
}

/** Measured minus reference along the reference's axes, mm. */
export interface Deviation<To extends Frame = 'chart'> {
  readonly id: string;
  readonly by: Displacement<To>;
  /** Its size. */
  readonly d: number;
}

export type FitResult<From extends Frame = 'round', To extends Frame = 'chart'> =
  { readonly ok: true; readonly motion: Motion<From, To> } | { readonly ok: false; readonly reason: string };

/** Spread across the line, as a share of the spread along it, below which points count as on one line. */
const COLLINEAR = 1e-6;

/**
 * Rigid motion (no scale, no mirror) that brings the measured points nearest to their references
 * in the sense of weighted least squares: Kabsch 1976 by singular value decomposition, with the
 * sign correction of Umeyama 1991.
 *
 * @param points the points to fit on
 * @returns the motion, or why there is none: fewer than three points, or all on one line
 */
export function fitSelected<From extends Frame, To extends Frame>(
  points: readonly AlignmentPoint<From, To>[],
): FitResult<From, To> {
  if (points.length < 3)
    return {
      ok: false,
      reason: `an alignment needs at least three points, ${points.length} chosen: add ${3 - points.length} more`,
    };
  const weights = points.map((point) => 1 / point.sigma ** 2);
  const from = centroid(
    points.map((p) => p.measured),
    weights,
  );
  const to = centroid(
    points.map((p) => p.reference),
    weights,
  );
  const measured = points.map((p) => subtract(p.measured, from));
  const reference = points.map((p) => subtract(p.reference, to));
  if (onOneLine(measured) || onOneLine(reference))
    return {
      ok: false,
      reason: 'the points of the alignment lie on one line: add a point well off that line',
    };

  const cross = Matrix.zeros(3, 3);
  measured.forEach((m, i) => {
    for (let r = 0; r < 3; r++)
      for (let c = 0; c < 3; c++) cross.set(r, c, cross.get(r, c) + weights[i]! * reference[i]![r]! * m[c]!);
  });
  const svd = new SVD(cross);
  const u = svd.leftSingularVectors;
  const v = svd.rightSingularVectors;
  const sign = determinant(u) * determinant(v) < 0 ? -1 : 1;
  const rotation = u.mmul(Matrix.diag([1, 1, sign])).mmul(v.transpose());
  const rows = rotation.to2DArray() as unknown as Matrix3;
  return { ok: true, motion: motion(rows, subtract(to, apply(rows, from))) };
}

/** Whether centred points leave a turn about one line free. */
function onOneLine(centred: readonly Vector[]): boolean {
  const [largest = 0, second = 0] = new SVD(new Matrix(centred.map((v) => [...v]))).diagonal;
  return second <= COLLINEAR * Math.max(largest, Number.MIN_VALUE);
}

/** Measured minus reference along the reference's axes, after the motion. */
export function deviationOf<From extends Frame, To extends Frame>(
  by: Motion<From, To>,
  point: PairedPoint<From, To>,
): Deviation<To> {
  const d = between(point.reference, place(by, point.measured));
  return { id: point.id, by: d, d: norm(d) };
}

/** Root mean of the squared deviations, unweighted, mm. */
export const rootMeanSquare = (deviations: readonly Pick<Deviation, 'd'>[]): number =>
  Math.sqrt(deviations.reduce((sum, each) => sum + each.d ** 2, 0) / deviations.length);
