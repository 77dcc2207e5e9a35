import { Matrix } from 'ml-matrix';
import type { Vector } from '../geometry/vector';

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
 */
export function withFreeMotion(covariance: Matrix, positions: readonly Vector[]): Matrix {
  const middle = [0, 1, 2].map((i) => positions.reduce((sum, p) => sum + p[i]! / positions.length, 0));
  const rows = positions.flatMap((position) => {
    const centred = [0, 1, 2].map((k) => position[k]! - middle[k]!) as unknown as Vector;
    return rigidDesign(centred).to2DArray();
  });
  const free = Matrix.zeros(covariance.rows, covariance.columns);
  rows.forEach((a, i) => {
    for (let k = 0; k <= i; k++) {
      const b = rows[k]!;
      let sum = 0;
      for (let j = 0; j < 6; j++) sum += a[j]! * b[j]!;
      free.set(i, k, covariance.get(i, k) + FREE * sum);
      free.set(k, i, covariance.get(k, i) + FREE * sum);
    }
  });
  return free;
}

/** The joint covariance of several points as one matrix, 3n×3n, mm². */
export function jointMatrix(ids: readonly string[], joint: (a: string, b: string) => readonly number[]): Matrix {
  const whole = Matrix.zeros(3 * ids.length, 3 * ids.length);
  ids.forEach((a, i) =>
    ids.forEach((b, k) => {
      if (k > i) return;
      const block = joint(a, b);
      for (let r = 0; r < 3; r++)
        for (let c = 0; c < 3; c++) {
          whole.set(3 * i + r, 3 * k + c, block[3 * r + c]!);
          whole.set(3 * k + c, 3 * i + r, block[3 * r + c]!);
        }
    }),
  );
  return whole;
}

/** R Σ Rᵀ on every pair of points of a 3n×3n covariance. */
export function turned(covariance: Matrix, rotation: readonly Vector[]): Matrix {
  const whole = Matrix.zeros(covariance.rows, covariance.columns);
  const half = new Float64Array(9);
  for (let i = 0; i < covariance.rows; i += 3)
    for (let k = 0; k <= i; k += 3) {
      for (let r = 0; r < 3; r++)
        for (let c = 0; c < 3; c++) {
          const [x, y, z] = rotation[r]!;
          half[3 * r + c] =
            x * covariance.get(i, k + c) + y * covariance.get(i + 1, k + c) + z * covariance.get(i + 2, k + c);
        }
      for (let r = 0; r < 3; r++)
        for (let c = 0; c < 3; c++) {
          const [x, y, z] = rotation[c]!;
          const entry = half[3 * r]! * x + half[3 * r + 1]! * y + half[3 * r + 2]! * z;
          whole.set(i + r, k + c, entry);
          whole.set(k + c, i + r, entry);
        }
    }
  return whole;
}
