import { inverse, Matrix } from 'ml-matrix';
import {
  apply,
  covariance,
  mapAxes,
  turnCovariance,
  type Covariance,
  type Frame,
  type JointCovariance,
  type Motion,
  type Vector,
} from '../geometry/vector';
import { kernel } from '../linear/kernel';
import type { PairedPoint } from './fit';
import { rigidDesign } from './freedom';

/** A point with its two positions and what the reference can be trusted to. */
export interface UncertainPoint<From extends Frame = 'round', To extends Frame = 'chart'> extends PairedPoint<
  From,
  To
> {
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
 * @param joint   covariance of two measured points, mm²
 * @returns covariances of the deviations by point id
 */
export function deviationCovariances<From extends Frame, To extends Frame>(
  motion: Motion<From, To>,
  control: readonly (UncertainPoint<From, To> & { readonly sigma: number })[],
  judged: readonly UncertainPoint<From, To>[],
  joint: JointCovariance<From>,
): Map<string, Covariance<To>> {
  const rotation = Float64Array.from(motion.rotation.flat());
  const back = transposed(rotation, 3);
  const designs = control.map((point) => flat(design(motion, point.measured)));
  const normal = Matrix.zeros(6, 6);
  control.forEach((point, k) => {
    const columns = transposed(designs[k]!, 3);
    normal.add(Matrix.from1DArray(6, 6, [...times(columns, columns, 3)]).div(point.sigma ** 2));
  });
  const inverted = flat(inverse(normal));
  // Bₖ, 6×3, and Bₖ R.
  const shares = control.map((point, k) => times(inverted, designs[k]!, 6).map((value) => value / point.sigma ** 2));
  const inRound = shares.map((share) => times(share, back, 3));
  const own = new Map(control.map(({ id }, k) => [id, k]));
  /** Σ Bₖ Σₖᵢ: what the fit takes away with the errors of the control points, 6×3. */
  const takenFor = (point: UncertainPoint<From, To>): Float64Array => {
    const sum = new Float64Array(18);
    control.forEach(({ id }, k) => addProduct(sum, inRound[k]!, joint(id, point.id)));
    const taken = times(sum, rotation, 3);
    const k = own.get(point.id);
    if (k !== undefined) shares[k]!.forEach((value, i) => (taken[i]! += value * point.trust));
    return taken;
  };
  const motionCovariance = new Float64Array(36);
  control.forEach((point, k) =>
    times(takenFor(point), shares[k]!, 3).forEach((value, i) => (motionCovariance[i]! += value)),
  );
  return new Map(
    judged.map((point) => {
      const j = flat(design(motion, point.measured));
      const shared = times(j, transposed(takenFor(point), 6), 6);
      const alone = turnCovariance(motion, joint(point.id, point.id));
      const fitted = times(times(j, motionCovariance, 6), j, 6);
      const whole = alone.map(
        (value, i) =>
          value + (i % 4 === 0 ? point.trust : 0) - shared[i]! - shared[3 * (i % 3) + Math.floor(i / 3)]! + fitted[i]!,
      );
      return [point.id, covariance<To>(whole)];
    }),
  );
}

/** A Bᵀ of row-major arrays whose rows have so many elements. */
const times = kernel.product;

const flat = (matrix: Matrix): Float64Array => Float64Array.from(matrix.to1DArray());

/** Rows become columns. */
function transposed(values: Float64Array, rows: number): Float64Array {
  const columns = values.length / rows;
  const result = new Float64Array(values.length);
  for (let i = 0; i < rows; i++) for (let k = 0; k < columns; k++) result[k * rows + i] = values[i * columns + k]!;
  return result;
}

/** A deviation as it hangs on the coordinates measured and on what its references are trusted to. */
export interface DeviationGradient {
  /** What a millimetre of each point's coordinates, along the axes it was measured in, does to it. */
  readonly terms: readonly { readonly id: string; readonly by: Vector }[];
  /** Variance that no measuring takes away: the references' own, mm². */
  readonly trust: number;
}

/** How one component of a point's deviation hangs on everything measured, the alignment in it. */
export function deviationGradient<From extends Frame, To extends Frame>(
  motion: Motion<From, To>,
  control: readonly (UncertainPoint<From, To> & { readonly sigma: number })[],
  point: UncertainPoint<From, To>,
  axis: 0 | 1 | 2,
): DeviationGradient {
  const designs = control.map(({ measured }) => design(motion, measured));
  const normal = Matrix.zeros(6, 6);
  control.forEach(({ sigma }, k) =>
    normal.add(
      designs[k]!.transpose()
        .mmul(designs[k]!)
        .div(sigma ** 2),
    ),
  );
  const carried = design(motion, point.measured).getRowVector(axis).mmul(inverse(normal));
  const unit = mapAxes((k) => (k === axis ? 1 : 0));
  const taken = control.map(({ id, sigma, trust }, k) => {
    const share = carried
      .mmul(designs[k]!.transpose())
      .div(-(sigma ** 2))
      .to1DArray();
    const own = id === point.id ? unit : [0, 0, 0];
    return { id, trust, by: mapAxes((i) => share[i]! + own[i]!) };
  });
  const alone = control.some(({ id }) => id === point.id) ? [] : [{ id: point.id, trust: point.trust, by: unit }];
  const all = [...alone, ...taken];
  const { rotation } = motion;
  return {
    terms: all.map(({ id, by }) => ({
      id,
      by: mapAxes((k) => rotation[0][k] * by[0] + rotation[1][k] * by[1] + rotation[2][k] * by[2]),
    })),
    trust: all.reduce((sum, { trust, by }) => sum + trust * (by[0] ** 2 + by[1] ** 2 + by[2] ** 2), 0),
  };
}

/** Adds a 6×3 matrix times a 3×3 one, both row major. */
function addProduct(sum: Float64Array, a: Float64Array, b: readonly number[]): void {
  for (let i = 0; i < 6; i++)
    for (let k = 0; k < 3; k++)
      sum[3 * i + k]! += a[3 * i]! * b[k]! + a[3 * i + 1]! * b[3 + k]! + a[3 * i + 2]! * b[6 + k]!;
}

const design = ({ rotation }: Pick<Motion<Frame, Frame>, 'rotation'>, measured: Vector): Matrix =>
  rigidDesign(apply(rotation, measured));

/** Standard deviations along the axes of a covariance, never below zero. */
export const axisDeviations = (block: Covariance<Frame> | readonly number[]): Vector =>
  mapAxes((i) => Math.sqrt(Math.max(0, block[4 * i]!)));
