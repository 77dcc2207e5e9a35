import type { Round } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';

/**
 * Points that were pulled on, or held the shell while it was pulled, and have not been read in this round since:
 * they are not control until they are re-checked.
 */
export function disturbedPoints(job: Job, round: Round): Set<string> {
  const loadedAt = new Map<string, string>();
  const pulls = new Map(job.pulls.map((pull) => [pull.id, pull]));
  for (const { pullId, kind, at } of job.pullEvents) {
    const pull = pulls.get(pullId);
    if (kind !== 'loaded' || !pull) continue;
    const holds = job.rows.holds.filter(({ itemId }) => itemId === pullId).map(({ pointId }) => pointId);
    for (const id of [pull.pointId, ...holds]) if ((loadedAt.get(id) ?? '') < at) loadedAt.set(id, at);
  }
  const lastRead = new Map<string, string>();
  for (const { pointId, toPointId, takenAt } of job.standingReadings(round))
    for (const id of [pointId, toPointId]) if (id && (lastRead.get(id) ?? '') < takenAt) lastRead.set(id, takenAt);
  // A round taken before the pull saw the points as they were then.
  const roundEnd = round.closedAt ?? '9999';
  return new Set(
    [...loadedAt].flatMap(([id, at]) =>
      at < roundEnd && at > (lastRead.get(id) ?? '') && at > round.startedAt ? [id] : [],
    ),
  );
}
