import { grouped } from '../maths/grouped';
import { COVERAGE } from '../maths/statistics/verdict';
import { observeRound, type Observed } from '../round/observe/observe';
import { REPEATS_DIFFER } from '../round/net/net';
import { measure, type MeasuredDistance } from '../round/observe/measured';
import type { Round } from '../shell/job/entities';
import type { Job } from '../shell/job/job';
import { mirrorImage, type LengthEnds } from '../shell/job/mirror-image';

/**
 * What a few readings say before anything can be located: a length against its mirror image (both diagonals, or the two
 * sides), the readings of one quantity against each other, three lengths that do not make a triangle.
 */
export type FirstFigure =
  | {
      readonly kind: 'diagonals' | 'sides';
      readonly ends: readonly [LengthEnds, LengthEnds];
      readonly lengths: readonly [number, number];
      /** Second minus first, mm, and its standard deviation. */
      readonly difference: number;
      readonly sd: number;
      /** More than the readings explain. */
      readonly real: boolean;
    }
  | {
      readonly kind: 'repeat';
      readonly readingIds: readonly string[];
      /** Largest minus smallest, mm, and its standard deviation. */
      readonly difference: number;
      readonly sd: number;
      readonly real: boolean;
    }
  | {
      readonly kind: 'triangle';
      readonly pointIds: readonly [string, string, string];
      /** By how much the longest is longer than the two others together, mm, and its standard deviation. */
      readonly difference: number;
      readonly sd: number;
    };

/** The first figures of a round: what is more than chance first, then by kind. */
export function firstFigures(job: Job, round: Pick<Round, 'id' | 'temperature'>): FirstFigure[] {
  const observed = observeRound(job, round);
  const again = repeats(observed);
  // What lies between two readings of one thing that contradict each other says nothing of another.
  const unsettled = new Set(again.flatMap((repeat) => (differ(repeat) ? repeat.readingIds : [])));
  const distances = measure(observed).distances.filter(({ readingIds }) => !unsettled.has(readingIds[0]!));
  const figures = [...triangles(distances), ...mirrored(job, distances), ...again];
  return figures.sort((a, b) => Number(isReal(b)) - Number(isReal(a)));
}

export const isReal = (figure: FirstFigure): boolean => figure.kind === 'triangle' || figure.real;

const moreThan = (difference: number, sd: number): boolean => Math.abs(difference) > COVERAGE * sd;

/** Lengths read both ways round: `F1L – F4R` with `F1R – F4L`, `F1L – F4L` with `F1R – F4R`. */
function mirrored(job: Job, distances: readonly MeasuredDistance[]): FirstFigure[] {
  const keyOf = (measured: MeasuredDistance['measure'], ends: LengthEnds) => [measured, ...[...ends].sort()].join(' ');
  const read = new Map(distances.map((each) => [keyOf(each.measure, [each.fromPointId, each.toPointId]), each]));
  const seen = new Set<string>();
  return distances.flatMap((first): FirstFigure[] => {
    const ends: LengthEnds = [first.fromPointId, first.toPointId];
    const other = mirrorImage(job, ends);
    const second = other && read.get(keyOf(first.measure, other));
    if (!second || seen.has(keyOf(first.measure, ends))) return [];
    seen.add(keyOf(first.measure, other));
    const sides = new Set(ends.map((id) => job.point(id).side));
    const difference = second.value - first.value;
    const sd = Math.hypot(first.sd, second.sd);
    return [
      {
        kind: sides.has('left') && sides.has('right') ? 'diagonals' : 'sides',
        ends: [ends, other],
        lengths: [first.value, second.value],
        ...{ difference, sd, real: moreThan(difference, sd) },
      },
    ];
  });
}

type Repeat = Extract<FirstFigure, { kind: 'repeat' }>;

const differ = ({ difference, sd }: Repeat): boolean => difference > REPEATS_DIFFER * sd;

/** Every quantity that was read more than once. */
function repeats(observed: readonly Observed[]): Repeat[] {
  const groups = grouped(observed, ({ subject }) => subject);
  return [...groups.values()].flatMap((group): Repeat[] => {
    if (group.length < 2) return [];
    const sorted = [...group].sort((a, b) => a.amount - b.amount);
    const [least, most] = [sorted[0]!, sorted.at(-1)!];
    const difference = most.amount - least.amount;
    // What repeats with one instrument have in common is in neither: their own spreads alone part them.
    const sd = Math.hypot(least.sigma, most.sigma);
    const readingIds = group.map(({ reading }) => reading.id);
    return [{ kind: 'repeat', readingIds, difference, sd, real: moreThan(difference, sd) }];
  });
}

/** Three lengths among three points of which one is longer than the way round by the third point. */
function triangles(distances: readonly MeasuredDistance[]): FirstFigure[] {
  const tips = distances.filter(({ measure: how }) => how === 'tip');
  const between = new Map<string, Map<string, MeasuredDistance>>();
  for (const each of tips)
    for (const [a, b] of [
      [each.fromPointId, each.toPointId],
      [each.toPointId, each.fromPointId],
    ] as const) {
      if (!between.has(a)) between.set(a, new Map());
      between.get(a)!.set(b, each);
    }
  return tips.flatMap((long): FirstFigure[] => {
    const [a, b] = [long.fromPointId, long.toPointId];
    return [...between.get(a)!].flatMap(([c, one]): FirstFigure[] => {
      const two = between.get(b)!.get(c);
      if (!two || c === b) return [];
      const difference = long.value - one.value - two.value;
      const sd = Math.hypot(long.sd, one.sd, two.sd);
      return difference > COVERAGE * sd ? [{ kind: 'triangle', pointIds: [a, c, b], difference, sd }] : [];
    });
  });
}
