import { alike } from '../maths/alike';
import { along, spreadBy } from '../maths/linear/gradient';
import type { Symmetric } from '../maths/linear/symmetric';
import { NetState } from './net-state';
import {
  equationsOf,
  linearise,
  newRow,
  observationsOf,
  withObservation,
  type Equations,
  type Observation,
} from './observations';
import { covarianceOf, isLoose, largest, solveNet, type NetSolution, type SolveResult } from './solve';
import { pointIndex, pointsOf, type Survey, type SurveyReading } from './survey';

/** Coordinates within this of the solution need no new covariance, mm. */
const NEAR = 5;
const CONVERGED = 1e-7;
const MOST_STEPS = 12;
/** So many updates of a covariance are trusted. */
const MOST_UPDATES = 20;

/** A reading the others check less than this takes too much of the covariance with it. */
const WELL_CHECKED = 0.02;

/**
 * A solution with one more reading: its covariance is brought up to date by one rank (Sherman and
 * Morrison 1950), and the coordinates follow by steps with that covariance. Where the reading moves the
 * net too far for that, ties in a new point or shares a bias, the net is solved anew from where it stands.
 */
export function addReading(solution: NetSolution, reading: SurveyReading): SolveResult {
  const survey = { ...solution.survey, readings: [...solution.survey.readings, reading] };
  const index = pointIndex(solution.survey);
  if (reading.bias || reading.kind === 'position' || !pointsOf(reading).every((id) => index.has(id)))
    return solveNet(survey, { from: solution.x });
  const observation = observationsOf(reading, index, survey.readings.length - 1)[0]!;
  return reweighted(solution, survey, () => withObservation(solution.equations, observation), observation, 1);
}

/**
 * The solution of a survey that is an earlier one with one reading more, or that one itself; undefined where they differ
 * in anything else.
 */
export function grownBy(earlier: NetSolution, survey: Survey): SolveResult | undefined {
  const { points, readings } = earlier.survey;
  const more = survey.readings.length - readings.length;
  if ((more !== 0 && more !== 1) || points.length !== survey.points.length) return undefined;
  if (!alike(points, survey.points)) return undefined;
  if (more === 0) return alike(readings, survey.readings) ? { ok: true, solution: earlier } : undefined;
  const at = readings.findIndex((reading, i) => reading.id !== survey.readings[i]!.id);
  const place = at < 0 ? readings.length : at;
  const others = survey.readings.filter((_, i) => i !== place);
  return alike(readings, others) ? addReading(earlier, survey.readings[place]!) : undefined;
}

/**
 * A solution without one of its readings, brought down by one rank in the same way. Solved anew where little
 * else checks the reading, where it moves the net far, is a position, or was the only one with its bias.
 */
export function removeReading(solution: NetSolution, r: number): SolveResult {
  const reading = solution.survey.readings[r]!;
  const survey = withoutReading(solution.survey, r);
  const observation = solution.equations.observations.find((each) => each.reading === r)!;
  const simple = reading.kind !== 'position' && biasGroups(survey).join() === biasGroups(solution.survey).join();
  return simple
    ? reweighted(solution, survey, () => equationsOf(survey), observation, -1)
    : solveNet(survey, { from: solution.x });
}

export const withoutReading = (survey: Survey, r: number): Survey => ({
  ...survey,
  readings: survey.readings.filter((_, i) => i !== r),
});

/** The groups of shared biases in the order of their unknowns. */
const biasGroups = ({ readings }: Survey): string[] => [
  ...new Set(
    readings.flatMap((reading) => [
      ...(reading.bias ? [reading.bias.group] : []),
      ...(reading.kind === 'position' && reading.body ? [reading.body.id] : []),
    ]),
  ),
];

/** The solution with an observation put in (`sign` 1) or taken out (−1), which is the difference to `survey`. */
function reweighted(
  solution: NetSolution,
  survey: Survey,
  equationsThen: () => Equations,
  observation: Observation,
  sign: 1 | -1,
): SolveResult {
  const anew = () => solveNet(survey, { from: solution.x });
  const updates = (solution.updates ?? 0) + 1;
  if (updates > MOST_UPDATES) return anew();
  if (solution.kept.some((share) => share < 1)) return anew();
  const before = covarianceOf(solution);
  const row = newRow();
  linearise(solution.equations, observation, solution.x, solution.biases, row);
  const spread = spreadBy(before, row);
  const own = observation.sigma ** 2;
  const scale = own + sign * along(spread, row);
  if (scale < WELL_CHECKED * own) return anew();
  const covariance = before.less([{ u: spread, share: sign / scale }]);
  const equations = equationsThen();
  const kept = new Float64Array(equations.observations.length).fill(1);
  const settled = isLoose(covariance.values, equations) ? undefined : settle(equations, solution, covariance, kept);
  if (!settled) return anew();
  const { x, biases } = settled;
  const changed = { survey, equations, covariance: covariance.values, x, biases, kept, updates };
  return { ok: true, solution: { ...solution, ...changed } };
}

/** Steps x ← x + Q AᵀP(l − f) until nothing moves; undefined where the covariance no longer fits. */
function settle(
  equations: Equations,
  from: Pick<NetSolution, 'x' | 'biases'>,
  covariance: Symmetric,
  kept: Float64Array,
): Pick<NetSolution, 'x' | 'biases'> | undefined {
  const state = new NetState(equations, from.x, kept);
  state.biases.set(from.biases);
  const times = covariance.multiplier();
  let moved = 0;
  for (let step = 0; step < MOST_STEPS; step++) {
    const change = times(state.downhill());
    state.take(state.after(change));
    const most = largest(change);
    moved += most;
    if (moved > NEAR) return undefined;
    if (most < CONVERGED) return state;
  }
  return undefined;
}
