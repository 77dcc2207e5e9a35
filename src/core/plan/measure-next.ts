import type { RoundJudgement } from '../round/judge/judgement';
import type { InHand } from '../shell/instruments';
import type { Job } from '../shell/job/job';
import { helpfulTargets, type Aim, type Target } from '../walk/targets';
import { MINUTES_A_READING, type Proposal } from './proposal';

export type WhyMeasure =
  /** The worst ± of all that is wanted falls. */
  | { readonly kind: 'surer'; readonly before: number; readonly after: number }
  /** Nothing checked a point of it before. */
  | { readonly kind: 'unchecked' }
  /** It has been read with this instrument already. */
  | { readonly kind: 'again' };

export type MeasureProposal = Proposal<Target, WhyMeasure>;

/** The readings that help most now towards the aim, with every instrument in hand. */
export function measureNext(
  job: Job,
  judgement: RoundJudgement,
  hands: readonly InHand[],
  aim: Aim,
  count: number,
): MeasureProposal[] {
  return helpfulTargets(job, judgement, hands, aim, count).map((what) => {
    const gain = what.gain!;
    return {
      what,
      cost: { minutes: MINUTES_A_READING },
      gain,
      why: [
        ...(what.why === 'unchecked' ? [{ kind: 'unchecked' } as const] : []),
        ...(what.again ? [{ kind: 'again' } as const] : []),
        { kind: 'surer', ...gain },
      ],
    };
  });
}
