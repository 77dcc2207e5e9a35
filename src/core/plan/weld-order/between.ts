import type { WeldSeam } from '../../shell/job/entities';
import { isSpotted, type WeldLayout } from './layout';

export const BETWEEN_KINDS = ['tap', 'planish', 'read'] as const;
/** Something that is done before the next place is laid. */
export interface BetweenStep {
  readonly kind: (typeof BETWEEN_KINDS)[number];
  /** How many places are laid when it is done. */
  readonly after: number;
  readonly minutes: number;
}

/** Runs after which they are tapped down while they are warm. */
const TAPPED = 3;
/** It is read at every third of a seam. */
const THIRDS = 3;
const TAP = 1;
const READ = 5;
/** Minutes to planish a run, and for each millimetre of it. */
const PLANISH = { once: 2, each: 0.04 } as const;

/** What a step between two places is ticked under. */
export const betweenKey = ({ kind, after }: Pick<BetweenStep, 'kind' | 'after'>): string => `${kind} ${after}`;

/**
 * What is done between the places of a seam, in their order: short runs are tapped down while they are warm and planished a third
 * at a time, which stretches what shrank; what is made in one go is planished from stop to stop; whatever it is, what it must keep is
 * read at every third, and a seam that only holds two sheets together is not hammered.
 */
export function betweenSteps(
  seam: Pick<WeldSeam, 'kind' | 'process' | 'long'>,
  { places, stops }: Pick<WeldLayout, 'places' | 'stops'>,
): BetweenStep[] {
  const n = places.length;
  if (n === 0) return [];
  const thirds = [...new Set([1, 2, THIRDS].map((k) => Math.ceil((n * k) / THIRDS)))];
  const inOneGo = seam.process === 'tig' || seam.process === 'gas';
  const isHammered = !isSpotted(seam) && seam.kind !== 'braze';
  const ends = inOneGo ? [...stops.map((stop) => places.filter(({ along }) => along < stop).length), n] : thirds;
  const steps: BetweenStep[] = [];
  let planished = 0;
  for (let after = 1; after <= n; after++) {
    const at = (kind: BetweenStep['kind'], minutes: number) => steps.push({ kind, after, minutes });
    if (isHammered && ends.includes(after)) {
      at('planish', PLANISH.once + (PLANISH.each * seam.long * (after - planished)) / n);
      planished = after;
    } else if (isHammered && !inOneGo && after % TAPPED === 0) at('tap', TAP);
    if ((inOneGo ? ends : thirds).includes(after)) at('read', READ);
  }
  return steps;
}

export const minutesBetween = (steps: readonly BetweenStep[]): number =>
  steps.reduce((sum, { minutes }) => sum + minutes, 0);
