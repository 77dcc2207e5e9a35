import { linearise, newRow, observationsOf, type Row } from '../survey/observations';
import { quadratic, uncheckedPoints } from '../survey/reliability';
import type { NetSolution } from '../survey/solve';
import { pointIndex, pointsOf, type SurveyReading } from '../survey/survey';

/** Something whose uncertainty is to fall: a point on its worst axis, or a length between two points. */
export type Wanted =
  | { readonly kind: 'point'; readonly point: string; readonly plusMinus?: number }
  | {
      readonly kind: 'pair';
      readonly from: string;
      readonly to: string;
      readonly measure: 'distance' | 'plan';
      readonly plusMinus?: number;
    };

export interface Proposal {
  readonly reading: SurveyReading;
  /** Worst ± of all that is wanted before and after it, two standard deviations, mm. */
  readonly before: number;
  readonly after: number;
  /** Points that nothing checked before and that it checks. */
  readonly checks: readonly string[];
}

/** What a wanted uncertainty counts against where nothing was said, mm. */
const USUAL_PLUS_MINUS = 2;

/**
 * The next readings in the order of their use: each in turn brings down most the worst of the wanted
 * uncertainties, relative to what is wanted, points nothing checks counting too. After each the
 * covariance is brought up to date (Sherman and Morrison 1950), so that the list is a plan and not a
 * ranking.
 *
 * @param candidates readings that could be taken, with the spread of the instrument at hand; their
 *   values do not matter
 */
export function proposeNext(
  solution: NetSolution,
  candidates: readonly SurveyReading[],
  wanted: readonly Wanted[],
  count: number,
): Proposal[] {
  const rows = gradients(solution, candidates);
  const goals = goalsOf(solution, wanted);
  if (goals.length === 0) return [];
  const covariance = solution.covariance.slice();
  const current = { ...solution, covariance };
  const unchecked = new Set(uncheckedPoints(solution));
  const taken = new Set<number>();
  const proposals: Proposal[] = [];
  let variances = goals.map((goal) => quadratic(current, goal.row));
  while (proposals.length < count && taken.size < candidates.length) {
    let best: { index: number; score: number; variances: number[] } | undefined;
    candidates.forEach((candidate, index) => {
      const row = rows[index];
      if (!row || taken.has(index)) return;
      const [spread, scale] = spreadOf(current, row, sigmaOf(candidate));
      const after = goals.map((goal, g) => Math.max(0, variances[g]! - along(spread, goal.row) ** 2 / scale));
      const gained = pointsOf(candidate).filter((id) => unchecked.has(id)).length;
      const score = usefulness(goals, variances, after) + 0.15 * gained;
      if (!best || score > best.score) best = { index, score, variances: after };
    });
    if (!best || best.score < 1e-4) break;
    const reading = candidates[best.index]!;
    update(current, rows[best.index]!, sigmaOf(reading));
    const checks = pointsOf(reading).filter((id) => unchecked.delete(id));
    proposals.push({ reading, before: worst(goals, variances), after: worst(goals, best.variances), checks });
    variances = best.variances;
    taken.add(best.index);
  }
  return proposals;
}

interface Goal {
  readonly row: Row;
  readonly target: number;
}

function goalsOf(solution: NetSolution, wanted: readonly Wanted[]): Goal[] {
  const { survey, equations } = solution;
  const index = pointIndex(survey);
  return wanted.flatMap((each): Goal[] => {
    const target = (each.plusMinus ?? USUAL_PLUS_MINUS) / 2;
    if (each.kind === 'pair') {
      if (!index.has(each.from) || !index.has(each.to)) return [];
      const reading = { id: '', kind: each.measure, from: each.from, to: each.to, value: 1, sigma: 1 } as const;
      const [row] = gradients(solution, [reading]);
      return row ? [{ row, target }] : [];
    }
    const first = equations.column[index.get(each.point) ?? -1];
    if (first === undefined || first < 0) return [];
    return [0, 1, 2].map((axis) => ({ row: unit(first + axis), target }));
  });
}

function unit(column: number): Row {
  const row = newRow();
  row.columns[0] = column;
  row.coefficients[0] = 1;
  row.count = 1;
  return row;
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

/** Q aᵀ and σ² + a Q aᵀ. */
function spreadOf(
  { covariance, equations: { unknowns } }: NetSolution,
  row: Row,
  sigma: number,
): [Float64Array, number] {
  const spread = new Float64Array(unknowns);
  for (let p = 0; p < row.count; p++) {
    const [start, share] = [row.columns[p]! * unknowns, row.coefficients[p]!];
    for (let c = 0; c < unknowns; c++) spread[c]! += share * covariance[start + c]!;
  }
  return [spread, sigma ** 2 + along(spread, row)];
}

function along(spread: Float64Array, row: Row): number {
  let sum = 0;
  for (let p = 0; p < row.count; p++) sum += row.coefficients[p]! * spread[row.columns[p]!]!;
  return sum;
}

function update(solution: NetSolution, row: Row, sigma: number): void {
  const [spread, scale] = spreadOf(solution, row, sigma);
  const {
    covariance,
    equations: { unknowns },
  } = solution;
  for (let i = 0; i < unknowns; i++) {
    const share = spread[i]! / scale;
    if (share === 0) continue;
    for (let j = 0; j < unknowns; j++) covariance[i * unknowns + j]! -= share * spread[j]!;
  }
}

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
  return 2 * Math.sqrt(variances[g]!);
}
