import { along, spreadBy } from '../maths/linear/gradient';
import { equationsOf, linearise, newRow, observationsOf, type Observation } from './observations';
import { covarianceOf, isLoose, solveNet, type NetSolution, type SolveResult } from './solve';
import { pointIndex, pointsOf, type Survey, type SurveyReading } from './survey';

/** Coordinates within this of the solution need no new covariance, mm. */
const NEAR = 5;
const CONVERGED = 1e-7;
const MOST_STEPS = 12;

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
  return reweighted(solution, survey, observationsOf(reading, index)[0]!, 1);
}

/**
 * A solution without one of its readings, brought down by one rank in the same way. Solved anew where little
 * else checks the reading, where it moves the net far, is a position, or was the only one with its bias.
 */
export function removeReading(solution: NetSolution, r: number): SolveResult {
  const reading = solution.survey.readings[r]!;
  const survey = { ...solution.survey, readings: solution.survey.readings.filter((_, i) => i !== r) };
  const observation = solution.equations.observations.find((each) => each.reading === r)!;
  const simple = reading.kind !== 'position' && biasGroups(survey).join() === biasGroups(solution.survey).join();
  return simple ? reweighted(solution, survey, observation, -1) : solveNet(survey, { from: solution.x });
}

/** The groups of shared biases in the order of their unknowns. */
const biasGroups = ({ readings }: Survey): string[] => [
  ...new Set(readings.flatMap(({ bias }) => (bias ? [bias.group] : []))),
];

/** The solution with an observation put in (`sign` 1) or taken out (−1), which is the difference to `survey`. */
function reweighted(solution: NetSolution, survey: Survey, observation: Observation, sign: 1 | -1): SolveResult {
  const anew = () => solveNet(survey, { from: solution.x });
  if (solution.kept.some((share) => share < 1)) return anew();
  const equations = equationsOf(survey);
  const covariance = covarianceOf(solution).copy();
  const x = solution.x.slice();
  const biases = solution.biases.slice();
  const row = newRow();
  linearise(solution.equations, observation, x, biases, row);
  const spread = spreadBy(covariance, row);
  const own = observation.sigma ** 2;
  const scale = own + sign * along(spread, row);
  if (scale < WELL_CHECKED * own) return anew();
  covariance.less([{ u: spread, share: sign / scale }]);
  const kept = new Float64Array(equations.observations.length).fill(1);
  const next: NetSolution = { ...solution, survey, equations, covariance: covariance.values, x, biases, kept };
  return !isLoose(covariance.values, equations) && settle(next) ? { ok: true, solution: next } : anew();
}

/** Steps x ← x + Q AᵀP(l − f) until nothing moves; false where the covariance no longer fits. */
function settle(solution: NetSolution): boolean {
  const { equations, x, biases } = solution;
  const whole = covarianceOf(solution);
  const { unknowns, column, observations, coordinates, biasSigmas } = equations;
  const row = newRow();
  let moved = 0;
  for (let step = 0; step < MOST_STEPS; step++) {
    const right = new Float64Array(unknowns);
    for (const observation of observations) {
      linearise(equations, observation, x, biases, row);
      const weighted = (observation.observed - row.value) / observation.sigma ** 2;
      for (let p = 0; p < row.count; p++) right[row.columns[p]!]! += weighted * row.coefficients[p]!;
    }
    biasSigmas.forEach((sigma, i) => (right[coordinates + i]! -= biases[i]! / sigma ** 2));
    const change = whole.times(right);
    const most = change.reduce((all, each) => Math.max(all, Math.abs(each)), 0);
    column.forEach((first, point) => {
      if (first < 0) return;
      for (let axis = 0; axis < 3; axis++) x[3 * point + axis]! += change[first + axis]!;
    });
    biases.forEach((_, i) => (biases[i]! += change[coordinates + i]!));
    moved += most;
    if (moved > NEAR) return false;
    if (most < CONVERGED) return true;
  }
  return false;
}
