import { describe, expect, it } from 'vitest';
import { add, apply, position, type Matrix3, type Vector } from '../geometry/vector';
import { seeded, type Random } from '../random/seeded';
import { FastFit } from './fast-fit';
import { deviationOf, fitSelected } from './fit';

/** A turn by an angle about an axis through the origin (Rodrigues). */
function turn([x, y, z]: Vector, angle: number): Matrix3 {
  const [c, s, t] = [Math.cos(angle), Math.sin(angle), 1 - Math.cos(angle)];
  return [
    [t * x * x + c, t * x * y - s * z, t * x * z + s * y],
    [t * x * y + s * z, t * y * y + c, t * y * z - s * x],
    [t * x * z - s * y, t * y * z + s * x, t * z * z + c],
  ];
}

const noise = (random: Random, spread: number): Vector => [
  spread * random.normal(),
  spread * random.normal(),
  spread * random.normal(),
];

/** Points of a shell and where a turned bench finds them; `flat` puts them all on one floor. */
function bench(random: Random, count: number, rotation: Matrix3, flat = false) {
  return Array.from({ length: count }, (_, i) => {
    const z = flat ? 120 : 100 + 900 * random.next();
    const reference = position<'chart'>([3600 * random.next(), 1400 * (random.next() - 0.5), z]);
    const measured = position<'round'>(add(add(apply(rotation, reference), noise(random, 3)), [40, -900, 300]));
    return { id: String(i), reference, measured, sigma: 0.5 + random.next() };
  });
}

function bothFits(points: ReturnType<typeof bench>, set: readonly number[]) {
  const fast = new FastFit(points);
  const some = set.map((i) => points[i]!);
  const ok = fast.fit(
    set,
    Float64Array.from(some, ({ sigma }) => 1 / sigma ** 2),
  );
  const slow = fitSelected(some);
  return { ok, slow, some, distances: [...fast.distances.subarray(0, set.length)] };
}

describe('the fast fit of a subset', () => {
  const axes: Vector[] = [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
    [0.6, 0, 0.8],
  ];
  it.each([0, 0.002, 0.7, Math.PI / 2, Math.PI - 1e-4, Math.PI])(
    'is the same as the full one, the bench turned by %f about any axis',
    (angle) => {
      const random = seeded(31);
      for (const axis of axes)
        for (const flat of [false, true]) {
          const points = bench(random, 12, turn(axis, angle), flat);
          const { ok, slow, some, distances } = bothFits(points, [7, 0, 3, 11, 5, 9]);
          expect(ok).toBe(true);
          if (!slow.ok) throw new Error(slow.reason);
          const { motion } = slow;
          some.forEach((point, k) => expect(distances[k]).toBeCloseTo(deviationOf(motion, point).d, 7));
        }
    },
  );

  it('brings every point home where nothing moved', () => {
    const random = seeded(5);
    const rotation = turn([0, 0, 1], 1.3);
    const points = bench(random, 8, rotation).map((point) => ({
      ...point,
      measured: position<'round'>(apply(rotation, point.reference)),
    }));
    const { ok, distances } = bothFits(points, [0, 1, 2, 3, 4, 5, 6, 7]);
    expect(ok).toBe(true);
    expect(Math.max(...distances)).toBeLessThan(1e-6);
  });

  it('refuses two points, and points on one line', () => {
    const points = bench(seeded(2), 6, turn([0, 0, 1], 0));
    expect(bothFits(points, [1, 4]).ok).toBe(false);
    const rail = points.map((point, i) => ({ ...point, reference: position<'chart'>([500 * i, 400, 120]) }));
    expect(bothFits(rail, [0, 1, 2, 3]).ok).toBe(false);
  });
});
