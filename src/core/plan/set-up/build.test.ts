import { describe, expect, it } from 'vitest';
import type { Vector } from '../../maths/geometry/vector';
import type { BenchVersion, ShelfItem } from '../../shell/job/entities';
import { placementOf } from '../../shell/set-up';
import { buildSetUp, type PlannedMount } from './build';

const version: BenchVersion = {
  ...{ id: 'v', benchId: 'b', number: 1, rails: 4200, pitch: 100, firstHole: 50, span: 1500, beamWidth: 80 },
  ...{ beamTop: 120, beams: 6, reach: 60, footprint: 90, note: '', validFrom: '2026-01-05T08:00:00.000Z' },
};
const item = (
  code: string,
  kind: ShelfItem['kind'],
  height: number,
  count: number,
  more: Partial<ShelfItem> = {},
): ShelfItem => ({
  ...{ id: code, benchVersionId: 'v', kind, code, height, count, travel: 0, threadPitch: null },
  ...{ fitsLeast: null, fitsMost: null, clearance: 0, rating: null },
  ...more,
});
const items = [
  item('T200', 'piece', 200, 4),
  item('T40', 'piece', 40, 4),
  item('cone', 'head', 55, 4, { travel: 24, fitsLeast: 9, fitsMost: 24, rating: 80 }),
];
const mount = (id: string, at: Vector, holeDiameter: number | null = 16): PlannedMount => ({
  id,
  at,
  holeDiameter,
  hole: null,
});
const corners = [
  mount('FL', [0, -400, 150]),
  mount('FR', [0, 400, 150]),
  mount('RL', [2400, -400, 150]),
  mount('RR', [2400, 400, 150]),
];
const weight = { kilograms: 240, centre: [1200, 0, 500] as Vector };
const at = (x: number, y: number, z: number) => placementOf({ x, y, z, turnX: 0, turnY: 0, turnZ: 0 });
const on = { version, items, placement: at(800, 0, 250) };
const kinds = (mounts: readonly PlannedMount[], bench = on) =>
  buildSetUp(bench, mounts, weight).faults.map(({ kind }) => kind);

describe('a set-up', () => {
  it('says beam, hole, stack, height and load of every mount', () => {
    const { mounts, faults, beams, proven } = buildSetUp({ ...on, placement: at(800, 0, 245) }, corners, weight);
    expect([faults, proven, mounts.length]).toEqual([[], true, 4]);
    expect(beams).toEqual([8, 32]);
    // 245 + 150 − 120 = 275 from the beam: T200 and the cone leave 20 for its screw. Five higher nothing reaches.
    expect(kinds(corners)).toEqual(['notBuilt', 'notBuilt', 'notBuilt', 'notBuilt']);
    const [first] = mounts;
    expect(first).toMatchObject({ hole: 8, offset: -50, height: 275, pieceIds: ['T200'], headId: 'cone', lift: 20 });
    expect(first!.kilograms).toBeCloseTo(60, 6);
  });

  it('names the fewest pieces to make where the shelf falls short', () => {
    const short = {
      ...on,
      items: items.map((each) => (each.id === 'T200' ? { ...each, count: 3 } : each)),
      placement: at(800, 0, 245),
    };
    const { faults, lacking } = buildSetUp(short, corners, weight);
    expect(faults.map(({ kind }) => kind)).toEqual(['notBuilt']);
    expect(lacking).toMatchObject([{ kind: 'piece', count: 1 }]);
  });

  it('leaves what stands as it stands, and takes its pieces off the shelf', () => {
    const bench = { ...on, placement: at(800, 0, 245) };
    // 275 from the beam: 55 of the cone and five of forty leave 20 for its screw, as a tower of 200 does.
    const standing = { headId: 'cone', pieceIds: ['T40', 'T40', 'T40', 'T40', 'T40'] };
    const withShort = items.map((each) => (each.id === 'T40' ? { ...each, count: 5 } : each));
    const stood = corners.map((each) => (each.id === 'RR' ? { ...each, standing } : each));
    const { mounts, faults } = buildSetUp({ ...bench, items: withShort }, stood, weight);
    expect(faults).toEqual([]);
    expect(mounts.map(({ pieceIds }) => pieceIds!.length)).toEqual([1, 1, 1, 5]);
    expect(mounts[3]).toMatchObject({ ...standing, lift: 20 });
    // All four heads are in use: a fifth mount has none, though the shelf is written down with four.
    const fifth = [...stood.map((each) => ({ ...each, standing })), mount('M', [1200, 0, 150])];
    expect(buildSetUp(bench, fifth, weight).faults.map(({ kind }) => kind)).toEqual(['notBuilt']);
  });

  it('says of what stands that it is too tall or too short for a plan that has changed since', () => {
    const standing = { headId: 'cone', pieceIds: ['T200'] };
    const stood = corners.map((each) => ({ ...each, standing }));
    const offAt = (z: number) =>
      buildSetUp({ ...on, placement: at(800, 0, z) }, stood, weight).faults.flatMap((fault) =>
        fault.kind === 'builtOff' ? [fault.by] : [],
      );
    // The screw has 24: at 245 it is out by 20, four higher by all it has.
    expect([offAt(245), offAt(249)]).toEqual([[], []]);
    expect(offAt(252)).toEqual([-3, -3, -3, -3]);
    expect(offAt(223)).toEqual([2, 2, 2, 2]);
    // On a bench that knows nothing of these pieces it is planned anew.
    const other = items.map((each) => ({ ...each, id: `other ${each.id}` }));
    const [first] = buildSetUp({ ...on, items: other, placement: at(800, 0, 245) }, stood, weight).mounts;
    expect(first).toMatchObject({ headId: 'other cone', pieceIds: ['other T200'] });
  });

  it('says a hole that no head fits, a load beyond its rating, a shelf of nothing', () => {
    expect(kinds(corners.map((each) => (each.id === 'FL' ? { ...each, holeDiameter: 60 } : each)))).toContain('noHead');
    const heavy = buildSetUp({ ...on, placement: at(800, 0, 245) }, corners, { ...weight, kilograms: 400 });
    expect(heavy.faults.filter(({ kind }) => kind === 'overloaded')).toHaveLength(4);
    expect(kinds(corners, { ...on, items: [] })).toEqual(['emptyShelf']);
  });

  it('sees a shell that would tip, mounts on one line, a bench that is too short', () => {
    expect(kinds(corners.map((each) => ({ ...each, at: [each.at[0] / 4, each.at[1], each.at[2]] })))).toContain('tips');
    expect(kinds(corners.map((each, i) => ({ ...each, at: [600 * i, 0, 150] })))).toContain('onLine');
    expect(kinds(corners, { ...on, version: { ...version, rails: 2000 } })).toContain('beyondRails');
  });

  it('on a floor needs no beams: heights are from the floor', () => {
    const floor = { ...version, rails: 0, beams: 0, beamTop: 0 };
    const stand = item('stand', 'stand', 290, 4, { travel: 130 });
    const { mounts, beams, faults } = buildSetUp(
      { version: floor, items: [stand], placement: at(0, 0, 250) },
      corners,
      weight,
    );
    expect([beams, faults]).toEqual([[], []]);
    expect(mounts[0]).toMatchObject({ height: 400, pieceIds: [], headId: 'stand', lift: 110 });
    expect(mounts[0]!.hole).toBeUndefined();
    // Where the floor stands 12 mm high the stand is 12 mm lower.
    const uneven = corners.map((each, i) => (i === 0 ? { ...each, floor: 12 } : each));
    const [high] = buildSetUp({ version: floor, items: [stand], placement: at(0, 0, 250) }, uneven, weight).mounts;
    expect(high).toMatchObject({ height: 388, lift: 98 });
  });
});
