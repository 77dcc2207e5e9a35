import { equationsOf, linearise, newRow, type Observation } from './observations';
import { quadratic } from './reliability';
import type { NetSolution } from './solve';
import type { SurveyReading } from './survey';

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
  const { bias: _, ...alone } = reading;
  const points = solution.survey.points;
  const observations = equationsOf({ points, readings: [alone as SurveyReading] }).observations;
  return predictObservation(solution, observations[alone.kind === 'position' ? axis : 0]!);
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
  return Array.from({ length: 9 }, (_, k) =>
    p < 0 || q < 0 ? 0 : covariance[(p + Math.floor(k / 3)) * equations.unknowns + q + (k % 3)]!,
  );
}
