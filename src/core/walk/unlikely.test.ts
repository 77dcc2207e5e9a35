import { describe, expect, it } from 'vitest';
import { unlikely } from './unlikely';
import type { Expectation } from './wanted';

const net: Expectation = { value: 1762.9, sd: 1.5, from: 'net' };
const chart: Expectation = { value: 1762.9, sd: 18, from: 'chart' };
const length = (value: number) => ({ quantity: 'distance', value });

describe('a length where 1762.9 is expected', () => {
  it.each([
    [1862.9, 'startMark'],
    [1788.3, 'inchStartMark'],
    [1672.9, 'digitsExchanged'],
    [1462.9, undefined],
    [2262.9, undefined],
    [3000, undefined],
    [176.29, 'unit'],
  ])('is asked about as %d, from the net', (value, slip) => {
    expect(unlikely(length(value), net, 1.1)).toMatchObject({ over: expect.closeTo(value - 1762.9, 6) });
    expect(unlikely(length(value), net, 1.1)?.slip).toBe(slip);
  });

  it.each([1862.9, 1462.9, 2262.9, 3000])('is asked about as %d, before anything is located', (value) => {
    expect(unlikely(length(value), chart, 1.1)).toBeDefined();
  });

  it('is taken without a word where a bent shell explains it, or the tape', () => {
    for (const value of [1752, 1775, 1800]) expect(unlikely(length(value), chart, 1.1)).toBeUndefined();
    for (const value of [1760, 1765]) expect(unlikely(length(value), net, 1.1)).toBeUndefined();
  });

  it('is taken where nothing is expected', () => {
    expect(unlikely(length(5), undefined, 1)).toBeUndefined();
  });
});

describe('what is no length', () => {
  it('is asked about with the wrong sign, and that is named', () => {
    const height: Expectation = { value: 350, sd: 80, from: 'chart' };
    expect(unlikely({ quantity: 'height', value: -350 }, height, 0.7)).toMatchObject({ slip: 'sign', over: -700 });
  });

  it('is asked about as a gap of 50 for 5', () => {
    const gap: Expectation = { value: 5, sd: 3, from: 'chart' };
    expect(unlikely({ quantity: 'gap', value: 50 }, gap, 0.25)).toMatchObject({ over: 45 });
    expect(unlikely({ quantity: 'gap', value: 9.5 }, gap, 0.25)).toBeUndefined();
  });
});
