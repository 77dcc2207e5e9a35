import type { Displacement } from '../../maths/geometry/vector';
import { judgeRound } from '../../round/judge/judge-round';
import type { Round } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';

/** The movements another round found, by point. */
export interface Ghost {
  readonly number: number;
  readonly name: string;
  readonly movements: Readonly<Record<string, Displacement<'chart'>>>;
}

/** The movements of the other rounds of this shell, for the sheet to draw behind the one in hand. */
export function ghostsOf(job: Job, round: Round): Ghost[] {
  const read = new Set(job.rows.readings.map(({ roundId }) => roundId));
  return job.ownRounds
    .filter((other) => other.id !== round.id && read.has(other.id))
    .map((other) => ({
      number: other.number,
      name: other.name,
      movements: Object.fromEntries(
        judgeRound(job, other).points.flatMap(({ point, judged }) => (judged ? [[point.id, judged.deviation.by]] : [])),
      ),
    }))
    .filter(({ movements }) => Object.keys(movements).length > 0);
}
