import {
  mapAxes,
  subtract,
  turn,
  displacement,
  type Displacement,
  type Motion,
  type Vector,
} from '../maths/geometry/vector';
import { deviationOf, fitSelected } from '../maths/rigid/fit';
import { uncertainPoint, type LocatedPoint } from '../round/align/align-round';
import { judgeRound } from '../round/judge/judge-round';
import type { RoundJudgement } from '../round/judge/judgement';
import type { Job } from '../shell/job/job';
import { jointOf } from '../survey/prediction';

/** A hole that body and platform share when they are bolted together. */
export interface Meeting {
  readonly platformId: string;
  readonly bodyId: string;
  /** Where the body has it, less where the platform has it, with one standard deviation of each axis, mm. */
  readonly by: Displacement<'chart'>;
  readonly sd: Vector;
}

/** How one of the two lies against its own part of the chart. */
export interface ThingPlaced {
  readonly motion: Motion<'round', 'chart'>;
  readonly control: readonly ReturnType<typeof uncertainPoint>[];
}

/**
 * A body and the chassis or platform under it, as two rigid things: each by its last round, each with a placement of its
 * own, and the holes they share.
 */
export interface TwoThings {
  readonly rounds: { readonly platform: string; readonly body: string };
  /** Both were read in one round: what the holes are off is as they stand now, not as they could be laid. */
  readonly together: boolean;
  readonly placed: { readonly platform?: ThingPlaced; readonly body?: ThingPlaced };
  readonly meetings: readonly Meeting[];
}

const FEWEST = 3;

/**
 * Compares body and platform. Read in one round, each shared hole is off by what lies between the two points, by their
 * joint covariance. Read apart, the body's holes are first laid on the platform's by a rigid fit of equal weights, and the
 * rest is what packers or slotted holes have to take up. Undefined where no platform is told of or too little was read.
 */
export function twoThings(job: Job): TwoThings | undefined {
  const pairs = job.rows.platformPoints.flatMap(({ pointId, meetsId }) => (meetsId ? [{ pointId, meetsId }] : []));
  if (pairs.length === 0) return undefined;
  const judged = job.ownRounds.map((round) => judgeRound(job, round)).toReversed();
  const reads = (ids: readonly string[]) =>
    judged.find(({ located }) => ids.filter((id) => located.has(id)).length >= Math.min(FEWEST, ids.length));
  const platform = reads(pairs.map(({ pointId }) => pointId));
  const body = reads(pairs.map(({ meetsId }) => meetsId));
  if (!platform || !body) return undefined;
  const together = platform === body;
  const own = new Set(job.rows.platformPoints.map(({ pointId }) => pointId));
  const placed = {
    platform: placedBy(platform, (id) => own.has(id)),
    body: placedBy(body, (id) => !own.has(id)),
  };
  return {
    rounds: { platform: platform.round.name, body: body.round.name },
    together,
    placed: {
      ...(placed.platform ? { platform: placed.platform } : {}),
      ...(placed.body ? { body: placed.body } : {}),
    },
    meetings: together ? asTheyStand(platform, pairs) : asTheyCouldLie(platform, body, pairs),
  };
}

interface Pair {
  readonly pointId: string;
  readonly meetsId: string;
}

/** How a thing lies by its own control points, or by all its points that have a reference where too few of them are. */
function placedBy(
  { alignment, located, references }: RoundJudgement,
  isOwn: (id: string) => boolean,
): ThingPlaced | undefined {
  const known = [...located.keys()].filter((id) => isOwn(id) && references.points.has(id));
  const chosen = alignment.ok ? alignment.controlIds.filter(isOwn) : [];
  const control = (chosen.length >= FEWEST ? chosen : known).map((id) => uncertainPoint(id, located, references));
  const fit = fitSelected(control);
  return fit.ok ? { motion: fit.motion, control } : undefined;
}

function asTheyStand({ net, located, alignment }: RoundJudgement, pairs: readonly Pair[]): Meeting[] {
  const joint = jointOf<'round'>(net.solution!);
  return pairs.flatMap(({ pointId, meetsId }): Meeting[] => {
    const [a, b] = [located.get(pointId), located.get(meetsId)];
    if (!a || !b) return [];
    const between = displacement<'round'>(subtract(b.position, a.position));
    const cross = joint.block(pointId, meetsId);
    const variance = (k: number) => a.covariance[4 * k]! + b.covariance[4 * k]! - 2 * cross[4 * k]!;
    const by = alignment.ok ? turn(alignment.motion, between) : displacement<'chart'>(between);
    return [{ platformId: pointId, bodyId: meetsId, by, sd: mapAxes((k) => Math.sqrt(Math.max(0, variance(k)))) }];
  });
}

function asTheyCouldLie(platform: RoundJudgement, body: RoundJudgement, pairs: readonly Pair[]): Meeting[] {
  const both = pairs.flatMap(({ pointId, meetsId }) => {
    const [a, b] = [platform.located.get(pointId), body.located.get(meetsId)];
    return a && b ? [{ a, b }] : [];
  });
  const paired = both.map(({ a, b }) => ({
    ...{ id: b.pointId, sigma: 1 },
    reference: a.position,
    measured: b.position,
  }));
  const fit = fitSelected<'round', 'round'>(paired);
  if (!fit.ok) return [];
  const onChart = (by: Displacement<'round'>) =>
    platform.alignment.ok ? turn(platform.alignment.motion, by) : displacement<'chart'>(by);
  const spread = ({ covariance }: LocatedPoint, k: number) => covariance[4 * k]!;
  return both.map(({ a, b }, i) => ({
    ...{ platformId: a.pointId, bodyId: b.pointId },
    by: onChart(deviationOf(fit.motion, paired[i]!).by),
    sd: mapAxes((k) => Math.sqrt(spread(a, k) + spread(b, k))),
  }));
}
