import { judgeRound } from '../round/judge/judge-round';
import { pointsThatGo } from '../shell/cut-metal';
import type { SetUp } from '../shell/job/entities';
import type { Job } from '../shell/job/job';

/** A support that stands on metal which is going to be cut. */
export interface SupportToTie {
  readonly pointId: string;
  /** The panel it goes with. */
  readonly part: string;
}

export interface SupportTie {
  readonly going: readonly SupportToTie[];
  /** So many mounts stand on metal that stays: three and more can carry on. */
  readonly staying: number;
  /** The round in which old and new support were read together, while both existed. */
  readonly tiedBy?: string;
}

const FEWEST = 3;

/**
 * Where some mount stands on metal that will be replaced: whether others can carry on, and whether one round has located
 * them together with it, so that what follows can be compared with what went before. Undefined where no mount goes.
 */
export function supportTie(job: Job, { id }: Pick<SetUp, 'id'>): SupportTie | undefined {
  const gone = pointsThatGo(job);
  const on = job.rows.mounts.flatMap(({ setUpId, pointId }) => (setUpId === id && pointId !== null ? [pointId] : []));
  const going = on.flatMap((pointId) => (gone.has(pointId) ? [{ pointId, part: gone.get(pointId)! }] : []));
  if (going.length === 0) return undefined;
  const staying = on.filter((pointId) => !gone.has(pointId));
  const tied = job.ownRounds.findLast((round) => {
    const { located } = judgeRound(job, round);
    return (
      going.every(({ pointId }) => located.has(pointId)) &&
      staying.filter((pointId) => located.has(pointId)).length >= FEWEST
    );
  });
  const enough = staying.length >= FEWEST;
  return { going, staying: staying.length, ...(enough && tied ? { tiedBy: tied.name } : {}) };
}
