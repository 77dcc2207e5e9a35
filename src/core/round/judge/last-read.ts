import { onceFor } from '../../maths/once';
import type { Round } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { judgeRound } from './judge-round';
import { judgeSeams, type SeamJudgement } from './seams';
import type { RoundJudgement } from './judgement';

/** Every seam as the last round that read any of it found it. */
export interface SeamsRead {
  readonly seams: readonly SeamJudgement[];
  /** The round each was last read in, by the seam's identity. */
  readonly readIn: Readonly<Record<string, Pick<Round, 'id' | 'name'>>>;
  /** The last round that read a gap. */
  readonly last?: RoundJudgement;
}

export const seamsAsLastRead = onceFor((job: Job): SeamsRead => {
  const read = job.ownRounds
    .map((round) => judgeRound(job, round))
    .filter(({ measured }) => measured.gaps.length > 0)
    .map((judgement) => ({ judgement, seams: judgeSeams(job, judgement) }));
  const unread = { measured: { points: new Map(), distances: [], gaps: [] }, references: job.references };
  const lastRead = (i: number) => read.findLast(({ seams: of }) => of[i]!.stations.some(({ measured }) => measured));
  const seams = judgeSeams(job, unread).map((seam, i) => lastRead(i)?.seams[i] ?? seam);
  const last = read.at(-1)?.judgement;
  return {
    seams,
    readIn: Object.fromEntries(
      seams.flatMap(({ seam }, i) => {
        const round = lastRead(i)?.judgement.round;
        return round ? [[seam.id, { id: round.id, name: round.name }]] : [];
      }),
    ),
    ...(last ? { last } : {}),
  };
});

/** Every station of every seam as the round of these that read it last found it. */
export function stationsAsLastRead(job: Job, judgements: readonly RoundJudgement[]) {
  const byRound = judgements
    .filter(({ measured }) => measured.gaps.length > 0)
    .map((judgement) => ({ round: judgement.round.number, seams: judgeSeams(job, judgement) }))
    .reverse();
  return job.seams.map((seam, i) => ({
    seam,
    stations: (byRound[0]?.seams[i]?.stations ?? []).flatMap((_, k) => {
      const read = byRound.find(({ seams }) => seams[i]!.stations[k]!.measured);
      return read ? [{ ...read.seams[i]!.stations[k]!, round: read.round }] : [];
    }),
  }));
}
