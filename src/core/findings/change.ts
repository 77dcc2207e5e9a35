import { from as between, mapAxes, type Displacement, type Vector } from '../maths/geometry/vector';
import type { Dimension, Point, Round } from '../shell/job/entities';
import type { Job } from '../shell/job/job';
import { COVERAGE, judgeChange, type ChangeVerdict } from '../maths/statistics/verdict';
import { placedPosition, type RoundJudgement } from '../round/judge/judgement';
import { subjectKey } from '../round/observe/observe';

export interface DimensionChange {
  readonly dimension: Dimension;
  readonly earlier: number;
  readonly later: number;
  readonly change: number;
  readonly sd: number;
  readonly limit: number;
  readonly verdict: ChangeVerdict;
}

export interface PointChange {
  readonly point: Point;
  readonly change: Displacement<'chart'>;
  readonly sd: Vector;
  readonly limit: number;
  readonly verdict: ChangeVerdict;
}

export interface RoundChange {
  readonly earlier: Round;
  readonly later: Round;
  /** What differs between the rounds besides the shell: said above the result. */
  readonly cautions: readonly Caution[];
  readonly dimensions: readonly DimensionChange[];
  readonly points: readonly PointChange[];
  /** Dimensions measured in one of the rounds only. */
  readonly notCompared: readonly Dimension[];
}

export type Caution = 'support' | 'suspension' | 'instrument' | 'control';

/** What changed from one round to a later one; both are judged already. */
export function compareRounds(job: Job, earlier: RoundJudgement, later: RoundJudgement): RoundChange {
  const before = new Map(earlier.dimensions.map((each) => [each.dimension.id, each]));
  const dimensions: DimensionChange[] = [];
  const notCompared: Dimension[] = [];
  for (const now of later.dimensions) {
    const then = before.get(now.dimension.id);
    const limit = now.judged?.limit;
    if (now.measured && then?.measured && limit !== undefined) {
      const change = now.measured.value - then.measured.value;
      const sd = Math.hypot(now.measured.sd, then.measured.sd);
      dimensions.push({
        dimension: now.dimension,
        earlier: then.measured.value,
        later: now.measured.value,
        change,
        sd,
        limit,
        verdict: judgeChange(change, sd, limit),
      });
    } else if (now.measured || then?.measured) notCompared.push(now.dimension);
  }
  return {
    earlier: earlier.round,
    later: later.round,
    cautions: cautionsBetween(job, earlier, later),
    dimensions,
    points: pointChanges(earlier, later),
    notCompared,
  };
}

function pointChanges(earlier: RoundJudgement, later: RoundJudgement): PointChange[] {
  const before = new Map(earlier.points.map((each) => [each.point.id, each]));
  return later.points.flatMap((now) => {
    const then = before.get(now.point.id);
    const from = placedPosition(earlier, now.point.id);
    const to = placedPosition(later, now.point.id);
    if (!now.judged || !then?.judged || !from || !to) return [];
    const change = between(from, to);
    const [sdNow, sdThen] = [now.judged.sd, then.judged.sd];
    const sd = mapAxes((i) => Math.hypot(sdNow[i], sdThen[i]));
    const verdicts = change.map((c, i) => judgeChange(c, sd[i]!, now.judged!.limit));
    const verdict = verdicts.includes('moved') ? 'moved' : verdicts.includes('undecided') ? 'undecided' : 'held';
    return [{ point: now.point, change, sd, limit: now.judged.limit, verdict }];
  });
}

export function cautionsBetween(job: Job, earlier: RoundJudgement, later: RoundJudgement): Caution[] {
  const [a, b] = [job.supportOf(earlier.round), job.supportOf(later.round)];
  const control = (judgement: RoundJudgement) =>
    judgement.alignment.ok ? [...judgement.alignment.controlIds].sort().join() : '';
  return [
    ...(a.kind !== b.kind || stoodElsewhere(earlier.round, later.round) ? (['support'] as const) : []),
    ...(a.suspension !== b.suspension ? (['suspension'] as const) : []),
    ...(instrumentsDiffer(job, earlier.round, later.round) ? (['instrument'] as const) : []),
    ...(control(earlier) !== control(later) ? (['control'] as const) : []),
  ];
}

/** Whether two rounds were read on different set-ups, where both say on which. */
const stoodElsewhere = (earlier: Round, later: Round): boolean =>
  earlier.setUpId !== null && later.setUpId !== null && earlier.setUpId !== later.setUpId;

/** Whether something read in both rounds was read with another instrument, or another version of it. */
function instrumentsDiffer(job: Job, earlier: Round, later: Round): boolean {
  const used = (round: Round) => {
    const bySubject = new Map<string, Set<string>>();
    for (const reading of job.standingReadings(round)) {
      const key = subjectKey(reading);
      bySubject.set(key, (bySubject.get(key) ?? new Set()).add(reading.instrumentVersionId));
    }
    return bySubject;
  };
  const [before, after] = [used(earlier), used(later)];
  return [...after].some(([key, versions]) => {
    const then = before.get(key);
    return then !== undefined && [...versions].sort().join() !== [...then].sort().join();
  });
}

/** Beyond what reading explains, whatever the limit: more than two standard deviations. */
export const isBeyondNoise = ({ change, sd }: { readonly change: number; readonly sd: number }): boolean =>
  Math.abs(change) > COVERAGE * sd;

/** What moved beyond noise first, the surest of them at the top; then what is undecided, the widest last. */
export const tellingFirst = <
  Change extends { readonly change: number; readonly sd: number; readonly verdict: ChangeVerdict },
>(
  changes: readonly Change[],
): Change[] => {
  const rank = (each: Change) => (isBeyondNoise(each) ? 0 : each.verdict === 'held' ? 2 : 1);
  const sureness = (each: Change) => Math.abs(each.change) / each.sd;
  return changes.toSorted((a, b) => rank(a) - rank(b) || sureness(b) - sureness(a));
};
