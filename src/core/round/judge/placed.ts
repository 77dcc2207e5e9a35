import type { Frame, Position } from '../../maths/geometry/vector';
import type { Joint } from '../../maths/linear/joint';
import type { MirrorPair } from '../../maths/symmetry/centre-plane';
import { carried, vehicleAxes } from '../../maths/symmetry/vehicle-axes';
import type { Job } from '../../shell/job/job';
import { jointOf } from '../../survey/prediction';
import type { RoundJudgement } from './judgement';

/** A round's located points in axes they are spoken of in, by point identity, mm. */
export interface PlacedIn<F extends Frame> {
  readonly axes: F;
  readonly positions: ReadonlyMap<string, Position<F>>;
  readonly joint: Joint<F>;
}

/** The chart's axes, or, where there is no chart, vehicle axes made from the points themselves. */
export type PlacedRound = PlacedIn<'chart'> | PlacedIn<'vehicle'>;

/** Calls what is the same in either axes with the round in the axes it has. */
export const inItsAxes = <R>(placed: PlacedRound, use: <F extends PlacedRound['axes']>(placed: PlacedIn<F>) => R): R =>
  placed.axes === 'chart' ? use(placed) : use(placed);

export type PlacedResult =
  { readonly ok: true; readonly placed: PlacedRound } | { readonly ok: false; readonly reason: string };

/** Left and right points meant to mirror each other, by their identities. */
export function mirrorPairs(job: Job): MirrorPair[] {
  return job.rows.points.flatMap((left) => {
    const right = job.opposite(left.id);
    const meant = left.side === 'left' && right && left.mirrored && right.mirrored;
    return meant ? [{ left: left.id, right: right.id }] : [];
  });
}

export const centrePoints = (job: Job): string[] =>
  job.rows.points.filter(({ side, mirrored }) => side === 'centre' && mirrored).map(({ id }) => id);

/** Brings a judged round into the axes its points are spoken of in. */
export function placeRound(job: Job, judgement: RoundJudgement): PlacedResult {
  const { round, located, alignment, references } = judgement;
  const { solution } = judgement.net;
  if (!solution || located.size === 0)
    return { ok: false, reason: `round ${round.number} has no located points: measure more of it` };
  const joint = jointOf<'round'>(solution);
  const raw = new Map([...located].map(([id, { position }]) => [id, position]));
  if (alignment.ok) {
    const { motion } = alignment;
    return { ok: true, placed: { axes: 'chart', positions: carried(motion, raw), joint: joint.turned(motion) } };
  }
  if (references.points.size > 0) return { ok: false, reason: `round ${round.number}: ${alignment.reason}` };
  const axes = vehicleAxes({ positions: raw, joint, pairs: mirrorPairs(job), centre: centrePoints(job) });
  if (!axes.ok) return { ok: false, reason: `round ${round.number}: ${axes.reason}` };
  const { motion } = axes;
  return { ok: true, placed: { axes: 'vehicle', positions: carried(motion, raw), joint: joint.turned(motion) } };
}

/** One standard deviation of a point, the mean of its axes, mm. */
export function meanSd<F extends Frame>({ joint }: PlacedIn<F>, id: string): number {
  const own = joint.block(id);
  return Math.sqrt(Math.max(0, (own[0]! + own[4]! + own[8]!) / 3));
}
