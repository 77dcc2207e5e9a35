import type { RoundJudgement } from '../round/judge/judgement';
import type { Job } from '../shell/job/job';
import { whatDecides, type Decision, type Subject } from '../walk/decide';
import type { Target } from '../walk/targets';
import { MINUTES_A_READING, type Proposal } from './proposal';

/** What to do about an undecided figure. */
export type Settling =
  | { readonly kind: 'read'; readonly steps: readonly { readonly target: Target; readonly plusMinus: number }[] }
  /** Hold one more point: no reading is needed. */
  | { readonly kind: 'hold'; readonly pointId: string }
  /** Nothing in hand decides it: a finer instrument, or a reason to accept it. */
  | {
      readonly kind: 'finerInstrument';
      readonly steps: readonly { readonly target: Target; readonly plusMinus: number }[];
    }
  /** No instrument decides it: the reference is not trusted to so little. */
  | { readonly kind: 'betterReference' };

export type WhySettle =
  | { readonly kind: 'decidedAt'; readonly needed: number; readonly now: number }
  | { readonly kind: 'control'; readonly pointId: string; readonly plusMinus: number };

export type SettleProposal = Proposal<Settling, WhySettle>;

/**
 * What settles an undecided point or dimension; the day sheet, the sheet and the measuring screen say the same.
 *
 * @returns undefined where it is not undecided
 */
export function settle(job: Job, judgement: RoundJudgement, subject: Subject): SettleProposal | undefined {
  const decision = whatDecides(job, judgement, subject);
  if (!decision) return undefined;
  const { needed, now, control } = decision;
  const what = settlingOf(decision);
  const steps = what.kind === 'read' ? what.steps : [];
  const after = what.kind === 'hold' ? control!.plusMinus : (steps.at(-1)?.plusMinus ?? now);
  return {
    what,
    cost: { minutes: steps.length * MINUTES_A_READING },
    gain: { before: now, after },
    why: [{ kind: 'decidedAt', needed, now }, ...(control ? [{ kind: 'control', ...control } as const] : [])],
  };
}

function settlingOf({ outcome, steps, control }: Decision): Settling {
  if (outcome === 'readings') return { kind: 'read', steps };
  if (outcome === 'control') return { kind: 'hold', pointId: control!.pointId };
  return outcome === 'referenceCannot' ? { kind: 'betterReference' } : { kind: 'finerInstrument', steps };
}
