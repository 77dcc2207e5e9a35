import { describe, expect, it } from 'vitest';
import type { Target } from '@/core/walk/targets';
import { targetText } from './target-text';

const wanted = (some: Pick<Target, 'codes' | 'quantity'> & Partial<Target>): Target => ({
  ...{ key: '', why: 'uncertain', again: false, ...some },
});

describe('a reading that is wanted', () => {
  it('is called by its two points, and how the bar is held', () => {
    expect(targetText(wanted({ codes: ['F1L', 'S2L'], quantity: 'distance', measure: 'tip' }))).toBe('F1L – S2L');
    expect(targetText(wanted({ codes: ['F1L', 'S2L'], quantity: 'distance', measure: 'level', again: true }))).toBe(
      'F1L – S2L level, again',
    );
  });

  it('at one point says whether it is a height, a width or a length', () => {
    for (const quantity of ['height', 'width', 'length'] as const)
      expect(targetText(wanted({ codes: ['F1L'], quantity }))).toBe(`F1L ${quantity}`);
  });
});
