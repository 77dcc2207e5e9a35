import { gaugeFindings, type GaugeFinding } from '../../findings/gauges';
import { twoThings, type ThingPlaced, type TwoThings } from '../../findings/two-things';
import { fittedPlacement, type Placement } from '../../plan/set-up/placement';
import { judgeRound } from '../../round/judge/judge-round';
import type { RoundJudgement } from '../../round/judge/judgement';
import { checkedParts, type CheckedPart } from '../../shell/gauges';
import type { Round } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';

/** Heads and real parts as gauges: what they are, and what they say in the last round. */
export interface GaugesPage {
  readonly parts: readonly CheckedPart[];
  readonly points: readonly { readonly id: string; readonly code: string }[];
  /** The round they are read in next, where one is open. */
  readonly openRoundId?: string;
  /** The last round they were read in. */
  readonly round?: string;
  readonly findings: readonly GaugeFinding[];
}

/** The points of a chassis or platform, as one would write them down, and how body and platform lie. */
export interface PlatformPage {
  readonly points: readonly { readonly code: string; readonly meets?: string }[];
  readonly things?: Omit<TwoThings, 'placed'>;
  /** How each of the two stands on the bench by its own points. */
  readonly placements: { readonly platform?: Placement; readonly body?: Placement };
}

/** The parts of a job, and what they and the heads say in the last round they were read in. */
export function gaugesOf(job: Job, judgement: RoundJudgement | undefined): GaugesPage {
  const { rows } = job;
  const common = { parts: checkedParts(rows), points: rows.points.map(({ id, code }) => ({ id, code })) };
  if (!judgement) return { ...common, findings: [] };
  const last = judgement.round;
  const open = last.closedAt === null ? { openRoundId: last.id } : {};
  const isRead = (round: Round) => job.standingReadings(round).some(({ quantity }) => quantity === 'fixture');
  const round = job.ownRounds.findLast(isRead);
  if (!round) return { ...common, ...open, findings: [] };
  const { net } = round === last ? judgement : judgeRound(job, round);
  return { ...common, ...open, round: round.name, findings: gaugeFindings(job, round, net) };
}

/** The points of the platform, and how it and the body lie by their last rounds. */
export function platformOf(job: Job): PlatformPage {
  const points = job.rows.platformPoints.map(({ pointId, meetsId }) => ({
    code: job.code(pointId),
    ...(meetsId ? { meets: job.code(meetsId) } : {}),
  }));
  const found = twoThings(job);
  if (!found) return { points, placements: {} };
  const { placed, ...things } = found;
  const placement = (thing: ThingPlaced | undefined) => thing && fittedPlacement(thing.motion, thing.control);
  const [platform, body] = [placement(placed.platform), placement(placed.body)];
  return { points, things, placements: { ...(platform ? { platform } : {}), ...(body ? { body } : {}) } };
}
