import { judgeRound } from '../../round/judge/judge-round';
import type { Job } from '../../shell/job/job';
import { lossesBeforeCut, type BeforeCut, type LeavingPoint } from '../../walk/before-cut';

/** A panel that is to be replaced, and the codes of the points that leave with it. */
export interface PlannedPanel {
  readonly id: string;
  readonly part: string;
  readonly codes: readonly string[];
}

/** What the place for cutting shows: each panel with what dies with it and what is to be read first. */
export interface CutPage {
  readonly points: readonly { readonly id: string; readonly code: string }[];
  readonly panels: readonly PlannedPanel[];
  /** The round it rests on; absent before anything was read. */
  readonly round?: { readonly name: string; readonly open: boolean };
  readonly losses: readonly ToldLoss[];
}

export interface ToldLoss {
  readonly panelId: string;
  readonly dimensions: readonly string[];
  readonly points: readonly ToldPoint[];
}

export type ToldPoint = Omit<LeavingPoint, 'take' | 'pointId'> & {
  readonly code: string;
  readonly take: readonly (Pick<BeforeCut, 'quantity' | 'expected'> & { readonly other?: string })[];
};

export function plannedPanels(job: Job): PlannedPanel[] {
  return job.panels.map(({ id, part }) => {
    const going = job.rows.panelPoints.filter(({ panelId, fate }) => panelId === id && fate === 'goes');
    return { id, part, codes: going.map(({ pointId }) => job.code(pointId)) };
  });
}

export function cutPage(job: Job): CutPage {
  const common = { points: job.rows.points.map(({ id, code }) => ({ id, code })), panels: plannedPanels(job) };
  const round = job.ownRounds.at(-1);
  if (!round || common.panels.length === 0) return { ...common, losses: [] };
  const dimension = new Map(job.rows.dimensions.map(({ id, code }) => [id, code]));
  return {
    ...common,
    round: { name: round.name, open: round.closedAt === null },
    losses: lossesBeforeCut(job, judgeRound(job, round)).map(({ panelId, points, dimensionIds }) => ({
      panelId,
      dimensions: dimensionIds.map((id) => dimension.get(id)!),
      points: points.map(({ pointId, take, ...figures }) => ({
        ...figures,
        code: job.code(pointId),
        take: take.map(({ otherId, ...reading }) => ({ ...reading, ...(otherId ? { other: job.code(otherId) } : {}) })),
      })),
    })),
  };
}
