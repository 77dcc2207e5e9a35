import { Matrix } from 'ml-matrix';
import { factorise, type Factor } from '../survey/cholesky';
import { share, shareSlope, type Hinge, type PatternPoint } from './sections';

/**
 * What a metalworker calls the movement of a section. The two sides' mean along, across and up; and their
 * difference, right minus left: of length (diamond), of width (spread), of height (twist).
 */
export const COMPONENTS = ['mash', 'sway', 'sag', 'diamond', 'spread', 'twist'] as const;
export type Component = (typeof COMPONENTS)[number];

const AXIS: Readonly<Record<Component, number>> = { mash: 0, sway: 1, sag: 2, diamond: 0, spread: 1, twist: 2 }; // prettier-ignore
const SIDE = { left: -0.5, centre: 0, right: 0.5 } as const;

/** The components a hinge's points can show: with one side only, means and differences are one. */
export function visibleComponents(hinge: Hinge, points: readonly PatternPoint[]): readonly Component[] {
  const sides = new Set(points.filter(({ at }) => share(hinge, at[0]) > 0.02).map(({ side }) => side));
  return sides.has('left') && sides.has('right') ? COMPONENTS : COMPONENTS.slice(0, 3);
} // prettier-ignore

/** Movement of every coordinate per millimetre of each component, 3n × components. */
export function designOf(hinge: Hinge, points: readonly PatternPoint[], components: readonly Component[]): Matrix {
  const design = Matrix.zeros(3 * points.length, components.length);
  points.forEach(({ at, side }, i) => {
    const part = share(hinge, at[0]);
    if (part === 0) return;
    components.forEach((component, c) => {
      const isMean = component === 'mash' || component === 'sway' || component === 'sag';
      design.set(3 * i + AXIS[component], c, part * (isMean ? 1 : SIDE[side]));
    });
  });
  return design;
} // prettier-ignore

/** The further column that says how the movement changes when the hinge goes along the shell, per mm. */
export function hingeColumn(hinge: Hinge, points: readonly PatternPoint[], components: readonly Component[], amounts: readonly number[]): Matrix {
  const column = Matrix.zeros(3 * points.length, 1);
  points.forEach(({ at, side }, i) => {
    const slope = shareSlope(hinge, at[0]);
    components.forEach((component, c) => {
      const isMean = component === 'mash' || component === 'sway' || component === 'sag';
      const row = 3 * i + AXIS[component];
      column.set(row, 0, column.get(row, 0) + slope * amounts[c]! * (isMean ? 1 : SIDE[side]));
    });
  });
  return column;
} // prettier-ignore

/**
 * Deviations made independent and of variance one: z = L⁻¹ d with Σ = L Lᵀ. Least squares with Σ becomes
 * plain least squares.
 */
export class Whitened {
  private readonly factor: Factor;

  /** @param covariance definite, 3n×3n, mm² */
  constructor(covariance: Matrix) {
    const factor = factorise(Float64Array.from(covariance.to1DArray()), covariance.rows);
    if (!factor) throw new Error('the covariance of the deviations is not definite');
    this.factor = factor;
  }

  /** L⁻¹ b by forward substitution, from the first entry of b that is not zero. */
  column(b: ArrayLike<number>): Float64Array {
    const { lower, size } = this.factor;
    const z = Float64Array.from(b);
    const first = z.findIndex((value) => value !== 0);
    if (first < 0) return z;
    for (let i = first; i < size; i++) {
      let sum = z[i]!;
      for (let j = first; j < i; j++) sum -= lower[i * size + j]! * z[j]!;
      z[i] = sum / lower[i * size + i]!;
    }
    return z;
  }

  /** The columns of a matrix, each made independent. */
  columns(matrix: Matrix): Float64Array[] {
    return Array.from({ length: matrix.columns }, (_, k) => this.column(matrix.getColumn(k)));
  }
}
