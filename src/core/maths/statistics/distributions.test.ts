import { describe, expect, it } from 'vitest';
import { ABOVE_TWO_SD, chiSquareLimit, chiSquareTail, holm, studentLimit, twoSidedTail } from './distributions';

describe('distributions, against printed tables', () => {
  it('χ²', () => {
    expect(chiSquareLimit(0.05, 3)).toBeCloseTo(7.815, 3);
    expect(chiSquareLimit(0.01, 6)).toBeCloseTo(16.812, 3);
    expect(chiSquareTail(7.815, 3)).toBeCloseTo(0.05, 4);
  });
  it('normal and Student’s t', () => {
    expect(twoSidedTail(1.96)).toBeCloseTo(0.05, 4);
    expect(twoSidedTail(2) / 2).toBeCloseTo(ABOVE_TWO_SD, 12);
    expect(studentLimit(0.025, 5)).toBeCloseTo(2.5706, 4);
    expect(studentLimit(0.025, 60)).toBeCloseTo(2.0003, 4);
  });
});

describe('Holm’s correction', () => {
  it('rejects step by step, and nothing after the first that stands', () => {
    expect(holm([0.01, 0.04, 0.03, 0.005], 0.05)).toEqual([true, false, false, true]);
  });
  it('keeps false alarms of any of fifty true hypotheses rare', () => {
    // Evenly spread probabilities: the smallest of fifty is one in fifty, far above 5 % / 50.
    expect(
      holm(
        Array.from({ length: 50 }, (_, i) => (i + 1) / 50),
        0.05,
      ).some(Boolean),
    ).toBe(false);
  });
});
