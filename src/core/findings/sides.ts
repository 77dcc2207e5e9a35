import { covarianceBlock } from '../survey/prediction';
import type { NetSolution } from '../survey/solve';
import { fitCentrePlane, type MirrorResult, type SideDifference } from '../maths/symmetry/centre-plane';
import type { Dimension } from '../shell/job/entities';
import type { JobRows } from '../shell/job/job-rows';
import { lengthBetween, type RoundJudgement } from '../round/judge/judgement';
import { oppositeCodes } from '../round/net/net';
import { centrePoints, mirrorPairs, placeRound } from '../round/judge/placed';
import { COVERAGE } from '../maths/statistics/verdict';

/** A length and the same length of the other side: `F1L – F4R` and `F1R – F4L`. */
export interface MirroredLength {
  readonly dimension: Dimension;
  /** Point codes of the two lengths. */
  readonly ends: readonly [readonly [string, string], readonly [string, string]];
  readonly lengths: readonly [number, number];
  /** Second minus first, mm, and its standard deviation. */
  readonly difference: number;
  readonly sd: number;
}

/** Left against right: the centre plane with the pairs it was fitted to, and every length that has a mirror image. */
export interface Sides {
  readonly mirror: MirrorResult;
  readonly lengths: readonly MirroredLength[];
}

/** Compares the sides of the shell as one round found it. */
export function compareSides(rows: JobRows, judgement: RoundJudgement): Sides {
  const placed = placeRound(rows, judgement);
  if (!placed.ok) return { mirror: placed, lengths: [] };
  const mirror = fitCentrePlane({
    ...placed,
    pairs: mirrorPairs(rows),
    centre: centrePoints(rows),
  });
  return { mirror, lengths: mirroredLengths(rows, judgement) };
}

function mirroredLengths(rows: JobRows, judgement: RoundJudgement): MirroredLength[] {
  const { solution } = judgement.net;
  if (!solution) return [];
  const opposite = oppositeCodes(rows.points);
  const byCode = new Map(rows.points.map((point) => [point.code, point]));
  const codeOf = new Map(rows.points.map(({ id, code }) => [id, code]));
  const seen = new Set<string>();
  return rows.dimensions.flatMap((dimension): MirroredLength[] => {
    const first = [dimension.fromPointId, dimension.toPointId].map((id) => codeOf.get(id)!) as [string, string];
    const second = first.map((code) => opposite.get(code) ?? code) as [string, string];
    const meant = [...first, ...second].every((code) => byCode.get(code)?.mirrored);
    const key = [[...first].sort().join(' '), [...second].sort().join(' ')];
    if (!meant || key[0] === key[1] || seen.has(key[0]!)) return [];
    key.forEach((each) => seen.add(each));
    const [a, b] = [first, second].map(([from, to]) =>
      lengthBetween(rows, judgement, {
        measure: dimension.measure,
        fromPointId: byCode.get(from)!.id,
        toPointId: byCode.get(to)!.id,
      }),
    );
    if (a?.from !== 'net' || b?.from !== 'net') return [];
    const sd = differenceSd(solution, first, second, dimension.measure === 'level');
    return [{ dimension, ends: [first, second], lengths: [a.value, b.value], difference: b.value - a.value, sd }];
  });
}

/** Standard deviation of the difference of two lengths of one net, from the joint covariance of their ends, mm. */
function differenceSd(
  solution: NetSolution,
  first: readonly [string, string],
  second: readonly [string, string],
  level: boolean,
): number {
  const index = new Map(solution.survey.points.map(({ id }, i) => [id, i]));
  const gradient = new Map<number, number[]>();
  for (const [[from, to], sign] of [
    [first, -1],
    [second, 1],
  ] as const) {
    const [a, b] = [index.get(from)!, index.get(to)!];
    const line = [0, 1, 2].map((k) => (level && k === 2 ? 0 : solution.x[3 * b + k]! - solution.x[3 * a + k]!));
    const length = Math.hypot(...line);
    for (const [point, end] of [
      [a, -1],
      [b, 1],
    ] as const) {
      const own = gradient.get(point) ?? [0, 0, 0];
      gradient.set(
        point,
        own.map((value, k) => value + (sign * end * line[k]!) / length),
      );
    }
  }
  let variance = 0;
  for (const [p, g] of gradient)
    for (const [q, h] of gradient) {
      const block = covarianceBlock(solution, p, q);
      for (let i = 0; i < 3; i++) for (let k = 0; k < 3; k++) variance += g[i]! * block[3 * i + k]! * h[k]!;
    }
  return Math.sqrt(Math.max(0, variance));
}

/** The sides of a pair differ by more than the ± in some direction. */
export const differs = ({ difference, sd }: Pick<SideDifference, 'difference' | 'sd'>): boolean =>
  difference.some((value, i) => isMoreThan(value, sd[i]!));

/** A difference is more than its ±. */
export const isMoreThan = (difference: number, sd: number): boolean => Math.abs(difference) > COVERAGE * sd;
