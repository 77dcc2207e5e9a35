import { covarianceAlong, varianceAlong } from '../maths/linear/gradient';
import { linearise, newRow, observationsOf } from '../survey/observations';
import { covarianceOf, type NetSolution } from '../survey/solve';
import { pointIndex } from '../survey/survey';
import { fitCentrePlane, type MirrorResult, type SideDifference } from '../maths/symmetry/centre-plane';
import type { Dimension } from '../shell/job/entities';
import type { Job } from '../shell/job/job';
import { mirrorImage, type LengthEnds } from '../shell/job/mirror-image';
import { lengthBetween, type RoundJudgement } from '../round/judge/judgement';
import { centrePoints, inItsAxes, mirrorPairs, placeRound } from '../round/judge/placed';
import { COVERAGE } from '../maths/statistics/verdict';

/** A length and the same length of the other side: `F1L – F4R` and `F1R – F4L`. */
export interface MirroredLength {
  readonly dimension: Dimension;
  /** Points of the two lengths. */
  readonly ends: readonly [LengthEnds, LengthEnds];
  readonly lengths: readonly [number, number];
  /** Second minus first, mm, and its standard deviation. */
  readonly difference: number;
  readonly sd: number;
}

/** Left against right: the centre plane with the pairs it was fitted to, and every length that has a mirror image. */
export interface Sides {
  readonly mirror: MirrorResult<'chart'> | MirrorResult<'vehicle'>;
  readonly lengths: readonly MirroredLength[];
}

/** Compares the sides of the shell as one round found it. */
export function compareSides(job: Job, judgement: RoundJudgement): Sides {
  const result = placeRound(job, judgement);
  const lengths = mirroredLengths(job, judgement);
  if (!result.ok) return { mirror: result, lengths };
  const meant = { pairs: mirrorPairs(job), centre: centrePoints(job) };
  const mirror = inItsAxes<Sides['mirror']>(
    result.placed,
    (placed) => fitCentrePlane({ ...placed, ...meant }) as Sides['mirror'],
  );
  return { mirror, lengths };
}

function mirroredLengths(job: Job, judgement: RoundJudgement): MirroredLength[] {
  const { solution } = judgement.net;
  if (!solution) return [];
  const seen = new Set<string>();
  return job.rows.dimensions.flatMap((dimension): MirroredLength[] => {
    const first: LengthEnds = [dimension.fromPointId, dimension.toPointId];
    const second = mirrorImage(job, first);
    if (!second) return [];
    const key = [first, second].map((ends) => [...ends].sort().join(' '));
    if (seen.has(key[0]!)) return [];
    key.forEach((each) => seen.add(each));
    const { measure } = dimension;
    const [a, b] = [first, second].map(([fromPointId, toPointId]) =>
      lengthBetween(judgement, { measure, fromPointId, toPointId }),
    );
    if (a?.from !== 'net' || b?.from !== 'net') return [];
    const sd = differenceSd(solution, first, second, measure === 'level' ? 'plan' : 'distance');
    return [{ dimension, ends: [first, second], lengths: [a.value, b.value], difference: b.value - a.value, sd }];
  });
}

/** Standard deviation of the difference of two lengths of one net, from the joint covariance of their ends, mm. */
function differenceSd(solution: NetSolution, first: LengthEnds, second: LengthEnds, kind: 'plan' | 'distance'): number {
  const index = pointIndex(solution.survey);
  const covariance = covarianceOf(solution);
  const [a, b] = [first, second].map(([from, to]) => {
    const row = newRow();
    const [observation] = observationsOf({ id: '', kind, from, to, value: 1, sigma: 1 }, index);
    linearise(solution.equations, observation!, solution.x, solution.biases, row);
    return row;
  }) as [ReturnType<typeof newRow>, ReturnType<typeof newRow>];
  const variance = varianceAlong(covariance, a) - 2 * covarianceAlong(covariance, a, b) + varianceAlong(covariance, b);
  return Math.sqrt(Math.max(0, variance));
}

/** The sides of a pair differ by more than the ± in some direction. */
export const differs = ({ difference, sd }: Pick<SideDifference, 'difference' | 'sd'>): boolean =>
  difference.some((value, i) => isMoreThan(value, sd[i]!));

/** A difference is more than its ±. */
export const isMoreThan = (difference: number, sd: number): boolean => Math.abs(difference) > COVERAGE * sd;
