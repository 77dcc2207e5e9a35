import { observationsOf, linearise, newRow, type Observation } from './observations';
import { quadratic } from './reliability';
import type { NetSolution } from './solve';
import { pointIndex, type SurveyReading } from './survey';

/** What a net says a reading should be. */
export interface Prediction {
  readonly value: number;
  /** Of the predicted value alone, mm²; the reading's own spread is not in it. */
  readonly variance: number;
}

/**
 * The value of a reading computed from a net it need not belong to, with the uncertainty the joint
 * covariance gives it. One component for a position.
 */
export function predict(solution: NetSolution, reading: SurveyReading, axis = 0): Prediction {
  const observations = observationsOf(reading, pointIndex(solution.survey));
  return predictObservation(solution, observations[reading.kind === 'position' ? axis : 0]!);
}

export function predictObservation(solution: NetSolution, observation: Observation): Prediction {
  const row = newRow();
  linearise(solution.equations, { ...observation, bias: -1 }, solution.x, solution.biases, row);
  return { value: row.value, variance: Math.max(0, quadratic(solution, row)) };
}

/** Covariance of two points' coordinates, 3×3 row major, mm²; zero for a fixed one. */
export function covarianceBlock(solution: NetSolution, a: number, b: number): number[] {
  const { covariance, equations } = solution;
  const [p, q] = [equations.column[a]!, equations.column[b]!];
  if (p < 0 || q < 0) return [0, 0, 0, 0, 0, 0, 0, 0, 0];
  const { unknowns } = equations;
  // Asked for every pair of points, so written out.
  const i = p * unknowns + q;
  const j = i + unknowns;
  const k = j + unknowns;
  return [
    covariance[i]!,
    covariance[i + 1]!,
    covariance[i + 2]!,
    covariance[j]!,
    covariance[j + 1]!,
    covariance[j + 2]!,
    covariance[k]!,
    covariance[k + 1]!,
    covariance[k + 2]!,
  ];
}
