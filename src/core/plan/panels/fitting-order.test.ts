import { describe, expect, it } from 'vitest';
import { seeded } from '../../maths/random/seeded';
import { fittingOrder, type Before, type FitPart, type FitSeam } from './fitting-order';

const seam = (a: string, b: string, sd = 0.4, weight = 1): FitSeam => ({
  code: `${a}${b}`,
  a,
  b,
  sd,
  limit: 1,
  weight,
});
const loose = (...ids: string[]): FitPart[] => ids.map((id) => ({ id, sure: false }));

/** The worst seam of every order and every choice of neighbour, tried one after the other. */
function worstOfAll(parts: readonly FitPart[], seams: readonly FitSeam[], before: readonly Before[]): number {
  let best = Infinity;
  const ground = parts.filter(({ sure }) => sure).map(({ id }) => id);
  const set = (placed: readonly string[], between: ReadonlyMap<string, number>) => {
    if (placed.length === parts.length) {
      const worst = Math.max(
        0,
        ...seams.map(({ a, b, weight, limit }) => (weight * Math.sqrt(between.get(`${a} ${b}`) ?? 0)) / limit),
      );
      best = Math.min(best, worst);
      return;
    }
    for (const { id } of parts.filter((part) => !placed.includes(part.id))) {
      if (before.some(([first, then]) => then === id && !placed.includes(first))) continue;
      const ties = seams.filter(({ a, b }) => (a === id && placed.includes(b)) || (b === id && placed.includes(a)));
      const begins = placed.length === 0;
      for (const tie of begins ? [undefined] : ties) {
        const next = new Map(between);
        const by = tie && (tie.a === id ? tie.b : tie.a);
        for (const other of placed) {
          const along = (by === other ? 0 : between.get(`${by} ${other}`)!) + tie!.sd ** 2;
          next.set(`${id} ${other}`, along).set(`${other} ${id}`, along);
        }
        set([...placed, id], next);
      }
    }
  };
  const still = new Map(ground.flatMap((a) => ground.filter((b) => b !== a).map((b) => [`${a} ${b}`, 0] as const)));
  set(ground, still);
  return best;
}

describe('the order of fitting', () => {
  it('sets a row of panels from its middle, where nothing is sure', () => {
    const { steps, worst } = fittingOrder(
      loose('A', 'B', 'C', 'D', 'E'),
      [seam('A', 'B'), seam('B', 'C'), seam('C', 'D'), seam('D', 'E')],
      [],
    );
    expect(steps[0]!.id).toBe('C');
    expect(worst!.sd).toBeCloseTo(0.4, 9);
    expect(steps.at(-1)!.sd).toBeCloseTo(0.4 * Math.SQRT2, 9);
  });

  it('closes a ring round the shell where it is seen least', () => {
    const ring = [
      seam('door', 'quarter'),
      seam('quarter', 'lid', 0.4, 3),
      seam('lid', 'wing'),
      seam('wing', 'door', 0.4, 3),
    ];
    const { worst, steps } = fittingOrder(loose('door', 'quarter', 'lid', 'wing'), ring, []);
    // Three links add up across the one that closes it: 0.4·√3.
    expect(['doorquarter', 'lidwing']).toContain(
      ring.find(({ code }) => !steps.some(({ by }) => by?.seam === code))!.code,
    );
    expect(worst!.share).toBeCloseTo(1.2, 9);
  });

  it('begins at what is sure, and sets the rear door before the front one', () => {
    const parts = [{ id: 'shell', sure: true }, ...loose('front', 'rear', 'wing')];
    const seams = [seam('rear', 'shell'), seam('front', 'rear'), seam('wing', 'front'), seam('front', 'shell', 0.3)];
    const { steps } = fittingOrder(parts, seams, [
      ['rear', 'front'],
      ['front', 'wing'],
    ]);
    expect(steps.map(({ id }) => id)).toEqual(['rear', 'front', 'wing']);
  });

  it('is as good as the best of every order there is', () => {
    for (let seed = 1; seed <= 25; seed++) {
      const random = seeded(seed);
      const ids = ['a', 'b', 'c', 'd', 'e'];
      const parts = ids.map((id, i) => ({ id, sure: seed % 2 === 0 && i === 0 }));
      const seams = ids.flatMap((a, i) =>
        ids
          .slice(i + 1)
          .flatMap((b, k) =>
            k === 0 || random.next() < 0.4
              ? [seam(a, b, 0.2 + 0.5 * random.next(), 1 + Math.floor(3 * random.next()))]
              : [],
          ),
      );
      const before: Before[] = seed % 3 === 0 ? [['b', 'd']] : [];
      const found = fittingOrder(parts, seams, before);
      expect(found.worst!.share, `seed ${seed}`).toBeCloseTo(worstOfAll(parts, seams, before), 9);
      expect(found.steps).toHaveLength(parts.filter(({ sure }) => !sure).length);
    }
  });

  it('leaves out what no seam ties to the rest', () => {
    expect(fittingOrder(loose('a', 'b', 'c'), [seam('a', 'b')], []).apart).toEqual(['c']);
  });
});
