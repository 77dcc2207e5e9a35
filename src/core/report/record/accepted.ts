import type { Round } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';

/** Points and dimensions whose deviation in this round somebody accepted with a reason. */
export function acceptedSubjects(job: Job, round: Pick<Round, 'id'>): ReadonlySet<string> {
  const entries = new Set(
    job.logEntries.filter((entry) => entry.kind === 'decision' && entry.roundId === round.id).map(({ id }) => id),
  );
  return new Set(
    job.rows.logSubjects.flatMap(({ entryId, acceptedDeviation, pointId, dimensionId }) =>
      entries.has(entryId) && acceptedDeviation !== null ? [(dimensionId ?? pointId)!] : [],
    ),
  );
}
