import { Matrix, SVD, determinant } from 'ml-matrix';
import { add, apply, centroid, norm, subtract, type Matrix3, type Position, type Vector } from '../geometry/vector';

/** A rigid motion from the round's axes to the chart's: reference ≈ rotation · measured + translation. */
export interface RigidMotion {
  readonly rotation: Matrix3;
  readonly translation: Vector;
}

export interface AlignmentPoint {
  readonly id: string;
  readonly reference: Position<'chart'>;
  readonly measured: Position<'round'>;
  /** One standard deviation of each axis, mm; the weight is 1/sigma². */
  readonly sigma: number;
}

export interface Deviation {
  readonly id: string;
  readonly dx: number;
  readonly dy: number;
  readonly dz: number;
  readonly d: number;
}

export type FitResult =
  { readonly ok: true; readonly motion: RigidMotion } | { readonly ok: false; readonly reason: string };

/** Spread across the line, as a share of the spread along it, below which points count as on one line. */
const COLLINEAR = 1e-6;

/**
 * Rigid motion (no scale, no mirror) that brings the measured points nearest to their references
 * in the sense of weighted least squares: Kabsch 1976 by singular value decomposition, with the
 * sign correction of Umeyama 1991.
 *
 * @param points the points to fit on; frame: measured in the round's axes, reference in the chart's
 * @returns the motion, or why there is none: fewer than three points, or all on one line
 */
export function fitSelected(points: readonly AlignmentPoint[]): FitResult {
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
  return {
    ok: true,
    motion: { rotation: rows, translation: subtract(to, apply(rows, from)) },
  };
}

/** Whether centred points leave a turn about one line free. */
function onOneLine(centred: readonly Vector[]): boolean {
  const [largest = 0, second = 0] = new SVD(new Matrix(centred.map((v) => [...v]))).diagonal;
  return second <= COLLINEAR * Math.max(largest, Number.MIN_VALUE);
}

/** Carries a measured position into the chart's axes. */
export const place = (motion: RigidMotion, measured: Position<'round'>): Position<'chart'> =>
  add(apply(motion.rotation, measured), motion.translation);

/** Measured minus reference in the chart's axes, after the motion. */
export function deviationOf(
  motion: RigidMotion,
  point: Pick<AlignmentPoint, 'id' | 'measured' | 'reference'>,
): Deviation {
  const d = subtract(place(motion, point.measured), point.reference);
  return { id: point.id, dx: d[0], dy: d[1], dz: d[2], d: norm(d) };
}

/** Root mean of the squared deviations, unweighted, mm. */
export const rootMeanSquare = (deviations: readonly Deviation[]): number =>
  Math.sqrt(deviations.reduce((sum, each) => sum + each.d ** 2, 0) / deviations.length);
