import { inverse, Matrix } from 'ml-matrix';
import { apply, type Position, type Vector } from '../geometry/vector';
import { rigidDesign } from './freedom';
import type { RigidMotion } from './fit';

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
  const back = rotation.transpose();
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
  const shares = control.map((point, k) => inverted.mmul(designs[k]!.transpose()).div(point.sigma ** 2));
  const inRound = shares.map((share) => share.mmul(rotation).to1DArray());
  const own = new Map(control.map(({ id }, k) => [id, k]));
  /** Σ Bₖ Σₖᵢ: what the fit takes away with the errors of the control points, 6×3. */
  const takenFor = (point: UncertainPoint): Matrix => {
    const sum = new Float64Array(18);
    control.forEach(({ id }, k) => addProduct(sum, inRound[k]!, joint(id, point.id)));
    const taken = Matrix.from1DArray(6, 3, sum as unknown as number[]).mmul(back);
    const k = own.get(point.id);
    return k === undefined ? taken : taken.add(Matrix.mul(shares[k]!, point.trust));
  };
  const motionCovariance = Matrix.zeros(6, 6);
  control.forEach((point, k) => motionCovariance.add(takenFor(point).mmul(shares[k]!.transpose())));
  return new Map(
    judged.map((point) => {
      const j = design(motion, point.measured);
      const shared = j.mmul(takenFor(point));
      const alone = rotation.mmul(Matrix.from1DArray(3, 3, [...joint(point.id, point.id)])).mmul(back);
      const whole = alone.add(Matrix.eye(3, 3).mul(point.trust)).sub(shared).sub(shared.transpose());
      return [point.id, whole.add(j.mmul(motionCovariance).mmul(j.transpose()))];
    }),
  );
}

/** Adds a 6×3 matrix times a 3×3 one, both row major. */
function addProduct(sum: Float64Array, a: readonly number[], b: readonly number[]): void {
  for (let i = 0; i < 6; i++)
    for (let k = 0; k < 3; k++)
      sum[3 * i + k]! += a[3 * i]! * b[k]! + a[3 * i + 1]! * b[3 + k]! + a[3 * i + 2]! * b[6 + k]!;
}

const design = (motion: RigidMotion, measured: Vector): Matrix => rigidDesign(apply(motion.rotation, measured));

/** Standard deviations along the axes of a 3×3 covariance, never below zero. */
export const axisDeviations = (covariance: Matrix): Vector =>
  [0, 1, 2].map((i) => Math.sqrt(Math.max(0, covariance.get(i, i)))) as unknown as Vector;
