import { along, spreadBy, varianceAlong } from '../maths/linear/gradient';
import type { Symmetric } from '../maths/linear/symmetric';
import { linearise, newRow } from '../survey/observations';
import { checkObservations, PRACTICALLY_UNCHECKED } from '../survey/reliability';
import { covarianceOf, solveNet, type NetSolution } from '../survey/solve';
import type { WalkPoint, WalkStep } from './walk-step';

/**
 * Leaves out, from the last to the first, every length that the others make unnecessary: without it each
 * reading is still checked and no point known worse than before the pruning or than ±4 mm.
 */
export function pruneWalk(steps: readonly WalkStep[], points: readonly WalkPoint[], keep: number): readonly WalkStep[] {
  const solution = solutionOf(steps, points);
  if (!solution) return steps;
  const { equations, x } = solution;
  const { observations } = equations;
  let covariance = covarianceOf(solution).copy();
  const rows = observations.map((observation) => {
    const row = newRow();
    linearise(equations, observation, x, solution.biases, row);
    return row;
  });
  const left = new Set(steps.map((_, i) => i));
  const worst = Math.max(WORST_SD, Math.sqrt(largestVariance(covariance)));
  for (let i = steps.length - 1; i >= keep; i--) {
    if (steps[i]!.reading.kind !== 'distance') continue;
    const spread = spreadBy(covariance, rows[i]!);
    const free = observations[i]!.sigma ** 2 - along(spread, rows[i]!);
    if (free < 0.2 * observations[i]!.sigma ** 2) continue;
    const without = covariance.less([{ u: spread, share: -1 / free }]);
    if (Math.sqrt(largestVariance(without)) > worst) continue;
    const checked = [...left].every((j) => {
      if (j === i || steps[j]!.reading.kind !== 'distance') return true;
      const sigma = observations[j]!.sigma;
      return 1 - varianceAlong(without, rows[j]!) / sigma ** 2 >= SOUNDLY_CHECKED;
    });
    if (!checked) continue;
    covariance = without;
    left.delete(i);
  }
  return steps.filter((_, i) => left.has(i));
}

/** No point of a pruned walk is known worse than this, one standard deviation, mm. */
const WORST_SD = 2;
/** Every length of a pruned walk keeps at least this redundancy. */
const SOUNDLY_CHECKED = 0.08;

function largestVariance({ size, values }: Symmetric): number {
  let most = 0;
  for (let i = 0; i < size; i++) most = Math.max(most, values[i * (size + 1)]!);
  return most;
}

/** What is practically unchecked is read again. */
export function secondReadings(steps: readonly WalkStep[], points: readonly WalkPoint[]): WalkStep[] {
  const solution = solutionOf(steps, points);
  if (!solution) return [];
  return checkObservations(solution).flatMap((check): WalkStep[] => {
    if (check.redundancy >= PRACTICALLY_UNCHECKED) return [];
    const step = steps[check.observation.reading]!;
    return [{ ...step, why: 'again', reading: { ...step.reading, id: `${step.reading.id} again` } }];
  });
}

function solutionOf(steps: readonly WalkStep[], points: readonly WalkPoint[]): NetSolution | undefined {
  const result = solveNet({
    points: points.map((point) => ({ id: point.id, start: point.position })),
    readings: steps.map(({ reading }) => reading),
  });
  return result.ok ? result.solution : undefined;
}
