import { rangeOfFactor, spreadOf, weighedFactor, type FactorRange, type Ratio } from '../../maths/statistics/factor';
import type { Joint, WeldMark, WeldSeam, WeldStretch } from '../../shell/job/entities';
import { comingTogether, freeShortening, tendonForce } from '../../structure/shrinkage';
import { grouped } from '../../maths/grouped';
import { layOut, type WeldLayout } from './layout';
import { STEEL_HEAT, weldTask } from './schools';

/** What a seam does by itself as it cools. */
export interface SeamShrinkage {
  /** With which its ends pull at each other where nothing gives, N; and how much shorter it is where nothing holds, mm. */
  readonly tendon: number;
  readonly free: number;
  /** How far both its sides come together, mm. */
  readonly across: number;
}

/** @returns undefined where nothing is melted */
export function seamShrinkage(
  seam: WeldSeam,
  joint: Pick<Joint, 'thicknessA' | 'thicknessB'>,
  layout: Pick<WeldLayout, 'places'>,
): SeamShrinkage | undefined {
  const { plugs } = weldTask(seam, joint, layout);
  if (plugs.length === 0) return undefined;
  const perLength = plugs.reduce((sum, { energy }) => sum + energy, 0) / seam.long;
  const [a, b] = [joint.thicknessA ?? joint.thicknessB ?? 1, joint.thicknessB ?? joint.thicknessA ?? 1];
  // In a butt joint each side shrinks in its own sheet; in a lap one lies on the other.
  const thickness = seam.kind === 'butt' ? (a + b) / 2 : a + b;
  return {
    tendon: tendonForce(perLength, STEEL_HEAT),
    free: freeShortening(seam.long),
    across: comingTogether(perLength, thickness, STEEL_HEAT),
  };
}

/** What one joint really did beside what was worked out of it, mm; `sd` is of what was read. */
export interface LoggedJoint {
  readonly seamId: string;
  readonly shrank: number;
  readonly sd: number;
  readonly modelled: number;
}

/** How much more seams of this shop shrink than the model, and how many of its joints that rests on. */
export interface ShrinkFactor extends FactorRange {
  readonly joints: number;
}

/** Before a joint was logged shrinkage is known to a factor of three. */
const PRIOR = spreadOf(3);
/** One joint shrinks otherwise than the next of the same kind: to a factor of 1.6. */
const EACH = spreadOf(1.6);
/** Until so many joints are logged the range is no narrower than before any was. */
export const ENOUGH_JOINTS = 5;

/**
 * The factor on worked-out shrinkage, from what this shop's joints did. Marks of one joint tell of that joint alone; joints
 * scatter, and the range is that of the next one, not of their mean.
 */
export function shrinkFactor(logged: readonly LoggedJoint[]): ShrinkFactor {
  const joints = [
    ...grouped(
      logged.filter(({ modelled }) => modelled > 0),
      ({ seamId }) => seamId,
    ).values(),
  ];
  const found = joints.map((marks): Ratio => {
    // What shrank less than it can be read is taken as that much.
    const ratios = marks.map(({ shrank, sd, modelled }) => {
      const seen = Math.max(shrank, sd);
      return { ratio: seen / modelled, sd: sd / seen };
    });
    const weight = ratios.reduce((sum, { sd }) => sum + sd ** -2, 0);
    const log = ratios.reduce((sum, { ratio, sd }) => sum + Math.log(ratio) / sd ** 2, 0) / weight;
    return { ratio: Math.exp(log), sd: Math.hypot(1 / Math.sqrt(weight), EACH) };
  });
  const mean = weighedFactor(found, PRIOR);
  const enough = found.length >= ENOUGH_JOINTS;
  const scatter = Math.sqrt(
    found.reduce((sum, { ratio }) => sum + (Math.log(ratio) - mean.log) ** 2, 0) / Math.max(1, found.length - 1),
  );
  const sd = enough ? Math.hypot(mean.sd, Math.max(EACH, scatter)) : Math.max(PRIOR, mean.sd);
  return { ...rangeOfFactor({ log: mean.log, sd }), joints: found.length };
}

/** What the marks across a seam said, beside what was worked out of it. */
export function loggedAcross(marks: readonly WeldMark[], shrinkage: SeamShrinkage | undefined): LoggedJoint[] {
  return shrinkage === undefined
    ? []
    : marks.flatMap((mark) => (mark.runs === 'across' ? [loggedOf(mark, shrinkage.across)] : []));
}

export const loggedOf = ({ seamId, before, cold, sd }: WeldMark, modelled: number): LoggedJoint => ({
  ...{ seamId, sd, modelled },
  shrank: before - cold,
});

/** A joint of another job of the shop, as it was marked out, and what was read of it. */
export interface WeldedElsewhere {
  readonly seam: WeldSeam;
  readonly joint: Pick<Joint, 'thicknessA' | 'thicknessB' | 'factorySpots'>;
  readonly stretches: readonly WeldStretch[];
  readonly marks: readonly WeldMark[];
}

export const loggedElsewhere = (welds: readonly WeldedElsewhere[]): LoggedJoint[] =>
  welds.flatMap(({ seam, joint, stretches, marks }) =>
    loggedAcross(marks, seamShrinkage(seam, joint, layOut(seam, joint, stretches))),
  );
