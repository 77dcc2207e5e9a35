import { describe, expect, it } from 'vitest';
import { rangeOfFactor, spreadOf, weighedFactor } from './factor';

describe('a factor known within a range', () => {
  it('stays where it was before any trial, and goes half way for a trial as good as the range', () => {
    expect(rangeOfFactor(weighedFactor([], spreadOf(3)))).toEqual({
      low: expect.closeTo(1 / 3, 12),
      usual: 1,
      high: expect.closeTo(3, 12),
    });
    const { log, sd } = weighedFactor([{ ratio: 4, sd: spreadOf(3) }], spreadOf(3));
    expect([Math.exp(log), sd]).toEqual([expect.closeTo(2, 12), expect.closeTo(spreadOf(3) / Math.SQRT2, 12)]);
  });
});
