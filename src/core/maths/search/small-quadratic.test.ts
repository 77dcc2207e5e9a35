import { describe, expect, it } from 'vitest';
import { seeded, type Random } from '../random/seeded';
import { minimise, type Bound } from './small-quadratic';

const dot = (a: readonly number[], b: readonly number[]) => a.reduce((sum, value, i) => sum + value * b[i]!, 0);

/** A bowl of a few unknowns, and bounds that leave the origin allowed. */
function drawn(random: Random, n: number, more: number) {
  const rows = Array.from({ length: n + 2 }, () => Array.from({ length: n }, () => random.normal()));
  const H = Array.from({ length: n }, (_, i) =>
    Array.from({ length: n }, (__, j) => rows.reduce((sum, row) => sum + row[i]! * row[j]!, 0)),
  );
  const g = Array.from({ length: n }, () => 6 * random.normal());
  const units = Array.from({ length: n }, (_, i) => Array.from({ length: n }, (__, j) => (i === j ? 1 : 0)));
  const bounds: Bound[] = [
    ...units.map((a) => ({ a, b: 1 })),
    ...units.map((a) => ({ a: a.map((value) => -value), b: 0 })),
    ...Array.from({ length: more }, () => ({ a: Array.from({ length: n }, () => random.normal()), b: random.next() })),
  ];
  return { H, g, bounds };
}

const valueAt = (H: readonly (readonly number[])[], g: readonly number[], x: readonly number[]) =>
  dot(
    x,
    H.map((row) => dot(row, x)),
  ) /
    2 -
  dot(g, x);

describe('a small quadratic programme', () => {
  it('is nowhere beaten by a fine net of allowed places, and keeps its bounds', () => {
    const random = seeded(5);
    for (let trial = 0; trial < 60; trial++) {
      const { H, g, bounds } = drawn(random, 2, trial % 4);
      const x = minimise(H, g, bounds);
      for (const { a, b } of bounds) expect(dot(a, x)).toBeLessThanOrEqual(b + 1e-9);
      const least = valueAt(H, g, x);
      for (let i = 0; i <= 40; i++)
        for (let j = 0; j <= 40; j++) {
          const other = [i / 40, j / 40];
          if (bounds.every(({ a, b }) => dot(a, other) <= b))
            expect(valueAt(H, g, other)).toBeGreaterThanOrEqual(least - 1e-9);
        }
    }
  });

  it('satisfies the conditions of Karush, Kuhn and Tucker with more unknowns: no allowed step leads further down', () => {
    const random = seeded(8);
    for (let trial = 0; trial < 40; trial++) {
      const { H, g, bounds } = drawn(random, 6, 8);
      const x = minimise(H, g, bounds);
      const least = valueAt(H, g, x);
      for (let k = 0; k < 300; k++) {
        const other = x.map((value) => value + 0.05 * random.normal());
        if (bounds.every(({ a, b }) => dot(a, other) <= b))
          expect(valueAt(H, g, other)).toBeGreaterThanOrEqual(least - 1e-9);
      }
    }
  });

  it('finds a smallest value where a direction costs nothing', () => {
    // Only the sum counts, and it is to be 1.
    const x = minimise(
      [
        [1, 1],
        [1, 1],
      ],
      [1, 1],
      [
        { a: [-1, 0], b: 0 },
        { a: [0, -1], b: 0 },
      ],
    );
    expect(x[0]! + x[1]!).toBeCloseTo(1, 9);
    expect(x[0]).toBeCloseTo(0.5, 6);
  });
});
