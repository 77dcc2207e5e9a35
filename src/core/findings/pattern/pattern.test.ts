import { describe, expect, it } from 'vitest';
import type { Vector } from '../../maths/geometry/vector';
import { seeded, type Noise, type Random } from '../../maths/random/seeded';
import { tried } from '../../../../tests/support/thorough';
import { shellPoints } from '../../practice/shell-net';
import { Symmetric } from '../../maths/linear/symmetric';
import { DamageSearch, type DamagePattern } from './pattern';
import type { DeviatedPoint, StoodStill } from './shown';

const drawnBy =
  ({ normal }: Random): Noise =>
  (count) =>
    Float64Array.from({ length: count }, normal);

const SD = 0.9;
const CONTROL = new Set(['P3L', 'P3R', 'P6L', 'P6R', 'P9R', 'P9L']);

function shell(random: Random, move: (at: Vector, side: string) => Vector, count = 40): DeviatedPoint[] {
  return [...shellPoints(count, random)].map(([id, at]): DeviatedPoint => {
    const side = id.endsWith('L') ? 'left' : 'right';
    const moved = move(at, side);
    const deviation = moved.map((value) => value + SD * random.normal()) as unknown as Vector;
    return { id, at, side, deviation, sd: SD };
  });
}

const searchIn = (points: readonly DeviatedPoint[], random: Random, held: ReadonlySet<string> = CONTROL) =>
  new DamageSearch(points, Symmetric.zeros(3 * points.length).addDiagonal(SD ** 2), held, drawnBy(random));

/** @param still points that stood still, and within what */
const resolve = (points: readonly DeviatedPoint[], random: Random, still: StoodStill = new Map()): DamagePattern =>
  searchIn(points, random).given(still);

/** The rear beyond a hinge, each side linearly to its own amounts at the floor's end. */
const rear =
  (hinge: number, end: number, left: Vector, right: Vector) =>
  ([x]: Vector, side: string): Vector => {
    const part = Math.max(0, (x - hinge) / (end - hinge));
    return (side === 'left' ? left : right).map((value) => part * value) as unknown as Vector;
  };

describe('the pattern of the damage', { timeout: 60_000 }, () => {
  /** At most five false ones of two hundred. */
  const shells = tried(20, 200);
  const most = Math.ceil(shells / 40);

  it('finds none in undamaged shells, but in one of forty', () => {
    const random = seeded(12);
    let wrong = 0;
    for (let seed = 1; seed <= shells; seed++) {
      const { sections, local } = resolve(
        shell(random, () => [0, 0, 0], 24),
        random,
      );
      if (sections.length + local.length > 0) wrong++;
    }
    expect(wrong).toBeLessThanOrEqual(most);
  });

  it.each([1, 2, 3])('names %i single points by themselves, but in one shell of forty', (count) => {
    const random = seeded(40 + count);
    let [sections, named] = [0, 0];
    for (let seed = 1; seed <= shells; seed++) {
      const points = shell(random, () => [0, 0, 0], 24);
      const moved = new Set(Array.from({ length: count }, () => Math.floor(random.next() * points.length)));
      const withSingles = points.map((point, i) => {
        const by = [random.normal(), random.normal(), random.normal()].map((value) => 9 * value);
        const deviation = point.deviation.map((value, k) =>
          moved.has(i) ? value + by[k]! : value,
        ) as unknown as Vector;
        return { ...point, deviation };
      });
      const still = withSingles.filter(({ deviation }) => Math.hypot(...deviation) <= 3.5 * SD);
      const pattern = resolve(withSingles, random, new Map(still.map(({ id }) => [id, 3.5 * SD])));
      if (pattern.sections.length > 0) sections++;
      named += pattern.local.filter(({ id }) => moved.has(points.findIndex((point) => point.id === id))).length;
    }
    expect(sections).toBeLessThanOrEqual(most);
    expect(named).toBeGreaterThan((shells / 2) * count);
  });

  it('carries along points near its hinge that are within what they may be off', () => {
    const random = seeded(77);
    let found = 0;
    for (let seed = 1; seed <= shells; seed++) {
      const undamaged = shell(random, () => [0, 0, 0], 30);
      const end = Math.max(...undamaged.filter(({ at }) => at[2] < 500).map(({ at }) => at[0]));
      const move = rear(2200, end, [-7, 5, 4], [-7, 5, 4]);
      const points = undamaged.map((point): DeviatedPoint => {
        const by = move(point.at, point.side);
        return { ...point, deviation: point.deviation.map((value, k) => value + by[k]!) as unknown as Vector };
      });
      // A search that had nothing but these points to go by took those that went little for undisturbed.
      const still = undamaged.filter(({ at, side }) => Math.hypot(...move(at, side)) <= 4.2);
      const { sections, local } = resolve(points, random, new Map(still.map(({ id }) => [id, 2])));
      if (sections.length === 1 && sections[0]!.section === 'rear' && local.length === 0) found++;
    }
    expect(found).toBeGreaterThanOrEqual(0.85 * shells);
  });

  it('does not carry a section along with one floor point that moved, while its neighbours stood still', () => {
    const random = seeded(91);
    const points = shell(random, () => [0, 0, 0]).map((point) =>
      point.id === 'P5L' ? { ...point, deviation: [-0.4, -8, -11] as Vector } : point,
    );
    const others = points.filter(({ id }) => id !== 'P5L');
    const { sections, local } = searchIn(points, random, new Set()).given(new Map(others.map(({ id }) => [id, 3.2])));
    expect(sections).toEqual([]);
    expect(local.map(({ id }) => id)).toEqual(['P5L']);
  });

  it('is the same when it is asked for again, whatever was searched meanwhile', () => {
    const moved = (seed: number) => {
      const random = seeded(seed);
      const undamaged = shell(random, () => [0, 0, 0]);
      const end = Math.max(...undamaged.filter(({ at }) => at[2] < 500).map(({ at }) => at[0]));
      const move = rear(2300, end, [-14, 6, 9], [-2, 5, 1]);
      const points = undamaged.map((point, i): DeviatedPoint => {
        const by = i === 4 ? ([0, 14, -9] as const) : move(point.at, point.side);
        return { ...point, deviation: point.deviation.map((value, k) => value + by[k]!) as unknown as Vector };
      });
      return searchIn(points, random);
    };
    const search = moved(5);
    const first = search.given(new Map());
    expect(first.sections.map(({ section }) => section)).toEqual(['rear']);
    expect(first.local).toHaveLength(1);
    moved(6).given(new Map());
    expect(search.given(new Map())).toEqual(first);
    // A rear whose points are taken to have stood still has not moved.
    const still = new Map(first.carried.map((id) => [id, 1]));
    expect(search.given(still).sections.map(({ section }) => section)).not.toContain('rear');
  });

  it('recovers amounts, hinge and side within their stated uncertainty', () => {
    const random = seeded(5);
    let [within, all, wrong] = [0, 0, 0];
    for (let seed = 1; seed <= 30; seed++) {
      const truth = { mash: -8, sway: 5.5, sag: 5, diamond: 12, spread: -1, twist: -8 };
      const undamaged = shell(random, () => [0, 0, 0]);
      const end = Math.max(...undamaged.filter(({ at }) => at[2] < 500).map(({ at }) => at[0]));
      const move = rear(2300, end, [-14, 6, 9], [-2, 5, 1]);
      const points = undamaged.map((point) => ({
        ...point,
        deviation: point.deviation.map((value, i) => value + move(point.at, point.side)[i]!) as unknown as Vector,
      }));
      const { sections, local } = resolve(points, random);
      expect(sections[0]?.section).toBe('rear');
      wrong += sections.length - 1 + local.length;
      const [{ hinge, hingeSd, components }] = sections as [DamagePattern['sections'][number]];
      expect(Math.abs(hinge.hinge - 2300)).toBeLessThan(4 * hingeSd);
      for (const { name, amount, sd } of components) {
        const scale = (hinge.end - 2300) / (end - 2300);
        expect(Math.abs(amount - truth[name] * scale)).toBeLessThan(5 * sd);
        all++;
        if (Math.abs(amount - truth[name] * scale) <= 2 * sd) within++;
      }
    }
    expect(within / all).toBeGreaterThan(0.88);
    expect(wrong).toBeLessThanOrEqual(2);
  });

  it('names a dent as local, not as a sway of the section', () => {
    const random = seeded(8);
    const points = shell(random, () => [0, 0, 0]).map((point) =>
      point.id === 'P10L' ? { ...point, deviation: [0.2, 9, 0.1] as Vector } : point,
    );
    const { sections, local } = resolve(points, random);
    expect(sections).toEqual([]);
    expect(local.map(({ id }) => id)).toEqual(['P10L']);
    expect(local[0]!.movement[1]).toBeCloseTo(9, 0);
  });

  it('finds front and rear together', () => {
    const random = seeded(21);
    const end = 3800;
    const points = shell(random, (at, side) => {
      const [x, y, z] = rear(2600, end, [0, 9, 0], [0, 9, 0])(at, side);
      return [x + (at[0] < 1000 ? 10 * ((1000 - at[0]) / 1000) : 0), y, z];
    });
    const { sections } = resolve(points, random);
    expect(sections.map(({ section }) => section).sort()).toEqual(['front', 'rear']);
    const named = sections.flatMap(({ section, components }) =>
      components.filter(({ significant }) => significant).map(({ name }) => `${section} ${name}`),
    );
    expect(named).toEqual(expect.arrayContaining(['front mash', 'rear sway']));
  });

  it('says that means and differences of the sides are one where only one side was measured', () => {
    const random = seeded(3);
    const points = shell(random, rear(2300, 3800, [-14, 6, 9], [-2, 5, 1])).filter(
      ({ at, side }) => side === 'left' || at[0] < 2300,
    );
    const [movement] = resolve(points, random).sections;
    expect(movement!.onlySide).toBe('left');
    expect(movement!.components.map(({ name }) => name)).toEqual(['mash', 'sway', 'sag']);
  });
});
