import { describe, expect, it } from 'vitest';
import { shimsFor } from './shims';

const shelf = [
  { name: 'S5', height: 5, count: 2 },
  { name: 'S2', height: 2, count: 1 },
  { name: 'S1', height: 1, count: 3 },
  { name: 'T40', height: 40, count: 9 },
];

describe('shims under a clamp without a thread', () => {
  it('come nearest to what is wanted, the fewest that do', () => {
    expect(shimsFor(7.2, shelf)).toEqual({ names: ['S5', 'S2'], off: expect.closeTo(-0.2, 9) });
    expect(shimsFor(3, shelf)).toEqual({ names: ['S2', 'S1'], off: 0 });
    expect(shimsFor(0.3, shelf)).toEqual({ names: [], off: -0.3 });
  });

  it('are no towers, no more than there are, and at most four', () => {
    expect(shimsFor(40, shelf).names).toEqual(['S5', 'S5', 'S2', 'S1']);
    expect(shimsFor(5, []).off).toBe(-5);
  });
});
