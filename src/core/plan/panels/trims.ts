import type { Trim } from '../../shell/job/entities';

/** What is to be done at an edge, a hole or a bead of a new panel. */
export type TrimAdvice =
  | { readonly kind: 'fits' }
  /** Taken off, and marked so far from the edge that stays. */
  | { readonly kind: 'trim'; readonly by: number; readonly mark: number }
  /** Too short: nothing brings it there but a strip or another panel. */
  | { readonly kind: 'short'; readonly by: number }
  /** Made longer so far, towards the edge that stays or away from it. */
  | { readonly kind: 'slot'; readonly by: number; readonly towards: boolean }
  | { readonly kind: 'relieve'; readonly by: number; readonly mark: number };

/** What is nearer than this fits: no saw and no file is better, mm. */
const FITS = 0.3;
/** A hole is not slotted by more than this: it is welded up and drilled anew, mm. */
export const MOST_SLOT = 4;

export function trimAdvice({ kind, isAt, mustBe }: Pick<Trim, 'kind' | 'isAt' | 'mustBe'>): TrimAdvice {
  const by = isAt - mustBe;
  if (Math.abs(by) < FITS || kind === 'spot') return { kind: 'fits' };
  if (kind === 'hole') return { kind: 'slot', by: Math.abs(by), towards: by > 0 };
  if (kind === 'bead') return { kind: 'relieve', by: Math.abs(by), mark: mustBe };
  return by > 0 ? { kind: 'trim', by, mark: mustBe } : { kind: 'short', by: -by };
}

/** How far a new panel sits off by its spots against the old ones', mm. */
export interface SpotIndex {
  readonly by: number;
  /** Of the mean; absent with one spot. */
  readonly sd?: number;
  readonly spots: number;
}

/** The spots of the old panel are where the new one's belong: their mean says how far it sits off, their scatter how sure that is. */
export function spotIndex(trims: readonly Pick<Trim, 'kind' | 'isAt' | 'mustBe'>[]): SpotIndex | undefined {
  const off = trims.flatMap(({ kind, isAt, mustBe }) => (kind === 'spot' ? [isAt - mustBe] : []));
  if (off.length === 0) return undefined;
  const by = off.reduce((sum, each) => sum + each, 0) / off.length;
  if (off.length === 1) return { by, spots: 1 };
  const variance = off.reduce((sum, each) => sum + (each - by) ** 2, 0) / (off.length - 1);
  return { by, sd: Math.sqrt(variance / off.length), spots: off.length };
}
