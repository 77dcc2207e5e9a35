import type { Job } from '../../shell/job/job';
import type { CutModel } from '../cut/cut-model';

/** Why metal will not be brought back by pulling: it tears, or comes back thin. */
export type TooFarGone =
  /** A finding at the point, in its own words. */
  | { readonly by: 'crease' | 'crack'; readonly text: string }
  /** So much of a member's section is gone, 0 … 1. */
  | { readonly by: 'rust'; readonly member: string; readonly gone: number };

/** From this share of a section gone on, pulling tears it. */
export const GONE = 0.4;

/** Whether the metal at a point is creased, torn or so thin that it should be replaced. */
export function tooFarGone(
  job: Job,
  { structure: { model } }: Pick<CutModel, 'structure'>,
  { pointId, node }: { readonly pointId: string; readonly node: number },
): TooFarGone | undefined {
  const about = new Set(
    job.rows.logSubjects.filter((subject) => subject.pointId === pointId).map(({ entryId }) => entryId),
  );
  for (const { id, text } of job.logEntries) {
    const sort = job.rows.findingDetails.find(({ entryId }) => entryId === id)?.sort;
    if (about.has(id) && (sort === 'crease' || sort === 'crack')) return { by: sort, text };
  }
  const thin = model.members
    .filter(({ from, to }) => from === node || to === node)
    .reduce<{ name: string; gone: number } | undefined>((most, { name, condition }) => {
      const gone = 1 - condition;
      return gone > (most?.gone ?? 0) ? { name, gone } : most;
    }, undefined);
  return thin && thin.gone >= GONE ? { by: 'rust', member: thin.name, gone: thin.gone } : undefined;
}
