import { COVERAGE } from '../maths/statistics/verdict';
import { predict } from '../survey/prediction';
import { solveNet } from '../survey/solve';
import type { SurveyReading } from '../survey/survey';
import type { WalkPoint, WalkStep } from './walk-step';

/** A length the chart judges. */
export interface JudgedLength {
  readonly from: string;
  readonly to: string;
  readonly measure: 'tip' | 'level';
  /** mm */
  readonly limit: number;
}

/** A length is known well enough where its ± is within this share of its limit. */
const KNOWN_WITHIN = 0.5;

/**
 * The charted lengths a planned walk would leave too coarse to be judged: what the net of the walk says of each is
 * wider than half its limit.
 *
 * @param sigma one standard deviation of reading a length, mm
 */
export function judgedLengths(
  steps: readonly WalkStep[],
  points: readonly WalkPoint[],
  lengths: readonly JudgedLength[],
  sigma: (length: number) => number,
): SurveyReading[] {
  const known = new Set(points.map(({ id }) => id));
  const read = new Set(steps.map(({ reading }) => pairKey(reading)));
  const open = lengths.filter(
    ({ from, to }) => known.has(from) && known.has(to) && !read.has([from, to].sort().join()),
  );
  const solved = solveNet({
    points: points.map(({ id, position }) => ({ id, start: position })),
    readings: steps.map(({ reading }) => reading),
  });
  if (!solved.ok) return [];
  return open.flatMap(({ from, to, measure, limit }): SurveyReading[] => {
    const kind = measure === 'level' ? 'plan' : 'distance';
    const { value, variance } = predict(solved.solution, { id: '', kind, from, to, value: 1, sigma: 1 });
    if (COVERAGE * Math.sqrt(variance) <= KNOWN_WITHIN * limit) return [];
    return [{ id: `c ${from} ${to}`, kind, from, to, value, sigma: sigma(value) }];
  });
}

const pairKey = (reading: SurveyReading): string =>
  reading.kind === 'distance' || reading.kind === 'plan' ? [reading.from, reading.to].sort().join() : '';
