import { readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { seeded } from '@/core/maths/random/seeded';
import { computePulling, parsePull, type PullDocument } from './pulling';
import { computeYielding, parseYield } from './yielding';

const sample = (name: string): unknown => JSON.parse(readFileSync(path.join('tests/samples', name), 'utf8')) as unknown;

const read = (value: unknown): PullDocument => {
  const parsed = parsePull(value);
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.faults));
  return parsed.value;
};
const answered = (document: PullDocument) => {
  const answer = computePulling(document);
  if (!answer.ok) throw new Error(answer.reason);
  return answer.value;
};
const faults = (value: unknown) => {
  const parsed = parsePull(value);
  return parsed.ok ? [] : parsed.faults.map(({ path: at }) => at);
};

describe('pulls', () => {
  const document = sample('open-box.pull.json') as Record<string, unknown>;

  it('agree with the sample', () => {
    const { note: _, ...expected } = sample('open-box.pull.expected.json') as Record<string, unknown>;
    const round = (value: unknown): unknown =>
      JSON.parse(JSON.stringify(value), (_key, each) =>
        typeof each === 'number' ? Number(each.toPrecision(6)) : (each as unknown),
      );
    expect(round(answered(read(document)))).toEqual(round(expected));
  });

  it('are none where nothing is worth pulling', () => {
    const still = read({ ...document, wanted: [] });
    expect(answered(still)).toMatchObject({ pulls: [], error: 0, before: 0 });
  });

  it('of a great many are as good as of all sets', () => {
    const few = read(document);
    const random = seeded(3);
    const nodes = few.nodes.map(({ id }) => id);
    const many = Array.from({ length: 40 }, (_, i) => ({
      ...{ id: `p${i}`, node: nodes[Math.floor(random.next() * nodes.length)]!, most: 1500 },
      direction: [random.normal(), random.normal(), random.normal()] as [number, number, number],
    }));
    const three = answered({ ...few, pulls: many, together: 3 });
    const four = answered({ ...few, pulls: many, together: 4 });
    expect(four.error).toBeLessThanOrEqual(three.error + 1e-9);
    expect(four.pulls.length).toBeLessThanOrEqual(4);
    for (const { moved } of four.kept)
      for (const [i, value] of moved.entries())
        expect([i, Math.abs(value) <= few.keep[0]!.limit + 1e-9]).toEqual([i, true]);
  });

  it('are refused by their places', () => {
    const pulls = document.pulls as { node: string }[];
    expect(faults({ ...document, pulls: [{ ...pulls[0], direction: [0, 0, 0] }] })).toEqual(['pulls[0].direction']);
    expect(faults({ ...document, pulls: [{ ...pulls[0], against: pulls[0]!.node }] })).toEqual(['pulls[0].against']);
    expect(faults({ ...document, pulls: [pulls[0], pulls[0]] })).toEqual(['pulls[1].id']);
    expect(faults({ ...document, together: 2.5 })).toEqual(['together']);
    const wanted = document.wanted as object[];
    expect(faults({ ...document, wanted: [wanted[0], wanted[0]] })).toEqual(['wanted[1].node']);
  });
});

describe('yield', () => {
  const document = sample('hinged-leg.yield.json') as Record<string, unknown>;

  it('agrees with the sample', () => {
    const parsed = parseYield(document);
    if (!parsed.ok) throw new Error(JSON.stringify(parsed.faults));
    const answer = computeYielding(parsed.value);
    if (!answer.ok) throw new Error(answer.reason);
    const expected = sample('hinged-leg.yield.expected.json') as typeof answer.value;
    expect(answer.value.first).toBeCloseTo(expected.first!, 9);
    expect(answer.value.hinges[0]!.turned).toBeCloseTo(expected.hinges[0]!.turned, 12);
    expect(answer.value.hinges[0]!.moment).toBeCloseTo(expected.hinges[0]!.moment, 3);
    for (const key of ['loaded', 'released'] as const)
      answer.value[key].forEach(({ uz }, i) => expect(uz).toBeCloseTo(expected[key][i]!.uz, 9));
  });

  it('is refused where two hinges share a place, and where a member is not there', () => {
    const hinges = document.hinges as object[];
    const places = (value: unknown) => {
      const parsed = parseYield(value);
      return parsed.ok ? [] : parsed.faults.map(({ path: at }) => at);
    };
    expect(places({ ...document, hinges: [hinges[0], { ...hinges[0], id: 'again' }] })).toEqual(['hinges[1]']);
    expect(places({ ...document, hinges: [{ ...hinges[0], member: 'b9' }] })).toEqual(['hinges[0].member']);
  });

  it('that the hinges cannot carry says how far the load grew and names them', () => {
    const pulls = [{ node: 'middle', direction: [0, 0, -1], force: 40_000 }];
    const middle = { id: 'middle-bend', member: 'b1', end: 'to', about: 'y', moment: 750_000 };
    const parsed = parseYield({ ...document, hinges: [...(document.hinges as object[]), middle], pulls });
    if (!parsed.ok) throw new Error(JSON.stringify(parsed.faults));
    const answer = computeYielding(parsed.value);
    expect(answer.ok ? '' : answer.reason).toMatch(
      /the hinges "foot-bend", "middle-bend" let the load grow no further than 0\.1125/,
    );
  });
});
