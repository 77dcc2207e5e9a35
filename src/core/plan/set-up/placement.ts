import { inverse, Matrix } from 'ml-matrix';
import {
  apply,
  scale,
  subtract,
  type Matrix3,
  type Motion,
  type Position,
  type Vector,
} from '../../maths/geometry/vector';
import { rigidDesign } from '../../maths/rigid/freedom';
import type { Measured } from './level';

/** How the chart's axes stand on the bench: where its zero is, mm, and how it is turned about X, Y and Z, degrees. */
export interface Placement {
  readonly at: readonly [Measured, Measured, Measured];
  readonly turned: readonly [Measured, Measured, Measured];
}

/**
 * A placement that was found, along the bench's own axes. A round reads from planes of its own: the bench's, or the chart's laid
 * down on the bench as it was planned; each figure is taken for what it is nearer to.
 *
 * @param planned where the chart's zero was meant to stand on the bench, mm
 */
export const alongBench = ({ at, turned }: Placement, planned: Vector): Placement => ({
  at: at.map(({ value, uncertainty }, k) => {
    const fromBench = Math.abs(value - planned[k]!) <= Math.abs(value);
    return { value: fromBench ? value : planned[k]! + value, uncertainty };
  }) as unknown as Placement['at'],
  turned,
});

const transposed = (m: Matrix3): Matrix3 => [0, 1, 2].map((r) => [m[0][r]!, m[1][r]!, m[2][r]!]) as unknown as Matrix3;
const DEGREES = 180 / Math.PI;

/**
 * The placement that an alignment has found: the way back from the chart into the round's own axes, its turns read as
 * R = Rz·Ry·Rx. Its uncertainty is that of a small motion fitted on the control points, (Σ JᵀJ/σ²)⁻¹, carried to the
 * chart's zero.
 *
 * @param motion  from the round's axes into the chart's
 * @param control the points fitted on, with one standard deviation of each axis, mm
 */
export function fittedPlacement(
  motion: Motion<'round', 'chart'>,
  control: readonly { readonly measured: Position<'round'>; readonly sigma: number }[],
): Placement {
  const back = transposed(motion.rotation);
  const zero = scale(apply(back, motion.translation), -1) as Vector;
  const normal = Matrix.zeros(6, 6);
  for (const { measured, sigma } of control) {
    const design = rigidDesign(subtract(measured, zero));
    normal.add(
      design
        .transpose()
        .mmul(design)
        .div(sigma ** 2),
    );
  }
  const covariance = inverse(normal);
  const of = (value: number, k: number, unit: number): Measured => ({
    value,
    uncertainty: 2 * unit * Math.sqrt(Math.max(0, covariance.get(k, k))),
  });
  const turns = [
    Math.atan2(back[2][1], back[2][2]),
    -Math.asin(Math.max(-1, Math.min(1, back[2][0]))),
    Math.atan2(back[1][0], back[0][0]),
  ];
  return {
    at: [of(zero[0], 0, 1), of(zero[1], 1, 1), of(zero[2], 2, 1)],
    // The design counts turns in thousandths of a radian.
    turned: turns.map((turn, k) => of(turn * DEGREES, 3 + k, DEGREES / 1000)) as unknown as Placement['turned'],
  };
}
