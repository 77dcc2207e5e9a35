import { describe, expect, it } from 'vitest';
import { motion, position, type Matrix3, type Vector } from '../../maths/geometry/vector';
import { fitSelected } from '../../maths/rigid/fit';
import { seeded } from '../../maths/random/seeded';
import { alongBench, fittedPlacement } from './placement';

const points: Vector[] = [
  [0, -400, 200],
  [0, 400, 200],
  [1500, -600, 150],
  [1500, 600, 150],
  [2500, 0, 320],
];
/** A shell that stands 450 back, 5 right and 310 up, turned half a degree about Z and 0.2 about Y. */
const [yaw, pitch] = [(0.5 * Math.PI) / 180, (0.2 * Math.PI) / 180];
const [c, s, cp, sp] = [Math.cos(yaw), Math.sin(yaw), Math.cos(pitch), Math.sin(pitch)];
const turned: Matrix3 = [
  [c * cp, -s, c * sp],
  [s * cp, c, s * sp],
  [-sp, 0, cp],
];
const onBench = (at: Vector): Vector =>
  turned.map((row, k) => row.reduce((sum, value, i) => sum + value * at[i]!, [450, 5, 310][k]!)) as unknown as Vector;
const fitted = (sd: number, seed = 1) => {
  const random = seeded(seed);
  const noisy = (at: Vector) => at.map((value) => value + sd * random.normal()) as unknown as Vector;
  const pairs = points.map((reference, i) => ({
    ...{ id: `${i}`, sigma: Math.max(sd, 0.1) },
    ...{ reference: position<'chart'>(reference), measured: position<'round'>(noisy(onBench(reference))) },
  }));
  const fit = fitSelected(pairs);
  if (!fit.ok) throw new Error(fit.reason);
  return fittedPlacement(fit.motion, pairs);
};

describe('the placement a round has found', () => {
  it('is where the chart’s zero stands on the bench, and how its axes are turned', () => {
    const { at, turned: turns } = fitted(0);
    [450, 5, 310].forEach((value, k) => expect(at[k]!.value).toBeCloseTo(value, 6));
    [0, 0.2, 0.5].forEach((value, k) => expect(turns[k]!.value).toBeCloseTo(value, 6));
  });

  it('is as uncertain as it scatters', () => {
    const all = Array.from({ length: 300 }, (_, k) => fitted(0.5, k + 1));
    for (const of of ['at', 'turned'] as const)
      for (const k of [0, 1, 2]) {
        const values = all.map((each) => each[of][k]!.value);
        const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
        const sd = Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (values.length - 1));
        expect(all[0]![of][k]!.uncertainty / (2 * sd)).toBeGreaterThan(0.85);
        expect(all[0]![of][k]!.uncertainty / (2 * sd)).toBeLessThan(1.15);
      }
  });

  it('of a shell that stands just as planned is nothing but a shift', () => {
    const identity = motion<'round', 'chart'>(
      [
        [1, 0, 0],
        [0, 1, 0],
        [0, 0, 1],
      ],
      [-450, 0, -310],
    );
    const { at, turned: turns } = fittedPlacement(
      identity,
      points.map((each) => ({ measured: position<'round'>(each), sigma: 1 })),
    );
    expect(at.map(({ value }) => value)).toEqual([450, expect.closeTo(0, 9), 310]);
    expect(turns.map(({ value }) => value)).toEqual([0, 0, 0].map((value) => expect.closeTo(value, 9)));
  });
});

describe('a placement along the bench', () => {
  it('takes each figure from the plane it is nearer to: the bench’s, or the chart’s as planned', () => {
    const known = (value: number) => ({ value, uncertainty: 0.5 });
    const found = { at: [known(1.6), known(-0.7), known(249.8)], turned: [known(0), known(0), known(0)] } as const;
    expect(alongBench(found, [900, 0, 250]).at.map(({ value }) => value)).toEqual([901.6, -0.7, 249.8]);
    const onRails = { ...found, at: [known(899.2), known(0.4), known(1.1)] as const };
    expect(alongBench(onRails, [900, 0, 250]).at.map(({ value }) => value)).toEqual([899.2, 0.4, 251.1]);
  });
});
