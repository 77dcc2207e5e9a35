import { judgeRound } from '../../round/judge/judge-round';
import { judgeSeams, pairSeams, type SeamPair } from '../../round/judge/seams';
import type { Job } from '../../shell/job/job';

/** What the page of the gaps shows: the seams as the last round that read any found them. */
export interface GapsPage {
  readonly pairs: readonly SeamPair[];
  readonly roundName?: string;
}

export function gapsPage(job: Job): GapsPage {
  const last = job.ownRounds
    .map((round) => judgeRound(job, round))
    .findLast(({ measured }) => measured.gaps.length > 0);
  const unread = { measured: { points: new Map(), distances: [], gaps: [] }, references: job.references };
  return {
    pairs: pairSeams(judgeSeams(job, last ?? unread)),
    ...(last ? { roundName: last.round.name } : {}),
  };
}
