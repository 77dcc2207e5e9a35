import type { CalledPanel } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { asItIs } from './fewest-settings';
import type { HangResult, HangStation } from './hang';
import type { Figures } from './seat';

/** What makes gaps of an opening that is wrong look right: what is under the hinges now or was left out there, or what is advised. */
export type Hidden = { readonly by: 'advice' } | { readonly by: 'now'; readonly settings: readonly string[] };

/** Whether gaps and flush of a panel are inside their limits only by its settings, or would be. */
export function hidden(
  job: Job,
  { id }: Pick<CalledPanel, 'id'>,
  stations: readonly HangStation[],
  hang: HangResult,
): Hidden | undefined {
  const inside = (figures: readonly Figures[]) =>
    stations.every(({ gap, flush }, i) => {
      const { gap: g, flush: f = flush?.target ?? 0 } = figures[i]!;
      return Math.abs(g - gap.target) <= gap.limit && (!flush || Math.abs(f - flush.target) <= flush.limit);
    });
  const packed = job.rows.panelSettings.filter(
    ({ hungId, kind, inNow }) => hungId === id && kind !== 'hold' && inNow !== 0,
  );
  if (packed.length > 0 && inside(stations.map(asItIs))) return { by: 'now', settings: packed.map(({ name }) => name) };
  const turned = hang.ok && hang.plan.settings.some(({ advised }) => advised !== 0);
  return hang.ok && turned && inside(hang.plan.after) ? { by: 'advice' } : undefined;
}
