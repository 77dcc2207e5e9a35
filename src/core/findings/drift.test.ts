import { describe, expect, it } from 'vitest';
import { seeded } from '../maths/random/seeded';
import { driftOf, type Found } from './drift';

/** Five rounds with one step before one of them. */
function rounds(seed: number, step: number, place: number, sd = 0.5): Found[] {
  const random = seeded(seed);
  return Array.from({ length: 5 }, (_, i) => ({ value: 1000 + (i >= place ? step : 0) + sd * random.normal(), sd }));
}
const seeds = Array.from({ length: 400 }, (_, i) => 1000 + i);

describe('a drift through the rounds of welding', () => {
  it('is worked by hand: 0, 0, 3, 3 with a standard deviation of 1', () => {
    // No step: mean 1.5, χ² 9. One at the third: χ² 0, moved by 3 ± 2·1. Limit at 5 % over three places: 5.73.
    const found = driftOf([0, 0, 3, 3].map((value) => ({ value, sd: 1 })));
    if (found.kind !== 'moved') throw new Error(found.kind);
    expect([found.by, found.sd]).toEqual([3, 1]);
    expect(found.at[0]!.place).toBe(2);
    // The others: levels 0 | 2 (χ² 6) and 1 | 3 (χ² 6), each with √(1·3) for √(2·2).
    const other = Math.exp(-3) / Math.sqrt(3);
    expect(found.at[0]!.share).toBeCloseTo(0.5 / (0.5 + 2 * other), 9);
    expect(driftOf([0, 0, 2, 2].map((value) => ({ value, sd: 1 })))).toEqual({ kind: 'still' });
    expect(driftOf([{ value: 0, sd: 1 }])).toEqual({ kind: 'few' });
    // Among twelve such figures chance has twelve tries: the limit is 10.19, and 9 is not enough.
    expect(
      driftOf(
        [0, 0, 3, 3].map((value) => ({ value, sd: 1 })),
        12,
      ),
    ).toEqual({ kind: 'still' });
  });

  it('of what stood still is seen in one of twenty runs at most', () => {
    const alarms = seeds.filter((seed) => driftOf(rounds(seed, 0, 1)).kind === 'moved').length;
    // 400 runs at 5 %: 20, and two standard deviations more 29.
    expect(alarms).toBeLessThanOrEqual(29);
  });

  it('is put down to the right step: nearly always where it is large, and as often as it says', () => {
    const large = seeds.filter((seed) => {
      const found = driftOf(rounds(seed, 3, 1 + (seed % 4)));
      return found.kind === 'moved' && found.at[0]!.place === 1 + (seed % 4);
    });
    expect(large.length / seeds.length).toBeGreaterThan(0.97);
    // Of steps as large as their noise's threefold: what is called so and so likely is right so often.
    const called = seeds.flatMap((seed) => {
      const found = driftOf(rounds(seed, 1.5, 1 + (seed % 4)));
      return found.kind === 'moved'
        ? [{ share: found.at[0]!.share, right: found.at[0]!.place === 1 + (seed % 4) }]
        : [];
    });
    const said = called.reduce((sum, { share }) => sum + share, 0) / called.length;
    const right = called.filter((each) => each.right).length / called.length;
    expect(called.length).toBeGreaterThan(200);
    expect(Math.abs(said - right)).toBeLessThan(0.06);
  });

  it('is as large as it was, within what it says', () => {
    const off = seeds.flatMap((seed) => {
      const found = driftOf(rounds(seed, 3, 1 + (seed % 4)));
      return found.kind === 'moved' ? Math.abs(found.by - 3) / found.sd : [];
    });
    expect(off.filter((each) => each < 2).length / off.length).toBeGreaterThan(0.92);
  });
});
