import type { Vector } from '../geometry/vector';
import type { JobRows } from '../job/job-rows';
import type { RoundJudgement } from '../round/judgement';
import type { Verdict } from '../tolerance/verdict';

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
}

export interface SheetFigure {
  readonly points: readonly SheetPoint[];
  readonly lines: readonly (readonly [Vector, Vector])[];
}

/** What the sheet shows of a judged round: every point with a reference position, and the outline. */
export function sheetFigure(rows: JobRows, judgement: RoundJudgement): SheetFigure {
  const position = (id: string): Vector | undefined => {
    const row = judgement.references.points.get(id)?.row;
    return row && [row.x, row.y, row.z];
  };
  return {
    points: judgement.points.flatMap(({ point, control, judged }) => {
      const at = position(point.id);
      if (!at) return [];
      const common = { id: point.id, code: point.code, name: point.name, position: at, control };
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
