import { describe, expect, it } from 'vitest';
import { seeded } from '../../maths/random/seeded';
import { roomOf, standsNow, type Standing } from './room';

const read = (off: number, sd = 0.5): Standing => ({ off: [off, 0, 0], sd: [sd, sd, sd], limit: 2 });

describe('where a point stands that nobody means to move', () => {
  it('is what every round read, the last weighing most', () => {
    expect(standsNow(undefined, read(1))).toEqual(read(1));
    // By hand: known to 0.25 + 0.25, read to 0.25: of a step of 1 it takes two thirds.
    const { off, sd } = standsNow(read(0), read(1));
    expect(off[0]).toBeCloseTo(2 / 3, 12);
    expect(sd[0]).toBeCloseTo(Math.sqrt(0.5 / 3), 12);
    expect(standsNow(read(0), { ...read(1), limit: 3 }).limit).toBe(3);
  });

  it('begins anew where it was moved', () => {
    expect(standsNow(read(0), read(4))).toEqual(read(4));
  });

  it('holds the truth within two standard deviations as often as it says, and closer than the last reading', () => {
    const random = seeded(11);
    let [inside, better, all] = [0, 0, 0];
    for (let shell = 0; shell < 200; shell++) {
      let truth = 0;
      let known: Standing | undefined;
      for (let round = 0; round < 8; round++) {
        truth += 0.5 * random.normal();
        const reading = truth + 0.5 * random.normal();
        known = standsNow(known, read(reading));
        if (round < 3) continue;
        all++;
        if (Math.abs(known.off[0] - truth) <= 2 * known.sd[0]) inside++;
        better += (reading - truth) ** 2 - (known.off[0] - truth) ** 2;
      }
    }
    expect(inside / all).toBeGreaterThan(0.92);
    expect(inside / all).toBeLessThan(0.98);
    expect(better / all).toBeGreaterThan(0.05);
  });

  it('leaves room for what two and a half standard deviations may hide, and never none at all', () => {
    const { up, down } = roomOf(read(0.5, 0.25));
    expect([up[0], down[0], up[1]]).toEqual([0.875, 1.875, 1.375]);
    expect(roomOf(read(1.9)).up[0]).toBe(0.25);
  });
});
