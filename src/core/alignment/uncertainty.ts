import { inverse, Matrix } from 'ml-matrix';
import { apply, type Position, type Vector } from '../geometry/vector';
import { rigidDesign } from './rigid-freedom';
import type { RigidMotion } from './selected';

/** A point with its two positions and what the reference can be trusted to. */
export interface UncertainPoint {
  readonly id: string;
  readonly reference: Position<'chart'>;
  readonly measured: Position<'round'>;
  /** Variance of the reference on each axis, mm². */
  readonly trust: number;
}

/**
 * Covariance of every deviation, from the joint covariance of the round, of the reference and of the
 * alignment.
 *
 * With e the errors of the points, Σᵢₖ their covariances and J the 3×6 design of a small motion, the fit
 * on the control points with weights w takes δ = Σ Bₖ eₖ away, Bₖ = N⁻¹ wₖ Jₖᵀ, so that dᵢ = eᵢ − Jᵢ δ and
 * Cov(dᵢ) = Σᵢᵢ − Jᵢ (Σ Bₖ Σₖᵢ) − its transpose + Jᵢ (ΣΣ Bₖ Σₖₗ Bₗᵀ) Jᵢᵀ.
 * (Linear propagation, e.g. Koch, Parameter Estimation and Hypothesis Testing, §2.6.) A net without a
 * datum comes out right too: what its free motion adds to e, the fit takes away again.
 *
 * @param control the points fitted on, with their weights' sigma, as in `fitSelected`
 * @param judged  the points whose deviation is wanted; may be control points too
 * @param joint   covariance of two measured points, 3×3 row major, mm², round axes
 * @returns 3×3 covariances in mm², chart axes, by point id
 */
export function deviationCovariances(
  motion: RigidMotion,
  control: readonly (UncertainPoint & { readonly sigma: number })[],
  judged: readonly UncertainPoint[],
  joint: (a: string, b: string) => readonly number[],
): Map<string, Matrix> {
  const rotation = new Matrix(motion.rotation.map((row) => [...row]));
  const covariance = (a: UncertainPoint, b: UncertainPoint): Matrix => {
    const own = rotation
      .mmul(Matrix.from1DArray(3, 3, [...joint(a.id, b.id)]))
      .mmul(rotation.transpose());
    return a.id === b.id ? own.add(Matrix.eye(3, 3).mul(a.trust)) : own;
  };
  const normal = Matrix.zeros(6, 6);
  const designs = control.map((point) => design(motion, point.measured));
  control.forEach((point, k) =>
    normal.add(
      designs[k]!.transpose()
        .mmul(designs[k]!)
        .div(point.sigma ** 2),
    ),
  );
  const inverted = inverse(normal);
  const shares = control.map((point, k) => inverted.mmul(designs[k]!.transpose()).div(point.sigma ** 2)); // prettier-ignore
  const motionCovariance = Matrix.zeros(6, 6);
  control.forEach((a, k) =>
    control.forEach((b, l) =>
      motionCovariance.add(shares[k]!.mmul(covariance(a, b)).mmul(shares[l]!.transpose())),
    ),
  );
  const result = new Map<string, Matrix>();
  for (const point of judged) {
    const j = design(motion, point.measured);
    const taken = Matrix.zeros(6, 3);
    control.forEach((each, k) => taken.add(shares[k]!.mmul(covariance(each, point))));
    const shared = j.mmul(taken);
    result.set(
      point.id,
      covariance(point, point)
        .sub(shared)
        .sub(shared.transpose())
        .add(j.mmul(motionCovariance).mmul(j.transpose())),
    );
  }
  return result;
}

const design = (motion: RigidMotion, measured: Vector): Matrix =>
  rigidDesign(apply(motion.rotation, measured));

/** Standard deviations along the axes of a 3×3 covariance, never below zero. */
export const axisDeviations = (covariance: Matrix): Vector =>
  [0, 1, 2].map((i) => Math.sqrt(Math.max(0, covariance.get(i, i)))) as unknown as Vector;
