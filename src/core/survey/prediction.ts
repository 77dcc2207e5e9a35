import type { Frame } from '../maths/geometry/vector';
import { varianceAlong } from '../maths/linear/gradient';
import { Joint } from '../maths/linear/joint';
import { observationsOf, linearise, newRow, type Observation } from './observations';
import { covarianceOf, type NetSolution } from './solve';
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
  const body = reading.kind === 'position' ? reading.body?.id : undefined;
  const on = solution.equations.bodies.find(({ id }) => id === body);
  const observations = observationsOf(reading, pointIndex(solution.survey), -1, -1, on);
  return predictObservation(solution, observations[reading.kind === 'position' ? axis : 0]!);
}

export function predictObservation(solution: NetSolution, observation: Observation): Prediction {
  const row = newRow();
  linearise(solution.equations, { ...observation, bias: -1 }, solution.x, solution.biases, row);
  return { value: row.value, variance: Math.max(0, varianceAlong(covarianceOf(solution), row)) };
}

/** The joint covariance of a net's points; asked for often, so kept with the solution. */
export function jointOf<F extends Frame>(solution: NetSolution): Joint<F> {
  const known = JOINTS.get(solution);
  if (known) return known as unknown as Joint<F>;
  const ids = solution.survey.points.map(({ id }) => id);
  const joint = Joint.of<F>(ids, solution.equations.column, covarianceOf(solution));
  JOINTS.set(solution, joint as unknown as Joint<Frame>);
  return joint;
}

const JOINTS = new WeakMap<NetSolution, Joint<Frame>>();
