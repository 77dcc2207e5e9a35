import { describe, expect, it } from 'vitest';
import type { Vector } from '../../maths/geometry/vector';
import { floorLine } from './floor-line';

describe('a line on the floor through two plumb marks', () => {
  const stands: readonly { id: string; at: Vector }[] = [
    { id: 'left', at: [900, -600, 180] },
    { id: 'right', at: [900, 600, 180] },
  ];

  it('down the middle leaves every place its own station and width', () => {
    const line = floorLine([0, 0, 300], [2500, 0, 250], stands)!;
    expect([line.length, line.turned, line.beside]).toEqual([2500, 0, 0]);
    expect(line.places.map(({ along, right }) => [along, right])).toEqual([
      [900, -600],
      [900, 600],
    ]);
    expect(line.places[0]!.fromFirst).toBeCloseTo(Math.hypot(900, 600), 9);
    expect(line.places[0]!.fromSecond).toBeCloseTo(Math.hypot(1600, 600), 9);
  });

  it('from one side to the other is turned against the centre plane, and distances stay what they are', () => {
    const line = floorLine([0, -400, 0], [2000, -300, 0], stands)!;
    expect(line.turned).toBeCloseTo((Math.atan2(100, 2000) * 180) / Math.PI, 9);
    expect(line.beside).toBe(-400);
    const [left, right] = line.places;
    expect(Math.hypot(right!.along - left!.along, right!.right - left!.right)).toBeCloseTo(1200, 9);
    expect(right!.right).toBeGreaterThan(left!.right);
  });

  it('is none where the marks are nearly one', () => {
    expect(floorLine([0, 0, 0], [100, 20, 900], stands)).toBeUndefined();
  });
});
