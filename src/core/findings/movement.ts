import { motion, position, turn, turnCovariance } from '../maths/geometry/vector';
import type { Dimension } from '../shell/job/entities';
import type { Job } from '../shell/job/job';
import { congruence, FAMILY_LEVEL, type FreeRound, type PointTest } from './stability/congruence';
import { jointOf } from '../survey/prediction';
import { holm, twoSidedTail } from '../maths/statistics/distributions';
import { cautionsBetween, type Caution } from './change';
import type { RoundJudgement } from '../round/judge/judgement';

/** A length tested between two rounds by itself. */
export interface LengthTest {
  readonly dimension: Dimension;
  readonly change: number;
  readonly sd: number;
  readonly probability: number;
  /** Rejected by Holm's correction over all lengths. */
  readonly moved: boolean;
}

/** Whether the shell itself moved between two rounds, or only the measuring says so. */
export interface Movement {
  readonly cautions: readonly Caution[];
  readonly lengths: readonly LengthTest[];
  /** Changes of points are along the chart's axes; along the earlier round's own where that one is not aligned. */
  readonly points:
    | ({ readonly ok: true; readonly stable: readonly string[] } & (TestedIn<'chart'> | TestedIn<'earlier'>))
    | { readonly ok: false; readonly reason: string };
}

interface TestedIn<F extends 'chart' | 'earlier'> {
  readonly axes: F;
  readonly tests: readonly PointTest<F>[];
}

/**
 * Tests two rounds for movement: points by the congruence of the two free nets, lengths each by its own
 * change, both corrected for how many there are.
 */
export function didItMove(job: Job, earlier: RoundJudgement, later: RoundJudgement): Movement {
  return {
    cautions: cautionsBetween(job, earlier, later).filter((caution) => caution !== 'control'),
    lengths: lengthTests(earlier, later),
    points: pointTests(earlier, later),
  };
}

function pointTests(earlier: RoundJudgement, later: RoundJudgement): Movement['points'] {
  const [before, after] = [freeRound<'earlier'>(earlier), freeRound<'later'>(later)];
  if (!before || !after) {
    const missing = [earlier, later].filter(({ net }) => !net.solution).map(({ round }) => round.number);
    return { ok: false, reason: `round ${missing.join(' and ')} has no located points: measure more of it` };
  }
  const result = congruence(before, after);
  if (!result.ok) return result;
  const { stable, tests } = result;
  if (!earlier.alignment.ok) return { ok: true, stable, axes: 'earlier', tests };
  const { rotation, translation } = earlier.alignment.motion;
  const toChart = motion<'earlier', 'chart'>(rotation, translation);
  return {
    ok: true,
    stable,
    axes: 'chart',
    tests: tests.map((test) => ({
      ...test,
      change: turn(toChart, test.change),
      covariance: turnCovariance(toChart, test.covariance),
    })),
  };
}

/** A judged round as a net of its own, in axes that are named by which of the two it is. */
function freeRound<F extends 'earlier' | 'later'>({
  located,
  net: { solution },
}: RoundJudgement): FreeRound<F> | undefined {
  if (!solution) return undefined;
  return {
    points: new Map([...located].map(([id, at]) => [id, position<F>(at.position)])),
    joint: jointOf<F>(solution),
  };
}

function lengthTests(earlier: RoundJudgement, later: RoundJudgement): LengthTest[] {
  const before = new Map(earlier.dimensions.map((each) => [each.dimension.id, each.measured]));
  const tests = later.dimensions.flatMap(({ dimension, measured }) => {
    const then = before.get(dimension.id);
    if (!measured || !then) return [];
    const change = measured.value - then.value;
    const sd = Math.hypot(measured.sd, then.sd);
    return [{ dimension, change, sd, probability: twoSidedTail(change / Math.max(sd, 1e-9)) }];
  });
  const rejected = holm(
    tests.map(({ probability }) => probability),
    FAMILY_LEVEL,
  );
  return tests.map((test, i) => ({ ...test, moved: rejected[i]! }));
}
