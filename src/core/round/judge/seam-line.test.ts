import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../../tests/support/demo-rows';
import { seeded } from '../../maths/random/seeded';
import { gapsPage } from '../../report/pages/gaps';
import { seamFaultText } from '../../report/gap-words';
import { Job } from '../../shell/job/job';
import { seamLine, sidesDiffer, type ReadStation } from './seam-line';

const stations = (deviations: readonly number[], sd = 0.25): ReadStation[] =>
  deviations.map((deviation, i) => ({ along: i + 1, deviation, sd, limit: 1 }));

describe('a seam as a whole', () => {
  it('is too wide, opens, and bulges by what a straight line says, worked by hand', () => {
    // Through 1, 2, 3 and 6 at 1 to 4: mean 3, slope 1.6, so 0.6, 2.2, 3.8 and 5.4.
    const line = seamLine(stations([1, 2, 3, 6]))!;
    expect(line.mean.value).toBeCloseTo(3, 12);
    expect(line.mean.sd).toBeCloseTo(0.125, 12);
    expect(line.taper!.value).toBeCloseTo(4.8, 12);
    // σ·length/√Σ(x − x̄)² = 0.25·3/√5.
    expect(line.taper!.sd).toBeCloseTo((0.25 * 3) / Math.sqrt(5), 12);
    expect(line.wave).toMatchObject({ at: 2 });
    expect(line.wave!.value).toBeCloseTo(-0.8, 12);
    // Leverage of the third of four: 1/4 + 0.5²/5.
    expect(line.wave!.sd).toBeCloseTo(0.25 * Math.sqrt(1 - 0.3), 12);
  });

  it('says no more than its stations bear', () => {
    expect(seamLine([])).toBeUndefined();
    const one = seamLine(stations([0.4]))!;
    expect([one.taper, one.wave]).toEqual([undefined, undefined]);
    expect(seamLine(stations([0.4, 0.6]))!.wave).toBeUndefined();
  });

  it('is judged by how sure its figures are: within two standard deviations 95 of a hundred times', () => {
    const random = seeded(4);
    let [within, all] = [0, 0];
    for (let i = 0; i < 400; i++) {
      const line = seamLine(stations([0, 1, 2, 3, 4].map((k) => 0.3 - 0.2 * k + 0.25 * random.normal())))!;
      for (const [figure, truth] of [
        [line.mean, -0.1],
        [line.taper!, -0.8],
      ] as const) {
        all++;
        if (Math.abs(figure.value - truth) <= 2 * figure.sd) within++;
      }
    }
    expect(within / all).toBeGreaterThan(0.93);
    expect(within / all).toBeLessThan(0.97);
  });

  it('differs from its other side by the stations read on both', () => {
    const side = (list: readonly [number, number][]) =>
      new Map(list.map(([number, deviation]) => [number, { along: number, deviation, sd: 0.3, limit: 1 }]));
    const differ = sidesDiffer(
      side([
        [1, 2],
        [2, 3],
        [3, 9],
      ]),
      side([
        [1, 0.5],
        [2, 1],
      ]),
    )!;
    expect(differ.value).toBeCloseTo(1.75, 12);
    expect(differ.sd).toBeCloseTo((0.3 * Math.SQRT2 * Math.SQRT2) / 2, 12);
    expect(differ.verdict).toBe('outside');
    expect(sidesDiffer(side([[1, 2]]), side([[2, 2]]))).toBeUndefined();
  });
});

describe('the seams of the estate', () => {
  const page = gapsPage(Job.of(demoRows('solbris')));

  it('lie between the points that are named, their stations spread along', () => {
    const seam = page.placed.find(({ code }) => code === 'DBL')!;
    expect(seam.stations).toHaveLength(3);
    expect(seam.stations.every(({ at }) => at[1] < 0)).toBe(true);
    const [first, middle, last] = seam.stations.map(({ at }) => at[2]) as [number, number, number];
    expect(middle).toBeCloseTo((first + last) / 2, 9);
  });

  it('are told by what is out for certain, then by how much it is seen', () => {
    expect(page.faults.length).toBeGreaterThan(0);
    const certain = page.faults.map(({ figure }) => figure.verdict === 'outside');
    expect(certain).toEqual(certain.toSorted((a, b) => Number(b) - Number(a)));
    const words = { length: (mm: number) => `${mm.toFixed(1)} mm`, plusMinus: (mm: number) => `±${mm.toFixed(1)}` };
    expect(seamFaultText(page.faults[0]!, words)).toMatch(/^[A-Z]+:? .*\d\.\d mm ±\d\.\d/);
  });
});
