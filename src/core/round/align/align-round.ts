import { deviationOf, fitSelected, rootMeanSquare, type RigidMotion } from '../../maths/rigid/fit';
import type { Position, Vector } from '../../maths/geometry/vector';
import type { Round } from '../../shell/job/entities';
import type { JobRows } from '../../shell/job/job-rows';
import type { ChosenReferences } from '../../shell/references/chosen';
import { disturbedPoints } from '../observe/disturbed';
import type { LocatedPoint } from '../observe/measured';

export type RoundAlignment =
  | {
      readonly ok: true;
      readonly motion: RigidMotion;
      readonly rms: number;
      readonly controlIds: readonly string[];
      /** Chosen as control, but pulled on or clamped since they were last measured. */
      readonly setAside: readonly string[];
    }
  | { readonly ok: false; readonly reason: string };

/** Points a net has located and what they are compared with. */
export interface Located {
  readonly located: ReadonlyMap<string, LocatedPoint>;
  readonly references: ChosenReferences;
}

const referencePosition = (references: ChosenReferences, pointId: string): Position<'chart'> | undefined => {
  const chosen = references.points.get(pointId);
  return chosen && [chosen.row.x, chosen.row.y, chosen.row.z];
};

/** A point held fixed has no spread, but a weight must stay finite, mm. */
const SMALLEST_SIGMA = 0.05;

/** A located point with its reference, the trust in the reference added to the variance. */
export function uncertainPoint(id: string, { located, references }: Located) {
  const { position, variance } = located.get(id)!;
  const trust = references.points.get(id)!.sd ** 2;
  const total: Vector = [variance[0] + trust, variance[1] + trust, variance[2] + trust];
  return {
    id,
    measured: position,
    reference: referencePosition(references, id)!,
    trust,
    sigma: Math.max(Math.sqrt((total[0] + total[1] + total[2]) / 3), SMALLEST_SIGMA),
  };
}

export function alignRound(
  rows: JobRows,
  round: Round,
  controlIds: readonly string[],
  { located, references }: Located,
): RoundAlignment {
  const codeOf = new Map(rows.points.map((point) => [point.id, point.code]));
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
  const disturbed = disturbedPoints(rows, round);
  const setAside = controlIds.filter((id) => disturbed.has(id));
  const usable = controlIds.filter((id) => located.has(id) && references.points.has(id) && !disturbed.has(id));
  const fit = fitSelected(usable.map((id) => uncertainPoint(id, { located, references })));
  if (!fit.ok) {
    const unusable = controlIds.filter((id) => !usable.includes(id)).map((id) => codeOf.get(id));
    const missing =
      unusable.length > 0
        ? ` (${unusable.join(', ')}: not located, without a reference, or pulled on or clamped since)`
        : '';
    return { ok: false, reason: fit.reason + missing };
  }
  const deviations = usable.map((id) => deviationOf(fit.motion, uncertainPoint(id, { located, references })));
  return {
    ok: true,
    motion: fit.motion,
    rms: rootMeanSquare(deviations),
    controlIds: usable,
    setAside,
  };
}
