import { Matrix } from 'ml-matrix';
import { grouped } from '../../maths/grouped';
import type { Component } from '../../shell/components';
import type { Hinge } from './sections';
import { gramOf, type Sparse } from './weights';

/** A hinge with its design B, WB and (BᵀWB)⁻¹. */
export interface Candidate {
  readonly hinge: Hinge;
  readonly components: readonly Component[];
  readonly columns: readonly Sparse[];
  readonly products: readonly Float64Array[];
  readonly inverted: Matrix;
  /** BᵀWd. */
  readonly right: readonly number[];
}

/** The candidate that explains most of every section and end, the best of them first. */
export function bestOfEach(candidates: readonly Candidate[]): Candidate[] {
  const kinds = grouped(candidates, ({ hinge: { section, end } }) => `${section} ${end}`);
  return [...kinds.values()].map((same) => maximum(same, explained)!).sort((a, b) => explained(b) - explained(a));
}

/** Fall of the weighted sum of squares when a candidate comes in. */
export function explained({ inverted, right }: Candidate): number {
  const g = Matrix.columnVector([...right]);
  return g.transpose().mmul(inverted).mmul(g).get(0, 0);
}

/**
 * Covariance of every component of every candidate in an undamaged shell, each by its standard deviation. A
 * candidate's estimates are (BᵀWB)⁻¹ BᵀWd and the covariance of Wd is W, so that two candidates' covariance is
 * (B₁ᵀWB₁)⁻¹ B₁ᵀWB₂ (B₂ᵀWB₂)⁻¹. A little is added to the diagonal: neighbouring hinges are nearly one.
 */
export function jointOfStandardised(candidates: readonly Candidate[], size: number): Float64Array {
  const joint = new Float64Array(size * size);
  const shares = candidates.map(({ inverted }) =>
    inverted.clone().divRowVector(inverted.diagonal().map((variance) => Math.sqrt(variance))),
  );
  let row = 0;
  candidates.forEach(({ columns }, i) => {
    let column = 0;
    candidates.slice(0, i + 1).forEach(({ products }, k) => {
      const block = shares[i]!.transpose().mmul(gramOf(columns, products)).mmul(shares[k]!);
      for (let r = 0; r < block.rows; r++)
        for (let c = 0; c < block.columns; c++) joint[(row + r) * size + column + c] = block.get(r, c);
      column += products.length;
    });
    for (let r = 0; r < columns.length; r++) joint[(row + r) * (size + 1)]! += 1e-6;
    row += columns.length;
  });
  return joint;
}

export const maximum = <T>(items: readonly T[], size: (item: T) => number): T | undefined =>
  items.reduce<{ item: T; at: number } | undefined>((best, item) => {
    const at = size(item);
    return !best || at > best.at ? { item, at } : best;
  }, undefined)?.item;
