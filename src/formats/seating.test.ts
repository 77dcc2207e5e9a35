import { readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { seeded } from '@/core/maths/random/seeded';
import { computeSeating, parseSeat, type SeatDocument } from './seating';

const sample = (name: string) =>
  JSON.parse(readFileSync(path.join('tests/samples', name), 'utf8')) as Record<string, never>;
const read = (value: unknown): SeatDocument => {
  const parsed = parseSeat(value);
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.faults));
  return parsed.value;
};
const answered = (document: SeatDocument) => {
  const answer = computeSeating(document);
  if (!answer.ok) throw new Error(answer.reason);
  return answer.value;
};
const round = (value: unknown): unknown =>
  JSON.parse(JSON.stringify(value), (_key, each) =>
    typeof each === 'number' ? Number(each.toFixed(6)) + 0 : (each as unknown),
  );

describe('where a hung panel sits best', () => {
  const door = sample('door.seat.json');

  it('agrees with the sample', () => {
    const { note: _, ...expected } = sample('door.seat.expected.json');
    expect(round(answered(read(door)))).toEqual(round(expected));
  });

  it('is the best of all steps, one after the other tried, on doors of all sorts', () => {
    const base = read(door);
    const random = seeded(11);
    for (let trial = 0; trial < 12; trial++) {
      const stations = base.stations.map((station) => ({ ...station, gap: station.gap + random.normal() }));
      const settings = base.settings.map((setting) => ({ ...setting, from: -1, to: 1, step: 0.5 }));
      const document = { ...base, stations, settings };
      const { cost, proven } = answered(document);
      expect(proven).toBe(true);
      // Each setting held at one value: the cost is what the answer says it is there.
      let least = Infinity;
      const steps = [-1, -0.5, 0, 0.5, 1];
      const all = (k: number, held: SeatDocument['settings']): void => {
        if (k === settings.length) least = Math.min(least, answered({ ...document, settings: held }).cost);
        else
          for (const value of steps)
            all(k + 1, [...held, { ...settings[k]!, from: value, to: value, step: undefined }]);
      };
      if (settings.length <= 3) all(0, []);
      else
        for (let i = 0; i < 200; i++)
          least = Math.min(
            least,
            answered({
              ...document,
              settings: settings.map((setting) => {
                const value = steps[Math.floor(random.next() * 5)]!;
                return { ...setting, from: value, to: value, step: undefined };
              }),
            }).cost,
          );
      expect(cost).toBeLessThanOrEqual(least + 1e-9);
    }
  });

  it('is refused by its place, and told what would say where the panel is', () => {
    const places = (value: unknown) => {
      const parsed = parseSeat(value);
      return parsed.ok ? [] : parsed.faults.map(({ path: at }) => at);
    };
    const [first] = door.settings as unknown as { at: unknown; along: unknown }[];
    expect(places({ ...door, settings: [{ ...first, effects: [] }] })).toEqual(['settings[0]']);
    expect(places({ ...door, settings: [{ ...first, from: 2, to: 1 }] })).toEqual(['settings[0].to']);
    expect(places({ ...door, holds: [{ at: [0, 0, 0], along: [0, 0, 0] }] })).toEqual(['holds[0].along']);
    const answer = computeSeating({ ...read(door), holds: [] });
    expect(answer.ok ? '' : answer.reason).toMatch(/conditions, and six say where it is: add a hold/);
  });
});
