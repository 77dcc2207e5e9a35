import { describe, expect, it } from 'vitest';
import { stiffnessRange } from './press-test';

describe('how stiff a shell is', () => {
  it('is known to a factor of two before anybody pressed', () => {
    const { low, usual, high, tested } = stiffnessRange([]);
    expect([low, usual, high, tested]).toEqual([expect.closeTo(0.5, 9), 1, expect.closeTo(2, 9), false]);
  });

  it('comes near what a press test says, in a narrower range', () => {
    // The model has the opening open 0.30; it opened 0.45: two thirds as stiff.
    const { low, usual, high, tested } = stiffnessRange([{ opened: 0.45, sd: 0.02, modelled: 0.3 }]);
    expect(tested).toBe(true);
    expect(usual).toBeGreaterThan(0.66);
    expect(usual).toBeLessThan(0.74);
    expect(high / low).toBeLessThan(2);
    expect(low).toBeLessThan(0.667);
    expect(high).toBeGreaterThan(0.667);
  });

  it('is known better by two tests than by one, and not at all by one across what is not modelled', () => {
    const one = [{ opened: 0.3, sd: 0.02, modelled: 0.3 }];
    const range = ({ low, high }: ReturnType<typeof stiffnessRange>) => high / low;
    expect(range(stiffnessRange([...one, ...one]))).toBeLessThan(range(stiffnessRange(one)));
    expect(stiffnessRange([{ opened: 0.3, sd: 0.02, modelled: 0 }])).toMatchObject({ usual: 1, tested: false });
  });
});
