import type { Round } from '../../shell/job/entities';
import type { JobRows } from '../../shell/job/job-rows';
import { standingReadings } from './measured';

/**
 * Points that were pulled on, or clamped to hold the shell while it was pulled, and have not been read in
 * this round since: they are not control until they are re-checked. Where the shell was held is read from
 * the pull's note by the points' codes.
 */
export function disturbedPoints(rows: JobRows, round: Round): Set<string> {
  const loadedAt = new Map<string, string>();
  for (const { pullId, kind, at } of rows.pullEvents) {
    const pull = rows.pulls.find(({ id }) => id === pullId);
    if (kind !== 'loaded' || !pull) continue;
    const words = new Set(pull.heldAt.split(/[^\p{L}\p{N}]+/u).map((word) => word.toLowerCase()));
    const clamped = rows.points.filter(({ code }) => words.has(code.toLowerCase()));
    for (const id of [pull.pointId, ...clamped.map((point) => point.id)])
      if ((loadedAt.get(id) ?? '') < at) loadedAt.set(id, at);
  }
  const lastRead = new Map<string, string>();
  for (const { pointId, toPointId, takenAt } of standingReadings(rows, round))
    for (const id of [pointId, toPointId]) if (id && (lastRead.get(id) ?? '') < takenAt) lastRead.set(id, takenAt);
  // A round taken before the pull saw the points as they were then.
  const roundEnd = round.closedAt ?? '9999';
  return new Set(
    [...loadedAt].flatMap(([id, at]) =>
      at < roundEnd && at > (lastRead.get(id) ?? '') && at > round.startedAt ? [id] : [],
    ),
  );
}
