import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import { jointCovariance, type RoundNet } from './net';

/** How well a point is known: its worst direction. */
export interface KnownTo {
  /** One standard deviation along the worst direction, mm. */
  readonly sd: number;
  readonly direction: 'lengthways' | 'sideways' | 'in height' | 'aslant';
}

const AXIS_WORD = ['lengthways', 'sideways', 'in height'] as const;

/** The worst direction of a 3×3 covariance, named by the axis it lies near. */
export function knownTo(covariance: readonly number[]): KnownTo {
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(
    Matrix.from1DArray(3, 3, [...covariance]),
    { assumeSymmetric: true },
  );
  const k = realEigenvalues.indexOf(Math.max(...realEigenvalues));
  const along = eigenvectorMatrix.getColumn(k).map(Math.abs);
  const axis = along.indexOf(Math.max(...along));
  return {
    sd: Math.sqrt(Math.max(0, realEigenvalues[k]!)),
    direction: along[axis]! > 0.85 ? AXIS_WORD[axis]! : 'aslant',
  };
}

/** The point of a solved round that is known worst. */
export function worstKnown({ solution }: RoundNet): (KnownTo & { readonly code: string }) | undefined {
  if (!solution) return undefined;
  const joint = jointCovariance(solution);
  return solution.survey.points
    .map(({ id: code }) => ({ code, ...knownTo(joint(code, code)) }))
    .reduce((worst, each) => (each.sd > worst.sd ? each : worst));
} // prettier-ignore

/** Half axes and direction of the ellipse two axes of a covariance make, one standard deviation, mm and radians. */
export function ellipseOf(covariance: readonly number[], a: number, b: number): { readonly major: number; readonly minor: number; readonly angle: number } {
  const [p, q, r] = [covariance[4 * a]!, covariance[4 * b]!, covariance[3 * a + b]!];
  const mean = (p + q) / 2;
  const half = Math.hypot((p - q) / 2, r);
  return {
    major: Math.sqrt(Math.max(0, mean + half)),
    minor: Math.sqrt(Math.max(0, mean - half)),
    angle: 0.5 * Math.atan2(2 * r, p - q),
  };
} // prettier-ignore
