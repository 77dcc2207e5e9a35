import { describe, expect, it } from 'vitest';
import { seeded } from '../../maths/random/seeded';
import { holeAt, lastHole, layBeams, type Bench, type BenchPlace } from './bench';

const bench: Bench = {
  rails: 4200,
  pitch: 100,
  firstHole: 50,
  span: 1500,
  beamWidth: 80,
  beamTop: 120,
  beams: 6,
  reach: 60,
  footprint: 90,
};
const at = (id: string, x: number, y: number, z = 400): BenchPlace => ({ id, x, y, z });
const kinds = (places: readonly BenchPlace[], changed: Partial<Bench> = {}) =>
  layBeams({ ...bench, ...changed }, places).faults.map(({ kind }) => kind);

describe('beams under the mounts', () => {
  it('stand at the nearest holes, left and right on one', () => {
    const { mounts, faults } = layBeams(bench, [at('FL', 462, -400), at('FR', 455, 400), at('RL', 2871, -420)]);
    expect(faults).toEqual([]);
    expect(mounts).toEqual([
      { id: 'FL', hole: 4, offset: 12, side: -400, height: 280 },
      { id: 'FR', hole: 4, offset: 5, side: 400, height: 280 },
      { id: 'RL', hole: 28, offset: 21, side: -420, height: 280 },
    ]);
  });

  it('are as few as can be, and every mount within reach of its own', () => {
    const random = seeded(5);
    for (let i = 0; i < 100; i++) {
      const places = Array.from({ length: 6 }, (_, k) => at(`P${k}`, 200 + random.next() * 900, -600 + 240 * k));
      const { mounts } = layBeams({ ...bench, beams: 99 }, places);
      for (const mount of mounts) expect(Math.abs(mount.offset)).toBeLessThanOrEqual(bench.reach + 1e-9);
      expect(new Set(mounts.map(({ hole }) => hole)).size).toBe(fewest(places));
    }
  });

  /** Fewest holes that serve all, by trying. */
  function fewest(places: readonly BenchPlace[]): number {
    const serves = (hole: number, { x }: BenchPlace) => Math.abs(x - holeAt(bench, hole)) <= bench.reach;
    const holes = Array.from({ length: lastHole(bench) + 1 }, (_, hole) => hole).filter((hole) =>
      places.some((place) => serves(hole, place)),
    );
    for (let count = 1; ; count++) {
      const choose = (from: number, chosen: readonly number[]): boolean =>
        chosen.length === count
          ? places.every((place) => chosen.some((hole) => serves(hole, place)))
          : holes.some((hole, k) => k >= from && choose(k + 1, [...chosen, hole]));
      if (choose(0, [])) return count;
    }
  }

  it('say what is beyond the rails, beyond the beam, or under it, and by how much', () => {
    const { faults } = layBeams(bench, [at('A', -200, 0), at('B', 500, 740), at('C', 900, 0, 100)]);
    expect(faults).toEqual(
      expect.arrayContaining([
        { kind: 'beyondRails', id: 'A', by: -190 },
        { kind: 'beyondBeam', id: 'B', by: 35 },
        { kind: 'underBeam', id: 'C', by: 20 },
      ]),
    );
  });

  it('see towers in each other’s way on one beam, beams too near each other, and too few of them', () => {
    expect(kinds([at('A', 450, 0), at('B', 455, 60)])).toEqual(['collide']);
    expect(kinds([at('A', 450, -300), at('B', 560, 300)], { beamWidth: 150, reach: 10 })).toEqual(['beamsTooNear']);
    expect(kinds([at('A', 450, 0), at('B', 850, 0), at('C', 1250, 0)], { beams: 2 })).toEqual(['beamsShort']);
  });

  it('stay where a hand has put them', () => {
    const { mounts } = layBeams(bench, [at('FL', 462, -400), at('FR', 455, 400)], new Map([['FL', 5]]));
    expect(mounts[0]).toMatchObject({ hole: 5, offset: -88 });
  });
});
