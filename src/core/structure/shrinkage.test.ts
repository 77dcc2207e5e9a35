import { describe, expect, it } from 'vitest';
import { comingTogether, drawnTogether, freeShortening, tendonForce } from './shrinkage';

const STEEL = { density: 7850, heat: 490 };

describe('the shrinkage of a seam', () => {
  it('is that of hand: 183 J a millimetre in steel', () => {
    // α/(c·ρ) = 12e-6 / (490 · 7.85e-6) = 3.1197e-3 mm³/J; · 0.335 · 183 · 210 000 N.
    expect(tendonForce(183, STEEL)).toBeCloseTo(210_000 * 0.335 * 3.11972e-3 * 183, -1);
    // White's rule for the same: 0.2 kN for each joule a millimetre.
    expect(tendonForce(183, STEEL) / (200 * 183)).toBeCloseTo(1.1, 1);
    // A butt seam in 1 mm sheet: 0.8 · 3.12e-3 · 183 / 1; on twice the sheet half.
    expect(comingTogether(183, 1, STEEL)).toBeCloseTo(0.457, 3);
    expect(comingTogether(183, 2, STEEL)).toBeCloseTo(0.228, 3);
    expect(freeShortening(1000)).toBeCloseTo(1, 9);
  });

  it('draws its ends together by all it would where nothing holds them, and pulls by its tendon where nothing gives', () => {
    expect(drawnTogether(0.5, 40_000, 1e9).by).toBeCloseTo(0.5, 6);
    expect(drawnTogether(0.5, 40_000, 0)).toEqual({ by: 0, force: 40_000 });
    // As stiff as the seam's own strip: half of both.
    const { by, force } = drawnTogether(0.5, 40_000, 0.5 / 40_000);
    expect([by, force]).toEqual([expect.closeTo(0.25, 12), expect.closeTo(20_000, 9)]);
  });
});
