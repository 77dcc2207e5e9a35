import { describe, expect, it } from 'vitest';
import { seeded } from '../../maths/random/seeded';
import { sisterMean, sisterSpread, USUAL_SCATTER, type SisterFigure } from './sister-cars';

const cars = (count: number, figures: number, scatter: number, seed: number, measured = 0.5): SisterFigure[] => {
  const random = seeded(seed);
  return Array.from({ length: figures }, (_, i) => ({
    values: Array.from({ length: count }, () => ({
      value: 1000 + 10 * i + scatter * random.normal() + measured * random.normal(),
      sd: measured,
    })),
  }));
};

describe('sister cars', () => {
  it('one car knows nothing of the scatter: the usual figure stands, and is widened', () => {
    const spread = sisterSpread([{ values: [{ value: 1200, sd: 0.5 }] }]);
    expect(spread.production).toBeCloseTo(USUAL_SCATTER, 12);
    // √(1.5² · 2 + 0.5²) = 2.179, times t(2.275 %, 4) / 2 = 1.4346
    const { value, sd } = sisterMean({ values: [{ value: 1200, sd: 0.5 }] }, spread);
    expect(value).toBe(1200);
    expect(sd).toBeCloseTo(3.127, 2);
  });

  it('many cars show their own scatter, the measuring taken out of it', () => {
    expect(sisterSpread(cars(6, 60, 0.8, 4)).production).toBeCloseTo(0.8, 0);
    expect(sisterSpread(cars(6, 60, 3, 5)).production).toBeGreaterThan(2.6);
  });

  it('covers the next car as often as it says', () => {
    const random = seeded(77);
    let within = 0;
    for (let trial = 0; trial < 400; trial++) {
      const figures = cars(3, 20, 1.5, 1000 + trial);
      const { value, sd } = sisterMean(figures[0]!, sisterSpread(figures));
      if (Math.abs(1000 + 1.5 * random.normal() - value) <= 2 * sd) within++;
    }
    expect(within / 400).toBeGreaterThan(0.92);
    expect(within / 400).toBeLessThan(0.995);
  });
});
