import { RUNGS, type Step } from './entities';

type Placed = Pick<Step, 'rung' | 'ordinal'>;

/** In the order of the work. */
export const byLadder = (a: Placed, b: Placed): number =>
  RUNGS.indexOf(a.rung) - RUNGS.indexOf(b.rung) || a.ordinal - b.ordinal;

/** Every step of a job needs the one before it on the ladder: so it is until somebody says otherwise. */
export function chained(steps: readonly (Placed & { readonly id: string })[]): { stepId: string; needsId: string }[] {
  const inOrder = steps.toSorted(byLadder);
  return inOrder.slice(1).map(({ id }, i) => ({ stepId: id, needsId: inOrder[i]!.id }));
}
