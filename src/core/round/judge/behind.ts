import type { LogEntry, Reading, Round } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { checkObservations } from '../../survey/reliability';
import type { RoundJudgement } from './judgement';

/** A reading behind a figure, as the net sees it. */
export interface ReadingBehind {
  readonly reading: Reading;
  /** Weight 1/σ² as a share of the heaviest reading listed; absent where the net does not use it. */
  readonly weight?: number;
  /** How much of an error in it the others would show, 0 … 1. */
  readonly checked?: number;
  /** Residual by its own standard deviation. */
  readonly w?: number | null;
  /** Left out of the solution because it is doubted. */
  readonly leftOut: boolean;
}

/** The standing readings that touch any of these points, those between two of them first. */
export function readingsBehind(job: Job, judgement: RoundJudgement, pointIds: readonly string[]): ReadingBehind[] {
  const { solution, leftOut } = judgement.net;
  const checks = new Map(
    solution
      ? checkObservations(solution).flatMap((check) => {
          const reading = solution.survey.readings[check.observation.reading];
          return reading ? [[reading.id, check] as const] : [];
        })
      : [],
  );
  const touching = job
    .standingReadings(judgement.round)
    .filter(({ pointId, toPointId }) => [pointId, toPointId].some((id) => id && pointIds.includes(id)));
  const heaviest = Math.max(0, ...touching.map(({ id }) => weightOf(checks.get(id)?.observation.sigma)));
  const between = ({ pointId, toPointId }: Reading) =>
    pointIds.length > 1 && [pointId, toPointId].every((id) => id && pointIds.includes(id)) ? 0 : 1;
  return touching
    .sort((a, b) => between(a) - between(b) || a.sequence - b.sequence)
    .map((reading) => {
      const check = checks.get(reading.id);
      return {
        reading,
        leftOut: leftOut.includes(reading.id),
        ...(check
          ? { weight: weightOf(check.observation.sigma) / heaviest, checked: check.redundancy, w: check.w }
          : {}),
      };
    });
}

const weightOf = (sigma: number | undefined): number => (sigma ? 1 / sigma ** 2 : 0);

/** A step in the history of what was decided about a point or a dimension. */
export interface DecisionStep {
  readonly at: string;
  readonly author: string;
  readonly text: string;
  readonly reason: string;
  readonly round?: Round;
}

/** What was found, decided and chosen about a subject, oldest first. */
export function decisionsAbout(
  job: Job,
  subject: { readonly kind: 'point' | 'dimension'; readonly id: string },
): DecisionStep[] {
  const isAbout = (row: { pointId: string | null; dimensionId: string | null }) =>
    (subject.kind === 'point' ? row.pointId : row.dimensionId) === subject.id;
  const entries = new Set(job.rows.logSubjects.filter(isAbout).map(({ entryId }) => entryId));
  const logged = job.logEntries
    .filter(({ id }) => entries.has(id))
    .map((entry: LogEntry): DecisionStep => {
      const round = job.rows.rounds.find(({ id }) => id === entry.roundId);
      return {
        at: entry.at,
        author: entry.author,
        text: entry.text,
        reason: entry.reason,
        ...(round ? { round } : {}),
      };
    });
  const chosen = job.rows.referenceChoices.filter(isAbout).map(({ at, author, reason, referenceId }): DecisionStep => {
    const name = job.rows.references.find(({ id }) => id === referenceId)?.name;
    return { at, author, reason, text: name ? `Judged by ${name}.` : 'Judged by the best ranked reference again.' };
  });
  return [...logged, ...chosen].sort((a, b) => a.at.localeCompare(b.at));
}
