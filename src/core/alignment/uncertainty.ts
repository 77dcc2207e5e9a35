import { inverse, Matrix } from 'ml-matrix';
import { apply, type Position, type Vector } from '../geometry/vector';
import type { RigidMotion } from './selected';

/** A point with what its two positions can be trusted to, per axis; the axes are independent. */
export interface UncertainPoint {
  readonly id: string;
  readonly reference: Position<'chart'>;
  readonly measured: Position<'round'>;
  /** Variances of measured and reference together, mm², along the round's axes. */
  readonly variance: Vector;
}

/**
 * Covariance of every deviation, the alignment's own uncertainty included.
 *
 * With e the errors of the points and J the 3×6 design of a small motion, the fit on the control
 * points with weights w takes δ = N⁻¹ Σ wₖ Jₖᵀ eₖ away, so that
 * dᵢ = eᵢ − Jᵢ δ and
 * Cov(dᵢ) = Σᵢ − wᵢ(Σᵢ Jᵢ N⁻¹ Jᵢᵀ + its transpose, control points only) + Jᵢ N⁻¹ (Σ wₖ² Jₖᵀ Σₖ Jₖ) N⁻¹ Jᵢᵀ.
 * (Linear propagation, e.g. Koch, Parameter Estimation and Hypothesis Testing, §2.6.)
 *
 * @param control the points fitted on, with their weights' sigma, as in `fitSelected`
 * @param judged  the points whose deviation is wanted; may be control points too
 * @returns 3×3 covariances in mm², chart axes, by point id
 */
export function deviationCovariances(
  motion: RigidMotion,
  control: readonly (UncertainPoint & { readonly sigma: number })[],
  judged: readonly UncertainPoint[],
): Map<string, Matrix> {
  const weight = new Map(control.map((point) => [point.id, 1 / point.sigma ** 2]));
  const normal = Matrix.zeros(6, 6);
  const noise = Matrix.zeros(6, 6);
  for (const point of control) {
    const j = design(motion, point.measured);
    const w = weight.get(point.id)!;
    normal.add(j.transpose().mmul(j).mul(w));
    noise.add(
      j
        .transpose()
        .mmul(turned(motion, point.variance))
        .mmul(j)
        .mul(w * w),
    );
  }
  const inverted = inverse(normal);
  const motionCovariance = inverted.mmul(noise).mmul(inverted);
  const result = new Map<string, Matrix>();
  for (const point of judged) {
    const j = design(motion, point.measured);
    const own = turned(motion, point.variance);
    const covariance = own.clone().add(j.mmul(motionCovariance).mmul(j.transpose()));
    const w = weight.get(point.id);
    if (w !== undefined) {
      const shared = own.mmul(j).mmul(inverted).mmul(j.transpose()).mul(w);
      covariance.sub(shared).sub(shared.transpose());
    }
    result.set(point.id, covariance);
  }
  return result;
}

/**
 * Derivative of the placed point with respect to a small shift (mm) and turn (radians per metre
 * scale kept at 1/1000 so that the normal matrix is well conditioned), 3×6.
 */
function design(motion: RigidMotion, measured: Vector): Matrix {
  const [x, y, z] = apply(motion.rotation, measured).map((value) => value / 1000) as [
    number,
    number,
    number,
  ];
  return new Matrix([
    [1, 0, 0, 0, z, -y],
    [0, 1, 0, -z, 0, x],
    [0, 0, 1, y, -x, 0],
  ]);
}

/** A diagonal covariance of the round's axes in the chart's axes. */
function turned(motion: RigidMotion, variance: Vector): Matrix {
  const rotation = new Matrix(motion.rotation.map((row) => [...row]));
  return rotation.mmul(Matrix.diag([...variance])).mmul(rotation.transpose());
}

/** Standard deviations along the axes of a 3×3 covariance, never below zero. */
export const axisDeviations = (covariance: Matrix): Vector =>
  [0, 1, 2].map((i) => Math.sqrt(Math.max(0, covariance.get(i, i)))) as unknown as Vector;
