import type { Point, PointCondition, Round } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';

const OUT_OF_REACH: ReadonlySet<PointCondition['kind']> = new Set(['buried', 'suspension', 'gone']);

/** What stands in the way of each point in a round, by point identity; clear points are absent. */
export function conditionsOf(job: Job, round: Pick<Round, 'id'>): Map<string, PointCondition['kind']> {
  const last = new Map<string, PointCondition['kind']>();
  for (const each of job.rows.pointConditions) {
    if (each.roundId !== round.id) continue;
    if (each.kind === 'clear') last.delete(each.pointId);
    else last.set(each.pointId, each.kind);
  }
  return last;
}

/** Points that can be read now: not buried, not gone, not behind the suspension. */
export function reachablePoints(job: Job, round: Pick<Round, 'id'>): Point[] {
  const conditions = conditionsOf(job, round);
  return job.rows.points.filter(({ id }) => !OUT_OF_REACH.has(conditions.get(id) ?? 'clear'));
}
