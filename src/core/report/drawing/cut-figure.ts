import type { CutModel } from '../../plan/cut/cut-model';
import { placedPosition } from '../../round/judge/judgement';
import type { Job } from '../../shell/job/job';
import { referencePosition } from '../../shell/references/chosen';
import type { SheetFigure, SheetPoint } from './points';
import { shellDrawing } from './shell';

/** The shell as it is planned on: its structure drawn, and its points without any verdict. */
export function cutFigure(job: Job, { structure, latest }: Pick<CutModel, 'structure' | 'latest'>): SheetFigure {
  const { references } = job;
  const points = job.rows.points.flatMap(({ id, code, name }): SheetPoint[] => {
    const position = referencePosition(references, id) ?? (latest && placedPosition(latest, id));
    return position ? [{ id, code, name, position, control: false, read: true }] : [];
  });
  return { points, lines: [], shell: shellDrawing(structure) };
}
