import type { Vector } from '../../maths/geometry/vector';
import type { Job } from '../../shell/job/job';
import { roundJoint, type RoundJudgement } from '../../round/judge/judgement';
import { referencePosition } from '../../shell/references/chosen';
import type { ShellDrawing } from './shell';
import type { Verdict } from '../../maths/statistics/verdict';

/** A point as the sheet draws it. */
export interface SheetPoint {
  readonly id: string;
  readonly code: string;
  readonly name: string;
  /** Its reference position, chart axes, mm. */
  readonly position: Vector;
  /** Its deviation, chart axes, mm; absent where there is none yet. */
  readonly movement?: Vector;
  readonly verdict?: Verdict;
  readonly control: boolean;
  /** Something of it is read, but it has no verdict yet: the round is not aligned, or the point not located. */
  readonly read?: boolean;
  /** Covariance of the point as the round knows it, 3×3 row major, mm². */
  readonly spread?: readonly number[];
}

export interface SheetFigure {
  readonly points: readonly SheetPoint[];
  readonly lines: readonly (readonly [Vector, Vector])[];
  /** The shell around them; without it the lines alone say where one is. */
  readonly shell?: ShellDrawing;
}

/**
 * What the sheet shows of a judged round: every point with a reference position, and the outline. Where
 * no reference gives positions at all, the shape the readings themselves make.
 */
export function sheetFigure(job: Job, judgement: RoundJudgement): SheetFigure {
  const { references, located, alignment } = judgement;
  const position = (id: string): Vector | undefined => {
    const at = referencePosition(references, id);
    if (at) return at;
    const beside = job.pointOf(id)?.substituteForId;
    if (beside && references.points.has(beside)) return position(beside);
    return references.points.size === 0 ? located.get(id)?.position : undefined;
  };
  const own = roundJoint(judgement);
  const joint = own && alignment.ok ? own.turned(alignment.motion) : own;
  return {
    points: judgement.points.flatMap(({ point, control, judged, read }) => {
      const at = position(point.id);
      if (!at) return [];
      const spread = joint?.has(point.id) ? joint.block(point.id) : undefined;
      const common = {
        id: point.id,
        code: point.code,
        name: point.name,
        position: at,
        control,
        ...(spread ? { spread } : {}),
      };
      if (!judged) return [read.length > 0 || located.has(point.id) ? { ...common, read: true } : common];
      return [{ ...common, movement: judged.deviation.by, verdict: judged.verdict }];
    }),
    lines: job.rows.memberLines.flatMap((line) => {
      const [from, to] = [position(line.fromPointId), position(line.toPointId)];
      return from && to ? [[from, to] as const] : [];
    }),
  };
}
