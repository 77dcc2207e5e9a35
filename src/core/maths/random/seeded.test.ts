import { describe, expect, it } from 'vitest';
import { noiseOf, seeded } from './seeded';

const many = (draw: () => number, count = 40_000) => Array.from({ length: count }, draw);
const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;

describe('seeded chance', () => {
  it('is the same for the same seed and another for another', () => {
    const draws = (seed: number) => many(seeded(seed).next, 20);
    expect(draws(7)).toEqual(draws(7));
    expect(draws(7)).not.toEqual(draws(8));
  });

  it('is even between nought and one', () => {
    const values = many(seeded(1).next);
    expect(Math.min(...values)).toBeGreaterThanOrEqual(0);
    expect(Math.max(...values)).toBeLessThan(1);
    expect(mean(values)).toBeCloseTo(1 / 2, 2);
    expect(mean(values.map((value) => (value - 0.5) ** 2))).toBeCloseTo(1 / 12, 2);
  });

  it('is normal with the moments of a normal', () => {
    const values = many(seeded(2).normal);
    expect(mean(values)).toBeCloseTo(0, 1);
    expect(mean(values.map((value) => value ** 2))).toBeCloseTo(1, 1);
    expect(Math.abs(mean(values.map((value) => value ** 3)))).toBeLessThan(0.06);
    expect(Math.abs(mean(values.map((value) => value ** 4)) - 3)).toBeLessThan(0.15);
    const beyond = values.filter((value) => Math.abs(value) > 1.96).length / values.length;
    expect(Math.abs(beyond - 0.05)).toBeLessThan(0.005);
  });

  it('is drawn once for all who ask, and the same as if drawn one by one', () => {
    const noise = noiseOf(5);
    const { normal } = seeded(5);
    const each = many(normal, 30);
    expect([...noise(10)]).toEqual(each.slice(0, 10));
    expect([...noise(30)]).toEqual(each);
    expect([...noise(20)]).toEqual(each.slice(0, 20));
  });

  it('makes identities that are valid and do not meet', () => {
    const { uuid } = seeded(3);
    const ids = Array.from({ length: 2000 }, uuid);
    expect(new Set(ids).size).toBe(2000);
    for (const id of ids) expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
  });
});
