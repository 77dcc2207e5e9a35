import { describe, expect, it } from 'vitest';
import { alike } from './alike';

const height = { id: 'r1', kind: 'height', point: 'F1L', value: 520.5, sigma: 0.6 };

describe('two plain values', () => {
  it('say the same where every figure in them does, however deep', () => {
    const bar = { ...height, pointers: [120, 300], bias: { group: 'r1', sigma: 0.4 } };
    expect(alike(bar, structuredClone(bar))).toBe(true);
    expect(alike([height, bar], structuredClone([height, bar]))).toBe(true);
    expect(alike(bar, { ...bar, pointers: [120, 301] })).toBe(false);
    expect(alike(bar, { ...bar, bias: { ...bar.bias, sigma: 0.5 } })).toBe(false);
    expect(alike([height], [height, bar])).toBe(false);
  });

  it('differ where one has a field more, empty or not', () => {
    expect(alike(height, { ...height, note: undefined })).toBe(false);
    expect(alike({ ...height, note: '' }, height)).toBe(false);
    expect(alike({ ...height, note: null }, { ...height, note: {} })).toBe(false);
    expect(alike({ a: undefined }, { b: undefined })).toBe(false);
  });

  it('may differ in what does not count', () => {
    const later = { ...height, takenAt: '10:05' };
    expect(alike({ ...height, takenAt: '10:00' }, later)).toBe(false);
    expect(alike({ ...height, takenAt: '10:00' }, later, new Set(['takenAt']))).toBe(true);
  });
});
