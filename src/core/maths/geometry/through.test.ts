import { describe, expect, it } from 'vitest';
import { goesThrough } from './through';
import type { Vector } from './vector';

/** A floor of 600 by 400, level. */
const FLOOR = [
  [0, 0, 0],
  [600, 0, 0],
  [600, 400, 0],
  [0, 400, 0],
] as const;

describe('a line and a sheet', () => {
  const through = (from: Vector, to: Vector) => goesThrough(from, to, FLOOR);

  it('goes through in either half, upright or aslant, and not beside it', () => {
    expect(through([150, 300, -100], [150, 300, 100])).toBe(true);
    expect(through([450, 100, 100], [350, 150, -100])).toBe(true);
    expect(through([650, 100, 100], [650, 100, -100])).toBe(false);
  });

  it('does not where it ends before it, ends in it, or runs along it', () => {
    expect(through([150, 300, 500], [150, 300, 100])).toBe(false);
    expect(through([0, 0, 0], [300, 200, 700])).toBe(false);
    expect(through([-50, 200, 30], [650, 200, -30])).toBe(false);
  });
});
