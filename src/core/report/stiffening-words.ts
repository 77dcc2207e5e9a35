import type { CrackPlan, CrackStep } from '../plan/stiffening/crack';
import type { Stiffening } from '../plan/stiffening/stiffen';
import type { Crack, Stiffener } from '../shell/job/entities';
import type { StiffenerFault } from '../structure/stiffened';

export const STIFFENER_WORD: Readonly<Record<Stiffener['kind'], string>> = {
  doubler: 'doubler',
  rib: 'rib',
  gusset: 'gusset',
};

interface Lengths {
  readonly length: (mm: number) => string;
}

/** What is done at each step of a crack, with its figures. */
export function crackStepText(step: CrackStep, crack: Crack, plan: CrackPlan, { length }: Lengths): string {
  const both = plan.holes === 2 ? 'both ends' : 'its end';
  switch (step) {
    case 'clean':
      return 'Clean it to bright metal on both faces, well past what shows; look behind it.';
    case 'ends':
      return `Find ${both} with dye and a glass, and mark ${plan.holes === 2 ? 'them' : 'it'}: a crack runs further than it shows.`;
    case 'drill':
      return `Drill ${length(plan.drill)} through, ${length(plan.beyond)} beyond ${plan.holes === 2 ? 'each mark' : 'the mark'}.`;
    case 'open':
      return plan.gap > 0
        ? `Open it by a thin disc to ${length(plan.gap)}, from hole to ${plan.holes === 2 ? 'hole' : 'edge'}.`
        : 'Dress its edges so that they touch.';
    case 'weld':
      return crack.toEdge
        ? `Weld ${length(plan.weld)} from the hole towards the edge, with a piece to run off on.`
        : `Weld ${length(plan.weld)} from each hole towards the middle; fill the holes last.`;
    case 'dress':
      return 'Dress it flush on both faces: a bead left standing is the next crack’s start.';
    case 'lookAgain':
      return 'Look again with dye, cold: nothing may show past the weld.';
    case 'protect':
      return 'Metal treatment and primer on both faces.';
  }
}

/** What the hole by itself is worth. */
export const concentrationText = ({ concentration }: Pick<CrackPlan, 'concentration'>): string =>
  `At the hole the metal still bears ${Math.round(concentration)} times the stress beside it: the hole stops a crack, it mends none. Ask why it cracked, and take that away.`;

/** What a stiffener does to one length. */
export const stiffeningText = ({ code, without, with: now }: Stiffening, { length }: Lengths): string =>
  `${code} ${Math.round(100 * (1 - now / without))} % stiffer (it gives ${length(without)})`;

export const stiffenerFaultText = (fault: StiffenerFault): string =>
  fault.kind === 'noMember'
    ? `The structure has no member ${fault.code} any more: say which one it is put on.`
    : `${fault.codes[0]} and ${fault.codes[1]} do not meet: a gusset ties two members at the place where they do.`;
