import { readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { seeded } from '@/core/maths/random/seeded';
import { conductionOf, riseAt, seenFrom } from '@/core/structure/heat';
import { computeWelding, parseWeld, type WeldDocument } from './welding';

const sample = (name: string) =>
  JSON.parse(readFileSync(path.join('tests/samples', name), 'utf8')) as Record<string, never>;
const read = (value: unknown): WeldDocument => {
  const parsed = parseWeld(value);
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.faults));
  return parsed.value;
};
const answered = (document: WeldDocument) => {
  const answer = computeWelding(document);
  if (!answer.ok) throw new Error(answer.reason);
  return answer.value;
};
const seam = sample('seam.welds.json');
const steel = { thickness: 1, conductivity: 50, density: 7850, heat: 490, loss: 10 };

describe('heat in a thin sheet', () => {
  it('keeps all of it where nothing is lost: the rise over the whole sheet is what was put in', () => {
    const conduction = conductionOf({ ...steel, loss: 0 });
    const sources = [{ at: [0, 0, 0] as const, energy: 400, since: 0 }];
    for (const now of [2, 20]) {
      let joules = 0;
      for (let r = 0.1; r < 600; r += 0.2)
        joules += riseAt(conduction, seenFrom([r, 0, 0], sources), now) * 2 * Math.PI * r * 0.2e-6 * 1e-3 * 7850 * 490;
      expect(joules).toBeCloseTo(400, 1);
    }
  });

  it('is at its own place E/(4π·k·d·τ), and falls by what the faces lose', () => {
    const sources = [{ at: [0, 0, 0] as const, energy: 400, since: 1 }];
    const own = (loss: number) => riseAt(conductionOf({ ...steel, loss }), seenFrom([0, 0, 0], sources), 11);
    expect(own(0)).toBeCloseTo(400 / (4 * Math.PI * 50 * 0.001 * 10), 9);
    expect(own(10) / own(0)).toBeCloseTo(Math.exp((-2 * 10 * 10) / (7850 * 490 * 0.001)), 9);
  });
});

describe('an order of welds', () => {
  it('agrees with the sample', () => {
    const { note: _, ...expected } = sample('seam.welds.expected.json') as unknown as ReturnType<typeof answered> & {
      note: unknown;
    };
    const { finished, order, proven } = answered(read(seam));
    expect(proven).toBe(expected.proven);
    expect(Math.abs(finished - expected.finished)).toBeLessThan(2e-3);
    expect(order.length).toBe(expected.order.length);
  });

  it('is allowed: at each begin the place and all that is laid near it are cool enough, and a moment before they were not', () => {
    const document = { ...read(seam), near: 120 };
    const { order } = answered(document);
    const conduction = conductionOf(document.sheet);
    const plugOf = (id: string) => document.plugs.find((plug) => plug.id === id)!;
    order.forEach(({ id, begun, rise }, k) => {
      const sources = order.slice(0, k).map((laid) => ({
        at: plugOf(laid.id).at,
        energy: plugOf(laid.id).energy ?? document.energy,
        since: laid.begun + (plugOf(laid.id).seconds ?? document.seconds),
      }));
      const here = plugOf(id).at;
      const watched = [
        here,
        ...sources
          .map(({ at }) => at)
          .filter((at) => Math.hypot(at[0] - here[0], at[1] - here[1], at[2] - here[2]) <= 120),
      ];
      const warmest = (now: number) =>
        Math.max(...watched.map((place) => riseAt(conduction, seenFrom(place, sources), now)));
      expect(warmest(begun)).toBeLessThanOrEqual(document.most * (1 + 1e-9));
      expect(rise).toBeCloseTo(riseAt(conduction, seenFrom(here, sources), begun), 9);
      const soonest = k === 0 ? 0 : sources[k - 1]!.since + document.moving;
      if (begun > soonest + 1e-3) expect(warmest(begun - 1e-3)).toBeGreaterThan(document.most);
    });
  });

  it('is as early as any: six plugs against every order; twelve against many drawn ones', () => {
    const base = read(seam);
    const random = seeded(6);
    const plugs = Array.from({ length: 12 }, (_, i) => ({
      id: `p${i}`,
      at: [35 * i, 6 * random.normal(), 0] as [number, number, number],
    }));
    const inOrder = (ids: readonly string[], of: typeof plugs) =>
      answered({ ...base, plugs: of, hold: ids.slice(1).map((id, i) => [ids[i]!, id] as [string, string]) }).finished;
    const shuffled = (ids: string[]) =>
      ids
        .map((id) => ({ id, at: random.next() }))
        .toSorted((a, b) => a.at - b.at)
        .map(({ id }) => id);
    const six = plugs.slice(0, 6);
    const best = answered({ ...base, plugs: six, hold: [] });
    expect(best.proven).toBe(true);
    for (let i = 0; i < 60; i++)
      expect(inOrder(shuffled(six.map(({ id }) => id)), six)).toBeGreaterThanOrEqual(best.finished - 1e-6);
    const twelve = answered({ ...base, plugs, hold: [] });
    expect(twelve.order).toHaveLength(12);
    for (let i = 0; i < 40; i++)
      expect(inOrder(shuffled(plugs.map(({ id }) => id)), plugs)).toBeGreaterThanOrEqual(twelve.finished - 1e-6);
  });

  it('honours what must be laid before what, and names a circle', () => {
    const document = read(seam);
    const [a, b, c] = document.plugs.map(({ id }) => id);
    const { order } = answered({
      ...document,
      hold: [
        [c!, a!],
        [b!, a!],
      ],
    });
    const at = (id: string) => order.findIndex((laid) => laid.id === id);
    expect(at(c!)).toBeLessThan(at(a!));
    expect(at(b!)).toBeLessThan(at(a!));
    const circle = computeWelding({
      ...document,
      hold: [
        [a!, b!],
        [b!, a!],
      ],
    });
    expect(circle.ok ? '' : circle.reason).toMatch(/wait for each other in a circle/);
    const itself = computeWelding({ ...document, hold: [[a!, a!]] });
    expect(itself.ok).toBe(false);
  });

  it('of nothing is finished at once, and faults are told by their places', () => {
    expect(answered(read({ ...seam, plugs: [], hold: [] }))).toMatchObject({ order: [], finished: 0 });
    const parsed = parseWeld({ ...seam, hold: [['nobody', 'nobody']], most: 0 });
    expect(parsed.ok ? [] : parsed.faults.map(({ path: at }) => at)).toEqual(['most', 'hold[0][0]', 'hold[0][1]']);
  });
});
