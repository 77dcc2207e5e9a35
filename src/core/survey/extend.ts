import { equationsOf, linearise, newRow } from './observations';
import { solveNet, type NetSolution, type SolveResult } from './solve';
import { pointsOf, type SurveyReading } from './survey';

/** Coordinates within this of the solution need no new covariance, mm. */
const NEAR = 5;
const CONVERGED = 1e-7;
const MOST_STEPS = 12;

/**
 * A solution with one more reading: its covariance is brought up to date by one rank (Sherman and
 * Morrison 1950), and the coordinates follow by steps with that covariance. Where the reading moves the
 * net too far for that, ties in a new point or shares a bias, the net is solved anew from where it stands.
 */
export function addReading(solution: NetSolution, reading: SurveyReading): SolveResult {
  const survey = { ...solution.survey, readings: [...solution.survey.readings, reading] };
  const anew = () => solveNet(survey, { from: solution.x });
  const known = new Set(solution.survey.points.map(({ id }) => id));
  if (reading.bias || reading.kind === 'position' || !pointsOf(reading).every((id) => known.has(id))) return anew();
  const equations = equationsOf(survey);
  const { unknowns } = equations;
  const observation = equations.observations.find((each) => each.reading === survey.readings.length - 1)!;
  const covariance = Float64Array.from(solution.covariance);
  const x = Float64Array.from(solution.x);
  const row = newRow();
  linearise(equations, observation, x, solution.biases, row);
  const spread = new Float64Array(unknowns);
  for (let p = 0; p < row.count; p++)
    for (let c = 0; c < unknowns; c++) spread[c]! += row.coefficients[p]! * covariance[row.columns[p]! * unknowns + c]!;
  let scale = observation.sigma ** 2;
  for (let p = 0; p < row.count; p++) scale += row.coefficients[p]! * spread[row.columns[p]!]!;
  for (let i = 0; i < unknowns; i++) {
    const share = spread[i]! / scale;
    if (share === 0) continue;
    for (let j = 0; j < unknowns; j++) covariance[i * unknowns + j]! -= share * spread[j]!;
  }
  const extended: NetSolution = {
    ...solution,
    survey,
    equations,
    covariance,
    x,
    kept: new Float64Array(equations.observations.length).fill(1),
  };
  return settle(extended) ? { ok: true, solution: extended } : anew();
}

/** Steps x ← x + Q AᵀP(l − f) until nothing moves; false where the covariance no longer fits. */
function settle({ equations, covariance, x, biases }: NetSolution): boolean {
  const { unknowns, column, observations } = equations;
  const row = newRow();
  let moved = 0;
  for (let step = 0; step < MOST_STEPS; step++) {
    const right = new Float64Array(unknowns);
    for (const observation of observations) {
      linearise(equations, observation, x, biases, row);
      const weighted = (observation.observed - row.value) / observation.sigma ** 2;
      for (let p = 0; p < row.count; p++) right[row.columns[p]!]! += weighted * row.coefficients[p]!;
    }
    let most = 0;
    column.forEach((first, point) => {
      if (first < 0) return;
      for (let axis = 0; axis < 3; axis++) {
        const start = (first + axis) * unknowns;
        let change = 0;
        for (let c = 0; c < unknowns; c++) change += covariance[start + c]! * right[c]!;
        x[3 * point + axis]! += change;
        most = Math.max(most, Math.abs(change));
      }
    });
    moved += most;
    if (moved > NEAR) return false;
    if (most < CONVERGED) return true;
  }
  return false;
}
