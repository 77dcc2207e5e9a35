import { deviationOf, fitSelected, rootMeanSquare } from '../../maths/rigid/fit';
import type { UncertainPoint } from '../../maths/rigid/uncertainty';
import type { Covariance, Motion, Position } from '../../maths/geometry/vector';
import type { Round } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { referencePosition, type ChosenReferences } from '../../shell/references/chosen';
import { jointOf } from '../../survey/prediction';
import { coordinatesOf, type RoundNet } from '../net/net';
import { disturbedPoints } from '../observe/disturbed';

/** A point the net has determined. */
export interface LocatedPoint {
  readonly pointId: string;
  readonly position: Position<'round'>;
  readonly covariance: Covariance<'round'>;
}

export type LocatedPoints = ReadonlyMap<string, LocatedPoint>;

export type RoundAlignment =
  | {
      readonly ok: true;
      readonly motion: Motion<'round', 'chart'>;
      readonly rms: number;
      readonly controlIds: readonly string[];
      /** Chosen as control, but pulled on or holding a pull since they were last measured. */
      readonly setAside: readonly string[];
    }
  | { readonly ok: false; readonly reason: string };

/** The points the net has determined, by their identities. */
export function locatedPoints({ solution }: RoundNet): LocatedPoints {
  if (!solution) return new Map();
  const joint = jointOf<'round'>(solution);
  return new Map(
    [...coordinatesOf(solution)].map(([pointId, position]) => [
      pointId,
      { pointId, position, covariance: joint.block(pointId) },
    ]),
  );
}

/** A point held fixed has no spread, but a weight must stay finite, mm. */
const SMALLEST_SIGMA = 0.05;

/** A located point with its reference, the trust in the reference added to the variance. */
export function uncertainPoint(
  id: string,
  located: LocatedPoints,
  references: ChosenReferences,
): UncertainPoint & { readonly sigma: number } {
  const { position, covariance } = located.get(id)!;
  const trust = references.points.get(id)!.sd ** 2;
  const mean = (covariance[0]! + covariance[4]! + covariance[8]!) / 3 + trust;
  return {
    id,
    measured: position,
    reference: referencePosition(references, id)!,
    trust,
    sigma: Math.max(Math.sqrt(mean), SMALLEST_SIGMA),
  };
}

/** Brings a solved round onto its references by the points chosen to be right. */
export function alignRound(
  job: Job,
  round: Round,
  controlIds: readonly string[],
  located: LocatedPoints,
): RoundAlignment {
  const references = job.referencesOf(round);
  if (controlIds.length === 0)
    return {
      ok: false,
      reason: 'no control points are chosen: choose at least three points to measure from',
    };
  if (located.size > 0 && ![...located.keys()].some((id) => references.points.has(id)))
    return {
      ok: false,
      reason:
        'no reference in use covers any located point: make one under References, or measure points that one covers',
    };
  const disturbed = disturbedPoints(job, round);
  const setAside = controlIds.filter((id) => disturbed.has(id));
  const usable = controlIds.filter((id) => located.has(id) && references.points.has(id) && !disturbed.has(id));
  const fit = fitSelected(usable.map((id) => uncertainPoint(id, located, references)));
  if (!fit.ok) {
    const unusable = controlIds.filter((id) => !usable.includes(id)).map((id) => job.code(id));
    const missing =
      unusable.length > 0
        ? ` (${unusable.join(', ')}: not located, without a reference, or pulled on or clamped since)`
        : '';
    return { ok: false, reason: fit.reason + missing };
  }
  const deviations = usable.map((id) => deviationOf(fit.motion, uncertainPoint(id, located, references)));
  return {
    ok: true,
    motion: fit.motion,
    rms: rootMeanSquare(deviations),
    controlIds: usable,
    setAside,
  };
}
