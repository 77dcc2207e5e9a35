import {
  displacement,
  distance,
  levelDistance,
  norm,
  scale,
  type Displacement,
  type Position,
} from '../maths/geometry/vector';
import type { Brace, BraceEvent, CodedBrace, CodedPull, Pull, PullState, Reading } from '../shell/job/entities';
import type { Job } from '../shell/job/job';
import { AXIS_OF, distanceBetween } from '../round/observe/measured';
import { observePull, type Observed } from '../round/observe/observe';
import { referencePosition } from '../shell/references/chosen';
import { grouped } from '../maths/grouped';
import { placedPosition, type RoundJudgement } from '../round/judge/judgement';

export interface BraceGeometry {
  /** Between the two points themselves, mm: pads and end fittings are taken off by the maker of the brace. */
  readonly length: number;
  /** Angle above the datum plane from the first point to the second, degrees. */
  readonly rise: number;
  /** Angle in plan from straight rearward towards the right, degrees. */
  readonly heading: number;
  /** Where the two positions come from. */
  readonly from: 'round' | 'reference';
}

const degrees = (radians: number): number => (radians * 180) / Math.PI;

/** Length and angles of the line between two positions of one frame. */
export function lineGeometry(from: Position<'chart'>, to: Position<'chart'>): Omit<BraceGeometry, 'from'> {
  return {
    length: distance(from, to),
    rise: degrees(Math.atan2(to[2] - from[2], levelDistance(from, to))),
    heading: degrees(Math.atan2(to[1] - from[1], to[0] - from[0])),
  };
}

/** A planned brace as the round found its ends; from the chart where the round did not locate both. */
export function braceGeometry(
  brace: Pick<Brace, 'fromPointId' | 'toPointId'>,
  judgement: RoundJudgement | undefined,
  references: RoundJudgement['references'],
): BraceGeometry | undefined {
  const measured = [brace.fromPointId, brace.toPointId].map((id) => judgement && placedPosition(judgement, id));
  if (measured[0] && measured[1]) return { ...lineGeometry(measured[0], measured[1]), from: 'round' };
  const charted = [brace.fromPointId, brace.toPointId].map((id) => referencePosition(references, id));
  if (charted[0] && charted[1]) return { ...lineGeometry(charted[0], charted[1]), from: 'reference' };
  return undefined;
}

/** The last thing that happened to a brace. */
export const braceState = (job: Job, brace: Brace): BraceEvent['kind'] =>
  job.braceEvents.filter((event) => event.braceId === brace.id).at(-1)?.kind ?? 'planned';

/** Whether a brace is in the shell, tight or loosened; a part of the car that stays is none that must come out. */
export const isBraceIn = (job: Job, brace: Brace): boolean =>
  brace.kind !== 'part' && ['fitted', 'loosened'].includes(braceState(job, brace));

/** The last thing that happened to a pull. */
export const pullState = (job: Job, { id }: Pick<Pull, 'id'>): PullState =>
  job.pullEvents.flatMap(({ pullId, kind }) => (pullId === id && kind !== 'cleared' ? [kind] : [])).at(-1) ?? 'planned';

/** Braces nobody has fitted yet. */
export const plannedBraces = (job: Job): CodedBrace[] =>
  job.braces.filter((brace) => braceState(job, brace) === 'planned');

/** Pulls that nobody finished, or read after their last release. */
export const unreadPulls = (job: Job, judgements: readonly RoundJudgement[]): CodedPull[] =>
  job.pulls.filter((pull) => {
    const state = pullState(job, pull);
    if (state === 'abandoned') return false;
    const judgement = judgements.find(({ round }) => round.id === pull.roundId);
    return (
      state !== 'done' ||
      !pullProgress(job, pull, judgement).some(({ cycles }) => cycles.at(-1)?.released !== undefined)
    );
  });

/** Back by as much as the point is out: the wanted movement in chart axes, mm. */
export function aimOf(judgement: RoundJudgement, pointId: string): Displacement<'chart'> | undefined {
  const judged = judgement.points.find((each) => each.point.id === pointId)?.judged;
  return judged && displacement(scale(judged.deviation.by, -1));
}

export const pullDistance = (pull: Pick<Pull, 'aimX' | 'aimY' | 'aimZ'>): number =>
  norm([pull.aimX, pull.aimY, pull.aimZ]);

/** One cycle of loading and letting go, seen through one quantity. */
export interface PullCycle {
  readonly underLoad?: number;
  readonly released?: number;
  /** Released minus under load, mm. */
  readonly springBack?: number;
  /** What stayed of the pull: released minus the value before it, mm. */
  readonly gained?: number;
}

export interface PullProgress {
  readonly subject: Pick<Reading, 'quantity' | 'pointId' | 'toPointId' | 'measure'>;
  /** The value before the first load, in the round the pull was planned from, mm. */
  readonly before?: number;
  readonly cycles: readonly PullCycle[];
  /** How much of what is still wanted along this quantity, mm; only along the axes of the aim. */
  readonly left?: number;
}

/**
 * The readings of a pull, cycle by cycle: under load, after release, and how far it sprang back.
 *
 * @param judgement of the round the pull was planned from; of another shell's there is none, and nothing known before it
 */
export function pullProgress(job: Job, pull: Pull, judgement: RoundJudgement | undefined): PullProgress[] {
  return [...grouped(observePull(job, pull), ({ subject }) => subject).values()].map((observed) => {
    const first = observed[0]!.reading;
    const before = judgement && valueBefore(first, judgement);
    const cycles = pairCycles(observed, before);
    const aim = { x: pull.aimX, y: pull.aimY, z: pull.aimZ };
    const axis = AXIS_OF[first.quantity];
    const gained = cycles.at(-1)?.gained;
    const onAim = axis !== undefined && first.pointId === pull.pointId && gained !== undefined;
    return { subject: first, before, cycles, ...(onAim ? { left: aim[axis] - gained } : {}) };
  });
}

/** What a quantity was read as in a round, before anything was pulled, mm. */
export function valueBefore(
  reading: Pick<Reading, 'quantity' | 'pointId' | 'toPointId' | 'measure'>,
  { measured }: Pick<RoundJudgement, 'measured'>,
): number | undefined {
  const axis = AXIS_OF[reading.quantity];
  if (axis && reading.pointId) return measured.points.get(reading.pointId)?.[axis]?.value;
  if (!reading.pointId || !reading.toPointId || !reading.measure) return undefined;
  const ends = {
    fromPointId: reading.pointId,
    toPointId: reading.toPointId,
    measure: reading.measure,
  };
  return distanceBetween(measured, ends)?.value;
}

/** Readings in the order taken become cycles: a load opens one, a release closes it. */
function pairCycles(observed: readonly Observed[], before: number | undefined): PullCycle[] {
  const cycles: PullCycle[] = [];
  const inOrder = [...observed].sort((a, b) => a.reading.sequence - b.reading.sequence);
  for (const {
    reading: { phase },
    amount: value,
  } of inOrder) {
    const open = cycles.at(-1);
    if (phase === 'underLoad' || !open || open.released !== undefined)
      cycles.push(phase === 'underLoad' ? { underLoad: value } : { released: value });
    else cycles[cycles.length - 1] = { ...open, released: value };
  }
  return cycles.map((cycle) => ({
    ...cycle,
    ...(cycle.underLoad !== undefined && cycle.released !== undefined
      ? { springBack: cycle.released - cycle.underLoad }
      : {}),
    ...(cycle.released !== undefined && before !== undefined ? { gained: cycle.released - before } : {}),
  }));
}
