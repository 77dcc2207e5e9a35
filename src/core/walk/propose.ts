import type { Vector } from '../maths/geometry/vector';
import { along, gradientOf, spreadBy, varianceAlong, type Gradient } from '../maths/linear/gradient';
import { COVERAGE } from '../maths/statistics/verdict';
import { linearise, newRow, observationsOf, type Row } from '../survey/observations';
import { uncheckedPoints } from '../survey/reliability';
import { covarianceOf, type NetSolution } from '../survey/solve';
import { pointIndex, pointsOf, type SurveyReading } from '../survey/survey';

/** Something whose uncertainty is to fall: a point on its worst axis, a length, or any sum of coordinates. */
export type Wanted = { readonly plusMinus?: number } & (
  | { readonly kind: 'point'; readonly point: string }
  | { readonly kind: 'pair'; readonly from: string; readonly to: string; readonly measure: 'distance' | 'plan' }
  | { readonly kind: 'sum'; readonly terms: readonly { readonly id: string; readonly by: Vector }[] }
);

/** A reading worth taking. */
export interface HelpfulReading {
  readonly reading: SurveyReading;
  /** Worst ± of all that is wanted before and after it, two standard deviations, mm. */
  readonly before: number;
  readonly after: number;
  /** Points that nothing checked before and that it checks. */
  readonly checks: readonly string[];
}

/** What a wanted uncertainty counts against where nothing was said, mm. */
const USUAL_PLUS_MINUS = 2;
/** What a point that becomes checked counts beside what becomes surer. */
const CHECKED_POINT = 0.15;

/**
 * The next readings in the order of their use: each in turn brings down most the worst of the wanted
 * uncertainties, relative to what is wanted, points nothing checks counting too. After each the
 * covariance is brought up to date (Sherman and Morrison 1950), so that the list is a plan and not a
 * ranking.
 *
 * @param candidates readings that could be taken, with the spread of the instrument at hand; their
 *   values do not matter
 * @param checking   whether points that nothing checks count too
 */
export function proposeNext(
  solution: NetSolution,
  candidates: readonly SurveyReading[],
  wanted: readonly Wanted[],
  count: number,
  checking = true,
): HelpfulReading[] {
  const goals = goalsOf(solution, wanted);
  if (goals.length === 0) return [];
  const rows = gradients(solution, candidates);
  const covariance = covarianceOf(solution).copy();
  const unchecked = new Set(checking ? uncheckedPoints(solution) : []);
  const taken = new Set<number>();
  const proposals: HelpfulReading[] = [];
  // Q gᵀ of every goal, kept up to date: what a reading does for a goal is then a few products.
  const spreads = goals.map(({ row }) => spreadBy(covariance, row));
  let variances = goals.map(({ row }, g) => along(spreads[g]!, row));
  while (proposals.length < count && taken.size < candidates.length) {
    let best: { index: number; score: number; variances: number[] } | undefined;
    for (const [index, row] of rows.entries()) {
      if (!row || taken.has(index)) continue;
      const candidate = candidates[index]!;
      const scale = sigmaOf(candidate) ** 2 + varianceAlong(covariance, row);
      const after = variances.map((variance, g) => Math.max(0, variance - along(spreads[g]!, row) ** 2 / scale));
      const gained = pointsOf(candidate).filter((id) => unchecked.has(id)).length;
      const score = usefulness(goals, variances, after) + CHECKED_POINT * gained;
      if (!best || score > best.score) best = { index, score, variances: after };
    }
    if (!best || best.score < 1e-4) break;
    const reading = candidates[best.index]!;
    const row = rows[best.index]!;
    const spread = spreadBy(covariance, row);
    const scale = sigmaOf(reading) ** 2 + along(spread, row);
    for (const own of spreads) {
      const share = along(own, row) / scale;
      for (let i = 0; i < own.length; i++) own[i]! -= share * spread[i]!;
    }
    covariance.lessen([{ u: spread, share: 1 / scale }]);
    const checks = pointsOf(reading).filter((id) => unchecked.delete(id));
    proposals.push({ reading, before: worst(goals, variances), after: worst(goals, best.variances), checks });
    variances = best.variances;
    taken.add(best.index);
  }
  return proposals;
}

/** The standard deviation a net gives something wanted, its worst axis for a point, mm; undefined where it is not in it. */
export function wantedSd(solution: NetSolution, wanted: Wanted): number | undefined {
  const goals = goalsOf(solution, [wanted]);
  if (goals.length === 0) return undefined;
  const covariance = covarianceOf(solution);
  return Math.sqrt(Math.max(0, ...goals.map(({ row }) => varianceAlong(covariance, row))));
}

interface Goal {
  readonly row: Gradient;
  readonly target: number;
}

function goalsOf(solution: NetSolution, wanted: readonly Wanted[]): Goal[] {
  const { survey, equations } = solution;
  const index = pointIndex(survey);
  const column = (id: string) => equations.column[index.get(id) ?? -1] ?? -1;
  return wanted.flatMap((each): Goal[] => {
    const target = (each.plusMinus ?? USUAL_PLUS_MINUS) / COVERAGE;
    if (each.kind === 'pair') {
      if (!index.has(each.from) || !index.has(each.to)) return [];
      const reading = { id: '', kind: each.measure, from: each.from, to: each.to, value: 1, sigma: 1 } as const;
      const [row] = gradients(solution, [reading]);
      return row ? [{ row, target }] : [];
    }
    if (each.kind === 'sum') {
      if (!each.terms.every(({ id }) => index.has(id))) return [];
      const entries = each.terms.flatMap(({ id, by }) => (column(id) < 0 ? [] : by.map((b, i) => [column(id) + i, b])));
      return [{ row: gradientOf(entries as [number, number][]), target }];
    }
    const first = column(each.point);
    return first < 0 ? [] : [0, 1, 2].map((axis) => ({ row: gradientOf([[first + axis, 1]]), target }));
  });
}

/** The gradients of readings at the solution; undefined where a point is not in it. */
function gradients(solution: NetSolution, readings: readonly SurveyReading[]): (Row | undefined)[] {
  const index = pointIndex(solution.survey);
  return readings.map((reading) => {
    if (reading.kind === 'position' || !pointsOf(reading).every((id) => index.has(id))) return undefined;
    const row = newRow();
    linearise(solution.equations, observationsOf(reading, index)[0]!, solution.x, solution.biases, row);
    return row;
  });
}

const sigmaOf = (reading: SurveyReading): number => (reading.kind === 'position' ? 1 : reading.sigma);

/** Fall of the worst wanted uncertainty against its target, with a little of the mean's to break ties. */
function usefulness(goals: readonly Goal[], before: readonly number[], after: readonly number[]): number {
  const ratio = (variances: readonly number[]) => {
    let [most, sum] = [0, 0];
    goals.forEach((goal, g) => {
      const each = Math.sqrt(variances[g]!) / goal.target;
      most = Math.max(most, each);
      sum += each;
    });
    return most + (0.5 * sum) / goals.length;
  };
  return ratio(before) - ratio(after);
}

/** Two standard deviations of the goal that is worst against its target, mm. */
function worst(goals: readonly Goal[], variances: readonly number[]): number {
  const g = goals.reduce(
    (best, goal, i) => (variances[i]! / goal.target ** 2 > variances[best]! / goals[best]!.target ** 2 ? i : best),
    0,
  );
  return COVERAGE * Math.sqrt(variances[g]!);
}
