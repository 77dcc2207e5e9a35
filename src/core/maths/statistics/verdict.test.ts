import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { judge, judgeChange, worstVerdict } from './verdict';

describe('a verdict', () => {
  it.each([
    [2.0, 0.5, 3, 'inside'],
    [-2.0, 0.5, 3, 'inside'],
    [2.01, 0.5, 3, 'undecided'],
    [4.0, 0.5, 3, 'undecided'],
    [4.01, 0.5, 3, 'outside'],
    [-12, 1, 3, 'outside'],
    [0, 1.5, 3, 'inside'],
    [0, 1.51, 3, 'undecided'],
  ])('%f with sd %f against %f is %s', (deviation, sd, limit, verdict) => {
    expect(judge(deviation, sd, limit).verdict).toBe(verdict);
  });

  it('says when it is known too coarsely for the limit', () => {
    expect(judge(0.5, 1.6, 3).tooCoarse).toBe(true);
    expect(judge(2.5, 0.5, 3).tooCoarse).toBe(false);
    expect(judge(12, 1.6, 3)).toMatchObject({ verdict: 'outside', tooCoarse: false });
  });

  it('never turns from inside to outside when the uncertainty alone grows', () => {
    const size = fc.double({ min: 0, max: 20, noNaN: true });
    fc.assert(
      fc.property(size, size, size, (deviation, a, b) => {
        const [small, large] = [Math.min(a, b), Math.max(a, b)];
        const before = judge(deviation, small, 3).verdict;
        const after = judge(deviation, large, 3).verdict;
        return after === before || after === 'undecided';
      }),
    );
  });

  it('lets the worst axis rule', () => {
    expect(worstVerdict(['inside', 'outside', 'undecided'])).toBe('outside');
    expect(worstVerdict(['inside', 'undecided'])).toBe('undecided');
    expect(worstVerdict(['inside', 'inside', 'inside'])).toBe('inside');
  });
});

describe('a change between two rounds', () => {
  it.each([
    [1.0, 0.5, 2, 'held'],
    [1.01, 0.5, 2, 'undecided'],
    [3.0, 0.5, 2, 'undecided'],
    [-3.01, 0.5, 2, 'moved'],
  ])('%f with sd %f against %f has %s', (change, sd, limit, verdict) => {
    expect(judgeChange(change, sd, limit)).toBe(verdict);
  });
});
