import type { CutModel } from '../../plan/cut/cut-model';
import { CRACK_STEPS, crackPlan, type CrackPlan, type CrackStep } from '../../plan/stiffening/crack';
import { stiffenerEffects, type StiffenerEffect } from '../../plan/stiffening/stiffen';
import type { CalledItem, Crack, WorkItem } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';

export interface CrackView {
  readonly crack: CalledItem<Crack>;
  readonly item: WorkItem;
  readonly plan: CrackPlan;
  /** What of its steps is ticked. */
  readonly done: readonly CrackStep[];
}

/** What was cracked, and what is put on to stiffen. */
export interface StiffeningPage {
  readonly cracks: readonly CrackView[];
  readonly stiffeners: readonly (StiffenerEffect & { readonly item: WorkItem })[];
  /** Members of the structure that something can be put on, by what they are and where they run. */
  readonly members: readonly { readonly code: string; readonly name: string }[];
  /** Codes that are taken, those of what was taken back too. */
  readonly usedCodes: readonly { readonly code: string }[];
}

export function stiffeningOf(job: Job, cut: CutModel | undefined): StiffeningPage {
  const { nodes = [], members = [] } = cut?.structure.model ?? {};
  const ends = (...of: readonly number[]) => of.map((node) => nodes[node]!.code).join(' – ');
  return {
    cracks: job.cracks.map((crack) => ({
      ...{ crack, item: job.item(crack.id), plan: crackPlan(crack) },
      done: crackStepsDone(job, crack),
    })),
    stiffeners: stiffenerEffects(job).map((effect) => ({ ...effect, item: job.item(effect.stiffener.id) })),
    members: members.map(({ code, name, from, to }) => ({ code, name: `${name || code}, ${ends(from, to)}` })),
    usedCodes: job.rows.workItems
      .filter(({ kind }) => kind === 'crack' || kind === 'stiffener')
      .map(({ code }) => ({ code })),
  };
}

/** What of a crack's steps is ticked. */
export const crackStepsDone = (job: Job, { id }: Pick<Crack, 'id'>): CrackStep[] =>
  CRACK_STEPS.filter(
    (step) => job.rows.workEvents.findLast(({ itemId, key }) => itemId === id && key === step)?.kind === 'ticked',
  );
