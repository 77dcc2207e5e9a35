import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import type { RoundNet } from './net';
import { jointOf } from '../../survey/prediction';

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

/** The point of a solved round that is known worst, by its identity. */
export function worstKnown({ solution }: RoundNet): (KnownTo & { readonly pointId: string }) | undefined {
  if (!solution) return undefined;
  const joint = jointOf<'round'>(solution);
  return joint.ids
    .map((pointId) => ({ pointId, ...knownTo(joint.block(pointId)) }))
    .reduce((worst, each) => (each.sd > worst.sd ? each : worst));
}
