import { Room } from '../maths/linear/room';
import { SymmetricFactor } from '../maths/linear/symmetric';
import { loosePoints, type LoosePoint } from './loose';
import { equationsOf, linearise, newRow, type Equations } from './observations';
import { startOf } from './solve';
import type { Survey } from './survey';

/** As in `solveNet`: a direction that nothing holds gets a standard deviation of 316 mm. */
export const LOOSE_WEIGHT = 1e-5;

/** What the readings of a net say where its points start. */
export interface LooseNet {
  readonly equations: Equations;
  readonly covariance: Float64Array;
  /** Starting coordinates, three each, mm. */
  readonly x: Float64Array;
}

/** Covariance of all unknowns at the starting coordinates, loose directions kept finite. */
export function looseCovarianceAtStart(survey: Survey): LooseNet {
  const equations = equationsOf(survey);
  const { unknowns, observations, biasSigmas, coordinates } = equations;
  const normal = new Float64Array(unknowns * unknowns);
  const [x, biases, row] = [startOf(survey), new Float64Array(biasSigmas.length), newRow()];
  for (const observation of observations) {
    linearise(equations, observation, x, biases, row);
    for (let p = 0; p < row.count; p++)
      for (let q = 0; q < row.count; q++)
        normal[row.columns[p]! * unknowns + row.columns[q]!]! +=
          (row.coefficients[p]! * row.coefficients[q]!) / observation.sigma ** 2;
  }
  biasSigmas.forEach((sigma, i) => (normal[(coordinates + i) * (unknowns + 1)]! += 1 / sigma ** 2));
  return { equations, x, covariance: inverseOfLoose(normal, unknowns) };
}

const HELD = new Room();

/**
 * The inverse with a little added to the diagonal; more of it where readings of absurd precision stand beside directions that
 * nothing holds, so that rounding alone makes the matrix indefinite.
 */
function inverseOfLoose(normal: Float64Array, unknowns: number): Float64Array {
  for (let weight = LOOSE_WEIGHT; weight < Infinity; weight *= 100) {
    const held = HELD.copyOf(normal);
    for (let i = 0; i < unknowns; i++) held[i * (unknowns + 1)]! += weight;
    const factor = SymmetricFactor.of(held, unknowns);
    if (factor) return factor.inverse().values;
  }
  throw new Error('a net with a figure that is no number');
}

/** What points are short of at the starting coordinates. */
export function allLoose(survey: Survey, looseSd: number): LoosePoint[] {
  if (survey.points.every((point) => point.hold === 'fixed')) return [];
  const { equations, covariance } = looseCovarianceAtStart(survey);
  return loosePoints(survey, equations, covariance, looseSd);
}
