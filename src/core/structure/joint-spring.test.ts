import { describe, expect, it } from 'vitest';
import { boxSection } from './box-section';
import { JOINT_ROWS, memberThrough, sheetThrough, type JointHold } from './joint-spring';
import { STEEL } from './shell-frame';
import { JOINTS, RIBBED, type ShellModel } from './shell-model';

const SILL = { code: 'sill', name: 'sill', from: 0, to: 1, width: 90, height: 130, wall: 1.1, condition: 1 };
const FLOOR = { code: 'floor', name: 'floor', nodes: [0, 1, 2, 3] as const, thickness: 0.8, condition: 1 };
const model: ShellModel = {
  nodes: (
    [
      [0, 0, 0],
      [600, 0, 0],
      [600, 400, 0],
      [0, 400, 0],
    ] as const
  ).map((at, i) => ({ code: `N${i}`, name: '', at, pointId: null })),
  members: [SILL],
  sheets: [{ ...FLOOR, nodes: [0, 1, 2, 3] }],
};
const HOLDS = Object.keys(JOINT_ROWS) as JointHold[];

describe('a joint', () => {
  it('leaves of a tacked sill what springs one behind the other leave, by hand', () => {
    const own = (JOINTS * STEEL.E * boxSection(SILL).A) / 600;
    const end = ({ stiffness, pitch }: { stiffness: number; pitch: number }) => (440 / pitch) * stiffness;
    const inLine = (spring: number) => 1 / (1 / own + 2 / spring);
    const wanted = inLine(end({ stiffness: 10_000, pitch: 60 })) / inLine(end({ stiffness: 30_000, pitch: 40 }));
    expect(memberThrough(model, SILL, JOINT_ROWS.tacked)).toBeCloseTo(wanted, 10);
  });

  it('leaves of a tacked floor what the slip of its edges adds to its shear, by hand', () => {
    const turn = 1 / (JOINTS * RIBBED * STEEL.G * 0.8);
    const slip = (pitch: number, stiffness: number) => (2 * pitch) / stiffness / 400 + (2 * pitch) / stiffness / 600;
    expect(sheetThrough(model, model.sheets[0]!, JOINT_ROWS.tacked)).toBeCloseTo(
      (turn + slip(40, 30_000)) / (turn + slip(60, 10_000)),
      10,
    );
  });

  it('is as good as the factory’s where it is welded as the factory did, and never better', () => {
    expect(memberThrough(model, SILL, JOINT_ROWS.spots)).toBe(1);
    for (const hold of HOLDS) {
      const through = [
        memberThrough(model, SILL, JOINT_ROWS[hold]),
        sheetThrough(model, model.sheets[0]!, JOINT_ROWS[hold]),
      ];
      for (const each of through) {
        expect(each).toBeGreaterThan(0);
        expect(each).toBeLessThanOrEqual(1);
      }
    }
    expect(HOLDS.filter((hold) => memberThrough(model, SILL, JOINT_ROWS[hold]) < 0.6)).toEqual(['tacked', 'bolted']);
  });
});
