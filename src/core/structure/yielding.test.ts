import { describe, expect, it } from 'vitest';
import type { Vector } from '../maths/geometry/vector';
import { STEEL, type FrameSupport, type ShellFrame } from './shell-frame';
import { yieldUnder, type Hinge, type YieldResult } from './yielding';

const SECTION = { ...STEEL, A: 350, Iy: 400_000, Iz: 400_000, J: 400_000 };
const ALL = ['x', 'y', 'z', 'rx', 'ry', 'rz'] as const;
const M = 750_000;

/** A chain or net of members in the plane of x and z, which bend about y. */
function frame(
  at: readonly Vector[],
  joins: readonly (readonly [number, number])[],
  supports: readonly FrameSupport[],
): ShellFrame {
  return {
    nodes: at.map((place, i) => ({ id: `n${i}`, at: place })),
    members: joins.map(([from, to], i) => ({ id: `m${i}`, from, to, ...SECTION })),
    panels: [],
    struts: [],
    supports,
  };
}

const load = (of: ShellFrame, node: number, axis: 0 | 1 | 2, force: number) => {
  const all = new Float64Array(6 * of.nodes.length);
  all[6 * node + axis] = force;
  return all;
};
const hinge = (member: number, end: 'from' | 'to', moment = M): Hinge => ({
  id: `${member} ${end}`,
  member,
  end,
  about: 'y',
  moment,
});
const valueOf = (result: YieldResult) => {
  if (!result.ok) throw new Error(result.why);
  return result.value;
};
const stuck = (result: YieldResult) => {
  if (result.ok || result.why !== 'mechanism') throw new Error('it carries');
  return result;
};

const L = 1000;
const cantilever = frame(
  [
    [0, 0, 0],
    [L, 0, 0],
  ],
  [[0, 1]],
  [{ node: 0, fix: ALL }],
);
const propped = frame(
  [
    [0, 0, 0],
    [L / 2, 0, 0],
    [L, 0, 0],
  ],
  [
    [0, 1],
    [1, 2],
  ],
  [
    { node: 0, fix: ALL },
    { node: 2, fix: ['y', 'z', 'rx'] },
  ],
);
const h = 800;
const portal = frame(
  [
    [0, 0, 0],
    [0, 0, h],
    [1200, 0, h],
    [1200, 0, 0],
  ],
  [
    [0, 1],
    [1, 2],
    [2, 3],
  ],
  [
    { node: 0, fix: ALL },
    { node: 3, fix: ALL },
  ],
);

describe('a cantilever', () => {
  it('springs all the way back below the moment of its foot, and carries no more above it', () => {
    const P = M / L;
    const { first, loaded, released, hinges } = valueOf(
      yieldUnder(cantilever, [hinge(0, 'from')], load(cantilever, 1, 2, -0.9 * P)),
    );
    expect(first).toBeNull();
    expect(loaded[8]).toBeCloseTo((-0.9 * P * L ** 3) / (3 * STEEL.E * SECTION.Iy), 9);
    expect(released[8]).toBeCloseTo(0, 12);
    expect(hinges[0]).toMatchObject({ turned: 0 });
    const { share, hinges: named } = stuck(
      yieldUnder(cantilever, [hinge(0, 'from')], load(cantilever, 1, 2, -1.25 * P)),
    );
    expect(share).toBeCloseTo(0.8, 9);
    expect(named).toEqual(['0 from']);
  });
});

describe('a propped cantilever with its load in the middle', () => {
  const both = [hinge(0, 'from'), hinge(0, 'to')];
  // Massonnet and Save: the foot yields at 16·M/(3·L), the whole at 6·M/L.
  const [begins, collapses] = [(16 * M) / (3 * L), (6 * M) / L];

  it('begins to turn at its foot, by the elastic moment 3·P·L/16', () => {
    const P = 0.98 * collapses;
    const { first, hinges } = valueOf(yieldUnder(propped, both, load(propped, 1, 2, -P)));
    expect(first).toBeCloseTo(begins / P, 9);
    expect(hinges[0]!.turned).not.toBe(0);
    expect(hinges[1]!.turned).toBe(0);
  });

  it('collapses at six moments a length, both hinges named', () => {
    const P = 1.05 * collapses;
    const { share, hinges } = stuck(yieldUnder(propped, both, load(propped, 1, 2, -P)));
    expect(share * P).toBeCloseTo(collapses, 6);
    expect([...hinges].sort()).toEqual(['0 from', '0 to']);
  });

  it('keeps after release what it moved less what an elastic one would come home', () => {
    const P = 0.95 * collapses;
    const { loaded, released } = valueOf(yieldUnder(propped, both, load(propped, 1, 2, -P)));
    const elastic = valueOf(yieldUnder(propped, [], load(propped, 1, 2, -P))).loaded;
    for (const i of [8, 10, 16]) expect(released[i]).toBeCloseTo(loaded[i]! - elastic[i]!, 9);
    expect(released[8]).toBeLessThan(-0.01);
  });

  it('is left with a moment at its foot, and the hinge turned against the moment it had', () => {
    const P = 1.1 * begins;
    const { hinges } = valueOf(yieldUnder(propped, both, load(propped, 1, 2, -P)));
    // The foot loses the elastic moment 3·P·L/16 on release.
    expect(Math.abs(hinges[0]!.moment)).toBeCloseTo((3 * P * L) / 16 - M, 3);
    expect(hinges[0]!.turned * -hinges[0]!.moment).toBeLessThan(0);
  });
});

describe('a portal with fixed feet, pushed sideways at its head', () => {
  const four = [hinge(0, 'from'), hinge(0, 'to'), hinge(2, 'from'), hinge(2, 'to')];

  it('collapses at four moments a height', () => {
    const H = (4.4 * M) / h;
    const { share, hinges } = stuck(yieldUnder(portal, four, load(portal, 1, 0, H)));
    expect((share * H * h) / M).toBeCloseTo(4, 6);
    expect(hinges.length).toBe(4);
  });

  it('collapses at the same load turned a quarter about the upright, where its columns bend about their other axis', () => {
    const nodes = portal.nodes.map(({ id, at: [x, y, z] }) => ({ id, at: [-y, x, z] as Vector }));
    const turned = { ...portal, nodes };
    const about = four.map((each) => ({ ...each, about: 'z' as const }));
    const H = (4.4 * M) / h;
    const { share } = stuck(yieldUnder(turned, about, load(turned, 1, 1, H)));
    expect((share * H * h) / M).toBeCloseTo(4, 6);
  });

  it('is told what nothing holds', () => {
    const result = yieldUnder({ ...portal, supports: [] }, four, load(portal, 1, 0, 1));
    expect(result).toMatchObject({ ok: false, why: 'loose' });
  });
});
