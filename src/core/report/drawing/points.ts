import type { Vector } from '../../maths/geometry/vector';
import type { JobRows } from '../../shell/job/job-rows';
import type { RoundJudgement } from '../../round/judge/judgement';
import { jointCovariance } from '../../round/net/net';
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
  /** Covariance of the point as the round knows it, 3×3 row major, mm². */
  readonly spread?: readonly number[];
}

export interface SheetFigure {
  readonly points: readonly SheetPoint[];
  readonly lines: readonly (readonly [Vector, Vector])[];
}

/**
 * What the sheet shows of a judged round: every point with a reference position, and the outline. Where
 * no reference gives positions at all, the shape the readings themselves make.
 */
export function sheetFigure(rows: JobRows, judgement: RoundJudgement): SheetFigure {
  const position = (id: string): Vector | undefined => {
    const row = judgement.references.points.get(id)?.row;
    if (row) return [row.x, row.y, row.z];
    const beside = rows.points.find((point) => point.id === id)?.substituteForId;
    if (beside && judgement.references.points.has(beside)) return position(beside);
    return judgement.references.points.size === 0 ? judgement.located.get(id)?.position : undefined;
  };
  const { solution } = judgement.net;
  const joint = solution && jointCovariance(solution);
  return {
    points: judgement.points.flatMap(({ point, control, judged }) => {
      const at = position(point.id);
      if (!at) return [];
      const spread = joint && judgement.located.has(point.id) ? joint(point.code, point.code) : undefined;
      const common = {
        id: point.id,
        code: point.code,
        name: point.name,
        position: at,
        control,
        ...(spread ? { spread } : {}),
      };
      if (!judged) return [common];
      const { dx, dy, dz } = judged.deviation;
      return [{ ...common, movement: [dx, dy, dz] as Vector, verdict: judged.verdict }];
    }),
    lines: rows.memberLines.flatMap((line) => {
      const [from, to] = [position(line.fromPointId), position(line.toPointId)];
      return from && to ? [[from, to] as const] : [];
    }),
  };
}
