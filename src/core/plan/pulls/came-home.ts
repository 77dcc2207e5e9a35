import { courseOf, regionOf, type ReadStroke } from '../../findings/strokes';
import { judgeRound } from '../../round/judge/judge-round';
import type { EarlierSpringBack } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';

/** A reading further off after release than under load by more than this is a mistake, mm. */
const CONTRADICTS = 1;

/** Whether a stroke is read further after release than under load: one of the two is mistyped. */
export const contradicts = ({ springBack }: ReadStroke): boolean => springBack < -CONTRADICTS;

/** What the metal of this car came home by, stroke for stroke, for the next of the same model: on what came before it last. */
export function springBacksOf(job: Job): Omit<EarlierSpringBack, 'id' | 'jobId' | 'ordinal'>[] {
  const judgements = job.rows.rounds.map((round) => judgeRound(job, round));
  const read = job.pulls.flatMap((pull) => {
    const { section, ...region } = regionOf(job, pull);
    if (section === undefined) return [];
    const judgement = judgements.find(({ round }) => round.id === pull.roundId);
    return courseOf(job, pull, judgement)
      .strokes.filter((stroke) => !contradicts(stroke))
      .map(({ at, springBack: by, gained }) => ({ at, row: { section, ...region, by, gained, car: job.row.name } }));
  });
  const own = read.toSorted((a, b) => a.at.localeCompare(b.at)).map(({ row }) => row);
  return [...job.rows.springBacks.map(({ id: _, jobId: __, ordinal: ___, ...row }) => row), ...own];
}
