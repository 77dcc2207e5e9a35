import { describe, expect, it } from 'vitest';
import type { Stiffener } from '../shell/job/entities';
import { boxSection } from './box-section';
import { frameOf, type ShellModel } from './shell-model';
import { displaced, factorise } from './stiffness';
import { stiffened, stiffenedBy, stiffenerMass } from './stiffened';

const BOX = { width: 60, height: 80, wall: 1 };
const member = (code: string, from: number, to: number) => ({ code, name: code, from, to, ...BOX, condition: 1 });
const node = (code: string, x: number, y: number, z: number) => ({
  code,
  name: code,
  at: [x, y, z] as const,
  pointId: null,
});
/** A post on a sill, at right angles. */
const MODEL: ShellModel = {
  nodes: [node('A', 0, 0, 0), node('B', 1000, 0, 0), node('C', 1000, 0, 600)],
  members: [member('A-B', 0, 1), member('B-C', 1, 2)],
  sheets: [],
};
const on = (more: Partial<Stiffener>): Stiffener => ({
  ...{ id: 'd', jobId: 'j', kind: 'doubler', part: 'A-B', otherPart: '', long: 1000 },
  ...{ width: 50, height: null, thickness: 1.5, version: 1 },
  ...more,
});
const built = (stiffener: Stiffener) => {
  const result = stiffened(MODEL, stiffener);
  if (!result.ok) throw new Error(result.fault.kind);
  return result.model;
};
/** How far C goes along X for 100 N, A clamped. */
function sways(model: ShellModel): number {
  const supports = [{ node: 0, fix: ['x', 'y', 'z', 'rx', 'ry', 'rz'] as const }];
  const result = factorise(frameOf(model, supports));
  if (!result.ok) throw new Error();
  const load = new Float64Array(18);
  load[12] = 100;
  return displaced(result.stiffness, load)[12]!;
}

describe('metal put on to stiffen', () => {
  it('adds to a section what Steiner says, all along or by its share of the length', () => {
    const { A, Iy, Iz } = boxSection(BOX);
    const [{ gain }] = built(on({})).members as [ShellModel['members'][number]];
    const plate = 50 * 1.5;
    expect(gain!.A).toBeCloseTo((A + plate) / A, 9);
    expect(gain!.Iy).toBeCloseTo((Iy + ((A * plate) / (A + plate)) * 40.75 ** 2) / Iy, 9);
    expect(gain!.Iz).toBeCloseTo((Iz + (1.5 * 50 ** 3) / 12) / Iz, 9);
    const [{ gain: half }] = built(on({ long: 500 })).members as [ShellModel['members'][number]];
    expect(1 / half!.A).toBeCloseTo(0.5 / gain!.A + 0.5, 9);
    expect(built(on({ long: 4000 })).members[0]!.gain).toEqual(gain);
  });

  it('weighs what it weighs', () => {
    expect(stiffenerMass(on({}))).toBeCloseTo(0.05 * 1 * 0.0015 * 7850, 9);
    expect(stiffenerMass(on({ kind: 'rib', height: 20 }))).toBeCloseTo(0.09 * 0.0015 * 7850, 9);
    expect(stiffenerMass(on({ kind: 'gusset', otherPart: 'B-C', width: null, long: 120 }))).toBeCloseTo(
      (0.12 ** 2 / 2) * 0.0015 * 7850,
      9,
    );
  });

  it('makes a frame sway less: a rib more than a doubler of as much metal, a gusset at both members that it ties', () => {
    const bare = sways(MODEL);
    const doubler = sways(built(on({ width: 90 })));
    const rib = sways(built(on({ kind: 'rib', width: 50, height: 20 })));
    const gusset = sways(built(on({ kind: 'gusset', otherPart: 'B-C', width: null, long: 120 })));
    expect(doubler).toBeLessThan(bare);
    expect(rib).toBeLessThan(doubler);
    expect(gusset).toBeLessThan(bare);
    const both = stiffenedBy(MODEL, [on({}), on({ part: 'B-C' }), on({ part: 'nowhere' })]);
    expect(sways(both)).toBeLessThan(sways(built(on({}))));
    expect(
      built(on({ kind: 'gusset', otherPart: 'B-C', width: null, long: 120 })).members.every(({ gain }) => gain),
    ).toBe(true);
  });

  it('is refused where there is no such member, and a gusset where two do not meet', () => {
    const fault = (more: Partial<Stiffener>) => {
      const result = stiffened(MODEL, on(more));
      return result.ok ? undefined : result.fault;
    };
    expect(fault({ part: 'A-Z' })).toEqual({ kind: 'noMember', code: 'A-Z' });
    expect(fault({ kind: 'gusset', width: null, otherPart: 'B-D' })).toEqual({ kind: 'noMember', code: 'B-D' });
    expect(fault({ kind: 'gusset', width: null, otherPart: 'A-B' })?.kind).toBe('apart');
  });
});
