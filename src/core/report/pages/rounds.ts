import { judgeRound } from '../../round/judge/judge-round';
import type { Round } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';

/** One line of the list of rounds. */
export interface ListedRound {
  readonly round: Round;
  readonly readings: number;
  readonly inside: number;
  readonly outside: number;
  readonly undecided: number;
}

export function roundsPage(job: Job): ListedRound[] {
  return job.rows.rounds.map((round) => {
    const { points, dimensions } = judgeRound(job, round);
    const verdicts = [...points, ...dimensions].map(({ judged }) => judged?.verdict);
    const count = (verdict: string) => verdicts.filter((each) => each === verdict).length;
    return {
      round,
      readings: job.rows.readings.filter(({ roundId }) => roundId === round.id).length,
      inside: count('inside'),
      outside: count('outside'),
      undecided: count('undecided'),
    };
  });
}
