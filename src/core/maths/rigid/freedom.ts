import { Matrix } from 'ml-matrix';
import { mapAxes, type Vector } from '../geometry/vector';
import type { Room } from '../linear/room';
import type { Symmetric } from '../linear/symmetric';

/**
 * Derivative of a point with respect to a small shift (mm) and turn (thousandths of a radian, so that
 * normal matrices are well conditioned) of the whole shell, 3×6.
 */
export function rigidDesign([mx, my, mz]: Vector): Matrix {
  const [x, y, z] = [mx / 1000, my / 1000, mz / 1000];
  return new Matrix([
    [1, 0, 0, 0, z, -y],
    [0, 1, 0, -z, 0, x],
    [0, 0, 1, y, -x, 0],
  ]);
}

/** Variance that stands for "free": far above any reading's, far below where doubles lose the readings, mm². */
const FREE = 1e4;

/**
 * A covariance of several points' coordinates with a rigid motion of them all left free: Σ + κ J Jᵀ with κ
 * large. Least squares with its inverse is least squares with the six motions as further unknowns, and it
 * is definite where a net without a datum is not.
 *
 * @param covariance 3n×3n, mm²
 * @param positions  of the n points, mm
 * @param room       where it lies until the next is made there, if given
 */
export function withFreeMotion(covariance: Symmetric, positions: readonly Vector[], room?: Room): Symmetric {
  const middle = mapAxes((i) => positions.reduce((sum, p) => sum + p[i] / positions.length, 0));
  const motions = Array.from({ length: 6 }, () => ({ u: new Float64Array(covariance.size), share: -FREE }));
  positions.forEach((position, p) => {
    const rows = rigidDesign(mapAxes((k) => position[k] - middle[k]));
    for (let r = 0; r < 3; r++) motions.forEach(({ u }, j) => (u[3 * p + r] = rows.get(r, j)));
  });
  return covariance.copy(room).lessen(motions);
}
