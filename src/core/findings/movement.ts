import { apply, type Vector } from '../maths/geometry/vector';
import type { Dimension } from '../shell/job/entities';
import type { JobRows } from '../shell/job/job-rows';
import { congruence, FAMILY_LEVEL, type PointTest } from './stability/congruence';
import { holm, twoSidedTail } from '../maths/statistics/distributions';
import { cautionsBetween, type Caution } from './change';
import type { RoundJudgement } from '../round/judge/judgement';
import { jointCovariance } from '../round/net/net';

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
  readonly points:
    | { readonly ok: true; readonly stable: readonly string[]; readonly tests: readonly PointTest[] }
    | { readonly ok: false; readonly reason: string };
  /** Changes of points are along the chart's axes; otherwise along the earlier round's own. */
  readonly axes: 'chart' | 'own';
}

/**
 * Tests two rounds for movement: points by the congruence of the two free nets, lengths each by its own
 * change, both corrected for how many there are.
 */
export function didItMove(rows: JobRows, earlier: RoundJudgement, later: RoundJudgement): Movement {
  const [before, after] = [freeRound(rows, earlier), freeRound(rows, later)];
  const result = before && after ? congruence(before, after) : undefined;
  const missing = [earlier, later].filter(({ net }) => !net.solution).map(({ round }) => round.number);
  const motion = earlier.alignment.ok ? earlier.alignment.motion : undefined;
  return {
    cautions: cautionsBetween(rows, earlier, later).filter((caution) => caution !== 'control'),
    lengths: lengthTests(earlier, later),
    points: !result
      ? { ok: false, reason: `round ${missing.join(' and ')} has no located points: measure more of it` }
      : result.ok
        ? {
            ok: true,
            stable: result.stable,
            tests: motion
              ? result.tests.map((test) => ({ ...test, change: apply(motion.rotation, test.change) as Vector }))
              : result.tests,
          }
        : result,
    axes: motion ? 'chart' : 'own',
  };
}

function freeRound(rows: JobRows, { located, net: { solution } }: RoundJudgement) {
  if (!solution) return undefined;
  const joint = jointCovariance(solution);
  const codeOf = new Map(rows.points.map(({ id, code }) => [id, code]));
  return {
    points: new Map([...located].map(([id, { position }]) => [id, position as Vector])),
    joint: (a: string, b: string) => joint(codeOf.get(a)!, codeOf.get(b)!),
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
