import { describe, expect, it } from 'vitest';
import { place, position } from '../geometry/vector';
import { Symmetric } from '../linear/symmetric';
import { seeded } from '../random/seeded';
import { shellPoints } from '../../practice/shell-net';
import { carried, vehicleAxes } from './vehicle-axes';

const tight = { matrix: (ids: readonly string[]) => Symmetric.zeros(3 * ids.length).addDiagonal(0.01) };

describe('vehicle axes where there is no chart', () => {
  const shell = shellPoints(24, seeded(2));
  const [c, s] = [Math.cos(0.08), Math.sin(0.08)];
  const bench = new Map(
    [...shell].map(([id, [x, y, z]]) => [id, position<'round'>([c * x - s * y + 500, s * x + c * y + 70, z + 12])]),
  );
  const pairs = Array.from({ length: 12 }, (_, i) => ({ left: `P${i}L`, right: `P${i}R` }));
  const axes = vehicleAxes({ positions: bench, joint: tight, pairs, centre: [] });

  it('put the two sides as far from the middle, left below zero', () => {
    if (!axes.ok) throw new Error(axes.reason);
    const placed = carried(axes.motion, bench);
    for (const { left, right } of pairs) {
      expect(placed.get(left)![1]).toBeLessThan(0);
      expect(Math.abs(placed.get(left)![1] + placed.get(right)![1])).toBeLessThan(1.5);
    }
    expect(Math.min(...[...placed.values()].map(([x]) => x))).toBeCloseTo(0, 9);
    // Heights are the bench's own.
    expect(place(axes.motion, bench.get('P3L')!)[2]).toBeCloseTo(bench.get('P3L')![2], 0);
  });

  it('are refused with what to measure', () => {
    expect(vehicleAxes({ positions: bench, joint: tight, pairs: pairs.slice(0, 1), centre: [] })).toMatchObject({
      ok: false,
    });
  });
});
