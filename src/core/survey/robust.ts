import { checkObservations, type ObservationCheck } from './reliability';
import { solveNet, type SolveResult } from './solve';
import type { Survey } from './survey';

/** Beyond this many of its own standard deviations an observation loses weight. */
const TOLERATED = 3;
const FIRST_ROUNDS = 6;
const MOST_ROUNDS = 30;

/**
 * Robust solution: iteratively reweighted least squares, begun with the weights of least absolute
 * deviations so that several gross errors cannot hide behind each other, ended with those of the
 * Danish method (Krarup, Juhl and Kubik 1980) on the studentised deleted residual t:
 * weight · exp(1 − (t/3)²) where |t| > 3. Observations that nothing checks keep their weight.
 */
export function solveRobustly(survey: Survey): SolveResult {
  let result = solveNet(survey);
  if (!result.ok) return result;
  for (let round = 1; round <= MOST_ROUNDS; round++) {
    const { solution } = result;
    const checks = checkObservations(solution);
    const kept = Float64Array.from(checks, (check, i) =>
      round <= FIRST_ROUNDS ? leastAbsolute(check) : danish(deletedResidual(check, solution.kept[i]!)),
    );
    const change = kept.reduce((most, k, i) => Math.max(most, Math.abs(k - solution.kept[i]!)), 0);
    if (round > FIRST_ROUNDS + 1 && change < 1e-6) break;
    const next = solveNet(survey, { from: solution.x, fromBiases: solution.biases, kept });
    // Weights so low that a point comes loose say nothing: the last sound solution stands.
    if (!next.ok) return result;
    result = next;
  }
  return result;
}

const leastAbsolute = ({ residual, redundancy, observation }: ObservationCheck): number =>
  redundancy < 0.01 ? 1 : 1 / Math.max(1, Math.abs(residual) / observation.sigma);

const danish = (t: number): number =>
  Math.abs(t) <= TOLERATED ? 1 : Math.max(Math.exp(1 - (t / TOLERATED) ** 2), 1e-12);

/**
 * The residual the observation would have if it did not take part, by its standard deviation:
 * t = v (r + f (1 − r)) / (√r σ), f the share of its weight it kept.
 */
function deletedResidual({ residual, redundancy, observation }: ObservationCheck, kept: number): number {
  if (redundancy < 0.01) return 0;
  return (residual * (redundancy + kept * (1 - redundancy))) / (Math.sqrt(redundancy) * observation.sigma);
}
