import { distance, dot, norm, scale, subtract, type Vector } from '../maths/geometry/vector';
import { AXIS_OF } from '../round/observe/measured';
import { placedPosition, type RoundJudgement } from '../round/judge/judgement';
import { extentOf, sectionAt, type Section } from '../shell/sections';
import { WAYS, type EarlierSpringBack, type Pull, type Reading } from '../shell/job/entities';
import type { Job } from '../shell/job/job';
import { referencePosition } from '../shell/references/chosen';
import { pullProgress, valueBefore, type PullProgress } from './brace-pull';

/** One stroke as it was read, along the aim of its pull from where the place stood before the first, mm. */
export interface ReadStroke {
  readonly at: string;
  readonly loaded: number;
  readonly rested: number;
  readonly springBack: number;
  /** How far the place stayed, of this stroke alone. */
  readonly gained: number;
}

/** How a pull goes on: what is read of it, along its aim. */
export interface PullCourse {
  /** The quantity that shows its aim best, and how much of it a millimetre along the aim is. */
  readonly subject?: PullProgress['subject'];
  readonly share: number;
  /** What was read there before the first stroke, mm. */
  readonly before?: number;
  readonly strokes: readonly ReadStroke[];
  /** Loaded and not let go yet: how far along the aim it stands under load. */
  readonly underLoad?: number;
  /** Along the aim, after the last release, mm. */
  readonly rested: number;
}

/** A quantity that shows less of the aim than this does not tell how the pull goes. */
const SHOWS = 0.3;

/** The direction a pull's force goes: its own, or that of its aim. */
export function directionOf({ dirX, dirY, dirZ, aimX, aimY, aimZ }: Omit<Pull, 'id' | 'jobId'>): Vector {
  const said: Vector | undefined = dirX === null || dirY === null || dirZ === null ? undefined : [dirX, dirY, dirZ];
  const by = said && norm(said) > 0 ? said : ([aimX, aimY, aimZ] as const);
  return norm(by) > 0 ? scale(by, 1 / norm(by)) : [1, 0, 0];
}

export const aimVector = ({ aimX, aimY, aimZ }: Pick<Pull, 'aimX' | 'aimY' | 'aimZ'>): Vector => [aimX, aimY, aimZ];

/** How much of a quantity a millimetre of the pull's place along its aim makes. */
export function shareOf(
  job: Job,
  pull: Pull,
  { quantity, pointId, toPointId, measure }: Pick<Reading, 'quantity' | 'pointId' | 'toPointId' | 'measure'>,
): number {
  const aim = aimVector(pull);
  const unit = norm(aim) > 0 ? scale(aim, 1 / norm(aim)) : directionOf(pull);
  const axis = AXIS_OF[quantity];
  if (axis) return pointId === pull.pointId ? unit[{ x: 0, y: 1, z: 2 }[axis]]! : 0;
  const other = pointId === pull.pointId ? toPointId : toPointId === pull.pointId ? pointId : null;
  if (!other) return 0;
  const [at, to] = [pull.pointId, other].map((id) => referencePosition(job.references, id));
  if (!at || !to || distance(at, to) === 0) return 0;
  const line = subtract(at, to);
  const flat: Vector = measure === 'level' ? [line[0], line[1], 0] : line;
  return norm(flat) > 0 ? dot(unit, flat) / norm(flat) : 0;
}

const QUANTITIES = ['length', 'width', 'height'] as const;

/** The one quantity to read a pull by: the distance between its two ends, else the coordinate its aim goes along most. */
export function shownBy(pull: Pull): PullProgress['subject'] {
  const { pointId, againstPointId: toPointId } = pull;
  if (toPointId !== null) return { quantity: 'distance', pointId, toPointId, measure: 'tip' };
  const by = aimVector(pull).map(Math.abs);
  return { quantity: QUANTITIES[by.indexOf(Math.max(...by))]!, pointId, toPointId: null, measure: null };
}

/** What that was read as in the round the pull was planned from; where it was not, where the round put the point, mm. */
export function shownBefore(pull: Pull, judgement: RoundJudgement | undefined): number | undefined {
  if (!judgement) return undefined;
  const subject = shownBy(pull);
  const [axis, k] = [AXIS_OF[subject.quantity], QUANTITIES.findIndex((each) => each === subject.quantity)];
  const read = valueBefore(subject, judgement);
  return read ?? (axis ? placedPosition(judgement, pull.pointId)?.[k] : undefined);
}

/** What was read of a pull, along its aim. */
export function courseOf(job: Job, pull: Pull, judgement: RoundJudgement | undefined): PullCourse {
  const progress = pullProgress(job, pull, judgement);
  const shares = progress.map(({ subject }) => shareOf(job, pull, subject));
  const best = shares.reduce((most, share, i) => (Math.abs(share) > Math.abs(shares[most] ?? 0) ? i : most), 0);
  const share = shares[best] ?? 0;
  const shown = progress[best];
  if (!shown || Math.abs(share) < SHOWS) {
    const before = shownBefore(pull, judgement);
    const subject = shownBy(pull);
    const own = shareOf(job, pull, subject);
    const read = before === undefined || Math.abs(own) < SHOWS ? {} : { subject, before };
    return { share: own, strokes: [], rested: 0, ...read };
  }
  const own = shownBy(pull);
  const isOwn = own.quantity === shown.subject.quantity && own.pointId === shown.subject.pointId;
  const ofRound = isOwn ? shownBefore(pull, judgement) : undefined;
  // Where nothing was read before it, the first release stands for it, less what is told of it: nothing.
  const before = shown.before ?? ofRound ?? shown.cycles.find(({ released }) => released !== undefined)?.released;
  const { subject, cycles } = shown;
  if (before === undefined) return { subject, share, strokes: [], rested: 0 };
  const at = (value: number) => (value - before) / share;
  const times = timesOf(job, pull);
  const strokes: ReadStroke[] = [];
  let rested = 0;
  let underLoad: number | undefined;
  cycles.forEach(({ underLoad: on, released: off }, k) => {
    underLoad = on !== undefined && off === undefined ? at(on) : undefined;
    if (off === undefined) return;
    const now = at(off);
    if (on !== undefined)
      strokes.push({
        ...{ at: times[k] ?? '', loaded: at(on), rested: now },
        ...{ springBack: at(on) - now, gained: now - rested },
      });
    rested = now;
  });
  return { subject, share, before, strokes, rested, ...(underLoad === undefined ? {} : { underLoad }) };
}

const timesOf = (job: Job, pull: Pull): string[] =>
  job.pullReadings(pull).flatMap(({ phase, takenAt }) => (phase === 'released' ? [takenAt] : []));

/** Pulls of one region spring back alike: the same end, the same side, the same way. */
export interface Region extends Pick<EarlierSpringBack, 'side' | 'way'> {
  /** Empty where nobody knows where the point lies. */
  readonly section: Section | undefined;
}

export const isRegion = (a: Region, b: Region): boolean =>
  a.section === b.section && a.side === b.side && a.way === b.way;

export function regionOf(job: Job, pull: Pull): Region {
  const xs = job.rows.points.flatMap(({ id }) => referencePosition(job.references, id)?.[0] ?? []);
  const at = referencePosition(job.references, pull.pointId);
  const by = directionOf(pull).map(Math.abs);
  const way = WAYS[by.indexOf(Math.max(...by))]!;
  return { section: at && sectionAt(at[0], extentOf(xs)), side: job.point(pull.pointId).side, way };
}

/** How far metal comes home when it is let go, mm: the next time, and one standard deviation of that. */
export interface SpringBack {
  readonly by: number;
  readonly sd: number;
  /** Strokes it was learned from. */
  readonly strokes: number;
}

/** From one stroke to the next it differs by so much, and wanders by so much, mm; both one standard deviation. */
const FROM_STROKE = 0.45;
const WANDERS = 0.35;
/** A stroke of which no more stayed than this did not go past yield: it would have come home further, had it been pulled further. */
const STAYED = 0.4;

/**
 * Past yield the part that comes home is nearly the same length each time. Starting from what was expected, each stroke is
 * weighed against what was known before it (Kalman 1960, a level that wanders); one that did not go past yield only says that it
 * is at least so much.
 *
 * @param expected before anything was tried here
 * @param sigma    one standard deviation of a single reading, mm
 */
export function learnSpringBack(
  expected: Pick<SpringBack, 'by' | 'sd'>,
  strokes: readonly Pick<ReadStroke, 'springBack' | 'gained'>[],
  sigma: number,
): SpringBack {
  let { by } = expected;
  let variance = expected.sd ** 2;
  const read = 2 * sigma ** 2 + FROM_STROKE ** 2;
  strokes.forEach(({ springBack, gained }, k) => {
    if (k > 0) variance += WANDERS ** 2;
    if (gained < STAYED && springBack < by) return;
    const weight = variance / (variance + read);
    by += weight * (springBack - by);
    variance *= 1 - weight;
  });
  return { by, sd: Math.sqrt(variance + WANDERS ** 2 + read), strokes: strokes.length };
}

/** What the next stroke is to reach, along the aim from where the place stood before the first, mm. */
export interface NextMark {
  readonly target: number;
  /** Where it is expected to rest, and two standard deviations of that. */
  readonly rest: number;
  readonly plusMinus: number;
  /** It goes no further for now than so much beyond what was last held. */
  readonly isCut: boolean;
}

/** A mark goes no further beyond the last reading under load than this, mm. */
export const BEYOND = 3;
/** The first stroke of a pull goes for no more than this share of the way. */
const FIRST_SHARE = 0.5;
/** Nearer than this to its aim a pull is done, mm. */
export const NEAR_AIM = 0.4;

/**
 * The next mark is the aim plus what comes home, but never the whole way at once, and only a few millimetres beyond what was
 * last held.
 *
 * @param wanted how far along its aim the place is to have come, mm
 * @returns undefined where it is there
 */
export function nextMark(
  wanted: number,
  { strokes, rested }: Pick<PullCourse, 'strokes' | 'rested'>,
  spring: SpringBack,
): NextMark | undefined {
  if (wanted - rested <= NEAR_AIM) return undefined;
  const first = strokes.length === 0;
  const aim = first ? Math.max(Math.min(wanted, 1), FIRST_SHARE * wanted) : wanted;
  const most = first ? Infinity : Math.max(...strokes.map(({ loaded }) => loaded)) + BEYOND;
  // As far as it comes home for certain: the first must not go past its aim.
  const whole = aim + (first ? Math.max(0, spring.by - spring.sd) : spring.by);
  const target = Math.min(whole, most);
  return {
    ...{ target, isCut: target < whole - 0.05, plusMinus: 2 * spring.sd },
    rest: Math.max(rested, target - spring.by),
  };
}
