import { describe, expect, it } from 'vitest';
import type { Vector } from '../../maths/geometry/vector';
import { chooseMounts, insideBy, leverageOf, orderOfOthers, setOf, type MountCandidate } from './choose-mounts';
import { loadsOn } from './loads';
import { estimateWeight } from './weight';

const candidate = (id: string, at: Vector, ...against: MountCandidate['against'][number][]): MountCandidate => ({
  id,
  at,
  against,
});
const extent = { from: [-600, -780, 150], to: [3300, 780, 1450] } as const;
const weight = { kilograms: 260, centre: [1250, 0, 600] as Vector };
const shell = { extent, weight };
const pairs = (code: string, x: number, y: number): MountCandidate[] => [
  candidate(`${code}L`, [x, -y, 200]),
  candidate(`${code}R`, [x, y, 200]),
];
const points = [...pairs('F', 100, 400), ...pairs('S', 900, 620), ...pairs('M', 1700, 620), ...pairs('R', 2500, 420)];

describe('which points to mount first', () => {
  it('are far apart in both directions, with the weight well inside', () => {
    const [best] = chooseMounts(points, shell, 4, 3);
    expect([...best!.what.ids].sort()).toEqual(['FL', 'FR', 'RL', 'RR']);
    expect(best!.what.inside).toBeGreaterThan(150);
    expect(best!.what.kilograms.reduce((sum, kg) => sum + kg, 0)).toBeCloseTo(260, 6);
    expect(best!.why[0]).toMatchObject({ kind: 'spread', length: 2400, width: 840 });
  });

  it('leave out what is rusty, moved or to be cut, and say what the best has before the next', () => {
    const rusty = points.map((each) => (each.id === 'RL' ? { ...each, against: ['toBeCut' as const] } : each));
    const [best, next] = chooseMounts(rusty, shell, 4, 2);
    expect(best!.what.ids).not.toContain('RL');
    expect(best!.what.leverage).toBeLessThanOrEqual(next!.what.leverage * 1.03);
    expect(best!.why.some(({ kind }) => kind === 'steadier' || kind === 'evener')).toBe(true);
  });

  it('can be three, two of them on one side of the weight and one on the other', () => {
    const [best] = chooseMounts(points, shell, 3, 1);
    const xs = best!.what.ids.map((id) => points.find((each) => each.id === id)!.at[0]);
    expect(Math.min(...xs)).toBeLessThan(1250);
    expect(Math.max(...xs)).toBeGreaterThan(1250);
  });

  it('are none where all stand on one line, or in front of the weight', () => {
    const line = [0, 1, 2, 3].map((i) => candidate(`P${i}`, [800 * i, 0, 200]));
    expect(chooseMounts(line, shell, 4, 3)).toEqual([]);
    expect(chooseMounts(points.slice(0, 4), shell, 4, 3)).toEqual([]);
  });

  it('carry what equal springs under a rigid shell would', () => {
    const set = setOf(points.slice(0, 2).concat(points.slice(6)), extent, weight)!;
    const seats = [...points.slice(0, 2), ...points.slice(6)].map(({ at: [x, y] }) => ({ x, y, height: 0 }));
    const { newtons } = loadsOn(seats, { kilograms: 260, x: 1250, y: 0 })!;
    set.kilograms.forEach((kg, i) => expect(kg).toBeCloseTo(newtons[i]! / 9.80665, 4));
  });

  it('hold the steadier the wider they stand: worked by hand for a square', () => {
    // Four mounts at the corners of the shell itself: a corner's height has variance 3/4, its place in plan 2/4 + 1/4.
    const corners = [-1, 1].flatMap((x) => [-1, 1].map((y) => ({ x, y })));
    expect(leverageOf(corners, { from: [-1, -1, 0], to: [1, 1, 0] })).toBeCloseTo(Math.sqrt(0.75 + 0.75), 12);
    expect(insideBy(corners, [0.5, 0, 0])).toBeCloseTo(0.5, 12);
    expect(insideBy(corners, [1.5, 0, 0])).toBeCloseTo(-0.5, 12);
  });

  it('are followed by those that steady the shell most', () => {
    const [a, b, c, d, ...rest] = [
      ...pairs('S', 900, 620),
      ...pairs('M', 1700, 620),
      ...pairs('F', 100, 400),
      ...pairs('R', 2500, 420),
    ];
    const order = orderOfOthers([a!, b!, c!, d!], rest, extent);
    // Ahead of the four the shell hangs over 1500 mm, behind them 1600: the rear first.
    expect(order.map(({ id }) => id[0])).toEqual(['R', 'F', 'R', 'F']);
  });

  it('chooses four of fifty', () => {
    const many = Array.from({ length: 25 }, (_, i) => pairs(`P${i}`, 130 * i, 400 + 17 * (i % 13))).flat();
    expect(chooseMounts(many, shell, 4, 5)).toHaveLength(5);
  });

  it('weigh a bare shell of four metres at a plausible mass, low and in the middle', () => {
    const { kilograms, centre } = estimateWeight(extent);
    expect(kilograms).toBeGreaterThan(120);
    expect(kilograms).toBeLessThan(350);
    expect(centre).toEqual([1350, 0, 670]);
  });
});

describe('mirrored sets', () => {
  it('are proposed once', () => {
    const at = (x: number, y: number): Vector => [x, y, 200];
    const points = [
      ['A', at(0, -400)],
      ['B', at(0, 400)],
      ['C', at(1200, -600)],
      ['D', at(1200, 600)],
      ['E', at(2600, -500)],
      ['F', at(2600, 500)],
    ].map(([id, place]) => ({ id: id as string, at: place as Vector, against: [] }));
    const shell = {
      extent: { from: [-300, -700, 0], to: [3000, 700, 1300] } as { from: Vector; to: Vector },
      weight: { kilograms: 200, centre: [1250, 0, 500] as Vector },
    };
    const three = chooseMounts(points, shell, 3, 4);
    const mirrored = { A: 'B', B: 'A', C: 'D', D: 'C', E: 'F', F: 'E' } as Record<string, string>;
    const named = three.map(({ what }) => [...what.ids].sort().join(''));
    for (const set of named)
      expect(named).not.toContain(
        [...set]
          .map((id) => mirrored[id])
          .sort()
          .join(''),
      );
    expect(named.length).toBeGreaterThan(0);
  });
});
