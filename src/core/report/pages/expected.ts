import { seamEffects } from '../../plan/weld-order/shrink-effect';
import type { WeldedElsewhere } from '../../plan/weld-order/shrinkage';
import type { Round } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { placeKey, seamsOf, type SeamPlan } from './welding';

/** From as little to as much as it may, mm. */
export interface Expected {
  readonly low: number;
  readonly usual: number;
  readonly high: number;
}

/** What welding before a round was expected to do, by the identity of the dimension. */
export type ExpectedMoves = ReadonlyMap<string, Expected>;
export const NOTHING: ExpectedMoves = new Map();

/** Of each round, what was welded since the one before it was begun is expected to have done. */
export function expectedBefore(
  job: Job,
  elsewhere: readonly WeldedElsewhere[],
  rounds: readonly Round[],
): ExpectedMoves[] {
  const welded = job.rows.workEvents.some(({ itemId }) => job.rows.weldSeams.some(({ id }) => id === itemId));
  const seams = welded ? seamsOf(job, elsewhere) : undefined;
  const { cut } = seams ?? {};
  if (!seams || !cut) return rounds.map(() => NOTHING);
  return rounds.map((round, i) => {
    const from = rounds[i - 1]?.startedAt;
    if (from === undefined) return NOTHING;
    const moves = new Map<string, Expected>();
    for (const { joint, plan } of seams.planned) {
      const share = plan ? shareLaid(plan, from, round.startedAt) : 0;
      const { shrinkage, seam } = plan ?? {};
      if (!shrinkage || !seam || share === 0) continue;
      const of = { seam, panelId: joint.panelId };
      const { effects = [] } = seamEffects(job, cut, of, { shrinkage, factor: seams.factor, share }) ?? {};
      // Seams of one shop shrink more or less than the model together: what each may do adds up.
      for (const effect of effects) moves.set(effect.lengthId, plus(moves.get(effect.lengthId), effect));
    }
    return moves;
  });
}

/** How much of a seam's heat was laid after one moment and not after another. */
function shareLaid({ layout, task, done }: SeamPlan, from: string, to: string): number {
  const [after, until] = [Date.parse(from), Date.parse(to)];
  const laid = new Set(done.flatMap(({ key, at }) => (Date.parse(at) > after && Date.parse(at) <= until ? [key] : [])));
  const all = task.plugs.reduce((sum, { energy }) => sum + energy, 0);
  const own = layout.places.reduce(
    (sum, { along }, i) => sum + (laid.has(placeKey(along)) ? task.plugs[i]!.energy : 0),
    0,
  );
  return own / all;
}

const plus = (a: Expected | undefined, { low, usual, high }: Expected): Expected =>
  a ? { low: a.low + low, usual: a.usual + usual, high: a.high + high } : { low, usual, high };

/** What several did one after another. */
export function summed(moves: readonly ExpectedMoves[], id: string): Expected | undefined {
  return moves.reduce<Expected | undefined>((sum, each) => {
    const own = each.get(id);
    return own ? plus(sum, own) : sum;
  }, undefined);
}
