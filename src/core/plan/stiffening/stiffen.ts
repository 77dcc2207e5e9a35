import { onceFor } from '../../maths/once';
import { APART_FROM_METAL } from '../../shell/job/apart';
import type { CalledItem, Stiffener } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { stiffened, stiffenedBy, stiffenerMass, type StiffenerFault } from '../../structure/stiffened';
import { cutModel, isOn, type CutModel } from '../cut/cut-model';
import { givesAfter } from '../cut/worked-stages';

/** How a length of the whole shell gives under the hand without a stiffener and with it, mm. */
export interface Stiffening {
  readonly code: string;
  readonly name: string;
  readonly limit: number;
  readonly without: number;
  readonly with: number;
}

/** What a stiffener is worth. */
export interface StiffenerEffect {
  readonly stiffener: CalledItem<Stiffener>;
  readonly isOn: boolean;
  readonly kilograms: number;
  /** The lengths that it stiffens, first what gains most of its limit. */
  readonly gains: readonly Stiffening[];
  readonly fault?: StiffenerFault;
}

/** A gain of less than this share is none. */
const NOTICED = 0.005;

/**
 * What every stiffener does by itself to how the whole, uncut shell gives under the hand, at the stiffness the shell is taken to
 * have: the share it gains does not hang on that. One that is on is compared with the shell without it.
 */
export const stiffenerEffects = (job: Job): StiffenerEffect[] => effectsOnce(job.without(APART_FROM_METAL));

const effectsOnce = onceFor((job: Job): StiffenerEffect[] => {
  const cut = cutModel(job);
  return job.stiffeners.map((stiffener): StiffenerEffect => {
    const common = { stiffener, isOn: isOn(job, stiffener), kilograms: stiffenerMass(stiffener) };
    if (!cut) return { ...common, gains: [] };
    const others = job.stiffeners.filter((each) => each.id !== stiffener.id && isOn(job, each));
    const bare = withAll(cut, others);
    const result = stiffened(bare.structure.model, stiffener);
    if (!result.ok) return { ...common, gains: [], fault: result.fault };
    const [before, after] = [bare, { ...bare, structure: { ...bare.structure, model: result.model } }].map(givesOf);
    const gains = cut.lengths.flatMap(({ code, name, limit }, d): Stiffening[] => {
      const [a, b] = [before![d], after![d]];
      return a && b && a.hand - b.hand > NOTICED * a.hand ? [{ code, name, limit, without: a.hand, with: b.hand }] : [];
    });
    const worth = (each: Stiffening) => (each.without - each.with) / each.limit;
    return { ...common, gains: gains.toSorted((a, b) => worth(b) - worth(a)) };
  });
});

/** The structure as it was before anything was put on, with these. */
function withAll(cut: CutModel, stiffeners: readonly Stiffener[]): CutModel {
  const bare = cut.structure.model.members.map(({ gain: _, ...member }) => member);
  const model = stiffenedBy({ ...cut.structure.model, members: bare }, stiffeners);
  return { ...cut, structure: { ...cut.structure, model } };
}

const givesOf = (cut: CutModel) => givesAfter(cut, -1, cut.stiffness.usual, false) ?? [];
