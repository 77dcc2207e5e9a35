import type { Shim } from '../../shell/job/entities';
import type { Range } from './seat';

/** Shims in one pack at most. */
const IN_A_PACK = 3;
/** Two packs nearer to each other than this are one, mm. */
const SAME = 0.01;

/** A pack of shims, thickest first. */
export interface Pack {
  readonly sum: number;
  readonly shims: readonly number[];
}

/** What the shelf's shims make, each pack of the fewest, thinnest pack first; nothing is one of them. */
export function packsOf(shims: readonly Pick<Shim, 'thickness' | 'pieces'>[]): readonly Pack[] {
  const sizes = shims.filter(({ pieces }) => pieces > 0).toSorted((a, b) => b.thickness - a.thickness);
  const packs: Pack[] = [];
  const add = (from: number, used: readonly number[]) => {
    packs.push({ sum: used.reduce((sum, each) => sum + each, 0), shims: used });
    if (used.length === IN_A_PACK) return;
    for (let i = from; i < sizes.length; i++) {
      const { thickness, pieces } = sizes[i]!;
      if (used.filter((each) => each === thickness).length < pieces) add(i, [...used, thickness]);
    }
  };
  add(0, []);
  const sorted = packs.toSorted((a, b) => a.shims.length - b.shims.length);
  const kept: Pack[] = [];
  for (const pack of sorted) if (!kept.some(({ sum }) => Math.abs(sum - pack.sum) < SAME)) kept.push(pack);
  return kept.toSorted((a, b) => a.sum - b.sum);
}

/** What a place can be packed out by, and brought in by taking the same out, mm; ascending. Empty where no shim is known: any figure will do. */
export function shimSums(shims: readonly Pick<Shim, 'thickness' | 'pieces'>[]): readonly number[] {
  const sums = packsOf(shims).map(({ sum }) => sum);
  if (sums.length === 1) return [];
  return [...sums.flatMap((sum) => (sum > 0 ? [-sum] : [])).toReversed(), ...sums];
}

/** The shims that make a sum; undefined where none do. */
export const packOf = (shims: readonly Pick<Shim, 'thickness' | 'pieces'>[], sum: number): Pack | undefined =>
  packsOf(shims).find((pack) => Math.abs(pack.sum - Math.abs(sum)) < SAME);

/** What a place can be set to, mm: by its step; without one by what packs of shims make of it, or to any figure. */
export function rangeOf(
  { from, to, step }: { readonly from: number; readonly to: number; readonly step: number | null },
  sums: readonly number[],
): Range {
  if (step !== null) return { from, to, step };
  const values = sums.filter((sum) => sum >= from && sum <= to);
  return { from, to, ...(values.length > 0 ? { values } : {}) };
}
