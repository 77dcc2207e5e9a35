import type { Joint, WeldMark, WeldSeam, WeldStretch } from '@/core/shell/job/entities';
import type { WeldedElsewhere } from '@/core/plan/weld-order/shrinkage';
import type { Queryable } from './database';
import { columns } from './table';

/** The joints of all jobs but one on which somebody read what they shrank across. */
export async function weldedElsewhere(db: Queryable, jobId: string): Promise<WeldedElsewhere[]> {
  const marks = await db.query<WeldMark>(
    `select ${columns('weldMarks')} from weld_mark where runs = 'across' and job_id <> $1 order by at`,
    [jobId],
  );
  if (marks.length === 0) return [];
  const ids = [[...new Set(marks.map(({ seamId }) => seamId))]];
  const [seams, joints, stretches] = await Promise.all([
    db.query<WeldSeam>(`select ${columns('weldSeams')} from weld_seam where id = any($1::uuid[])`, ids),
    db.query<Joint>(`select ${columns('joints')} from joint where id = any($1::uuid[])`, ids),
    db.query<WeldStretch>(`select ${columns('weldStretches')} from weld_stretch where seam_id = any($1::uuid[])`, ids),
  ]);
  return seams.map((seam) => ({
    seam,
    joint: joints.find(({ id }) => id === seam.id)!,
    stretches: stretches.filter(({ seamId }) => seamId === seam.id),
    marks: marks.flatMap((mark) => (mark.seamId === seam.id ? [mark] : [])),
  }));
}
