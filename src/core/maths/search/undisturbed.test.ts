import { describe, expect, it } from 'vitest';
import { add, apply, position, type Matrix3, type Vector } from '../geometry/vector';
import { seeded, type Random } from '../random/seeded';
import { deviationOf, fitSelected } from '../rigid/fit';
import { findUndisturbed, type SearchedPoint } from './undisturbed';

const TURN: Matrix3 = [
  [0.9986, -0.0529, 0],
  [0.0529, 0.9986, 0],
  [0, 0, 1],
];

/** A shell on the bench, some of its points moved; ids of the moved ones begin with M. */
function shell(count: number, moved: number, random: Random, move: (i: number) => Vector): SearchedPoint[] {
  return Array.from({ length: count }, (_, i): SearchedPoint => {
    const reference = position<'chart'>([
      random.next() * 3600,
      (random.next() - 0.5) * 1400,
      100 + random.next() * 1000,
    ]);
    const at = i < moved ? add(reference, move(i)) : reference;
    const noisy = at.map((value) => value + 0.7 * random.normal()) as unknown as Vector;
    return { id: `${i < moved ? 'M' : 'S'}${i}`, reference, measured: position(add(apply(TURN, noisy), [30, -12, 8])) };
  });
}

const found = (points: readonly SearchedPoint[], agree = 3) => {
  const result = findUndisturbed(points, agree);
  if (!result.ok) throw new Error(result.reason);
  return result;
};

/** Every subset tried: the truth for small shells. */
function exhaustive(points: readonly SearchedPoint[], agree: number): { size: number; sum: number } {
  let best = { size: 0, sum: Infinity };
  for (let mask = 1; mask < 1 << points.length; mask++) {
    const set = points.filter((_, i) => (mask >> i) & 1).map((point) => ({ ...point, sigma: 1 }));
    if (set.length < 3 || set.length < best.size) continue;
    const fit = fitSelected(set);
    if (!fit.ok) continue;
    const distances = set.map((point) => deviationOf(fit.motion, point).d);
    if (distances.some((d) => d > agree)) continue;
    const sum = distances.reduce((all, d) => all + d * d, 0);
    if (set.length > best.size || sum < best.sum) best = { size: set.length, sum };
  }
  return best;
}

describe('the undisturbed points', () => {
  it('are found and proven where the rear has gone', () => {
    const points = shell(24, 9, seeded(4), (i) => [-9 - i, 6, 8 + i / 2]);
    const { used, moved, proven } = found(points);
    expect(proven).toBe(true);
    expect(used.every((id) => id.startsWith('S'))).toBe(true);
    expect(moved).toHaveLength(9);
  });

  it('are the largest of all subsets, and of equal ones the nearest', () => {
    for (let seed = 1; seed <= 12; seed++) {
      // Movements about as large as what is agreed: the hard case.
      const random = seeded(seed);
      const points = shell(10, 5, random, () => [4 * random.normal(), 4 * random.normal(), 3 * random.normal()]);
      const { used, proven } = found(points);
      const truth = exhaustive(points, 3);
      expect(proven).toBe(true);
      expect(used).toHaveLength(truth.size);
      const set = points.filter(({ id }) => used.includes(id)).map((point) => ({ ...point, sigma: 1 }));
      const fit = fitSelected(set);
      if (!fit.ok) throw new Error(fit.reason);
      const sum = set.reduce((all, point) => all + deviationOf(fit.motion, point).d ** 2, 0);
      expect(sum).toBeCloseTo(truth.sum, 6);
    }
  });

  it('of a shell of sixty points are proven with up to 45 % of them moved', () => {
    for (const share of [0.2, 0.35, 0.45]) {
      const moved = Math.floor(60 * share);
      const points = shell(60, moved, seeded(60 + moved), (i) => [-14 - (i % 5), 6 + (i % 3), 9]);
      const result = found(points);
      expect(result.proven).toBe(true);
      expect(result.used).toHaveLength(60 - moved);
      expect(result.used.every((id) => id.startsWith('S'))).toBe(true);
    }
  });

  it('are reported with their rival: the majority may be what moved', () => {
    const points = shell(20, 9, seeded(8), () => [-12, 7, 9]);
    expect(found(points).rival).toHaveLength(9);
  });

  it('are refused where no three points agree', () => {
    const points = shell(5, 5, seeded(2), (i) => [i * 90, -i * 60, i * i * 40]);
    expect(findUndisturbed(points, 0.5)).toMatchObject({
      ok: false,
      reason: expect.stringContaining('no three points'),
    });
  });
});
