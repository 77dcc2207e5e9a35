import { describe, expect, it } from 'vitest';
import { boxSection, equivalentBox, sectionModulus } from './box-section';

describe('a closed box', () => {
  it('has the section worked out by hand for a square tube of 25 × 25 × 2', () => {
    const { A, Iy, Iz, J } = boxSection({ width: 25, height: 25, wall: 2 });
    expect(A).toBe(25 ** 2 - 21 ** 2);
    expect(Iy).toBeCloseTo((25 ** 4 - 21 ** 4) / 12, 9);
    expect(Iz).toBeCloseTo(Iy, 9);
    // Bredt: 4·A₀²·t/p, the middle line 23 × 23.
    expect(J).toBeCloseTo((4 * (23 * 23) ** 2 * 2) / (4 * 23), 6);
    expect(sectionModulus({ width: 25, height: 25, wall: 2 })).toBeCloseTo(Iy / 12.5, 9);
  });

  it('is stiffer the way it is higher, and loses what rust takes of its sheet', () => {
    const sill = { width: 90, height: 130, wall: 1.1 };
    const { Iy, Iz, A } = boxSection(sill);
    expect(Iy).toBeGreaterThan(Iz);
    const half = boxSection(sill, 0.5);
    expect(half.A / A).toBeCloseTo(0.5, 1);
    expect(half.Iy / Iy).toBeCloseTo(0.5, 1);
  });

  it('is found again from its area and second moments', () => {
    for (const box of [
      { width: 90, height: 130, wall: 1.1 },
      { width: 50, height: 60, wall: 0.9 },
      { width: 20, height: 120, wall: 1.5 },
    ]) {
      const again = boxSection(equivalentBox(boxSection(box)));
      const own = boxSection(box);
      for (const key of ['A', 'Iy', 'Iz'] as const) expect(again[key] / own[key]).toBeCloseTo(1, 1);
    }
  });
});
