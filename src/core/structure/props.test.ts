import { describe, expect, it } from 'vitest';
import { seeded } from '../maths/random/seeded';
import { propped, tensions } from './props';
import { GRAVITY, STEEL, type Member, type ShellFrame, type Strut } from './shell-frame';
import { stageStiffness } from './slack';

/** A beam a metre long, held at its root, over a floor half a metre below; a prop between its tip and the floor. */
const TUBE = { A: 184, Iy: 16_345, Iz: 16_345, J: 24_334 };
const member = (id: string, from: number, to: number): Member => ({ ...STEEL, ...TUBE, id, from, to });
const beam: ShellFrame = {
  nodes: [
    { id: 'root', at: [0, 0, 500] },
    { id: 'tip', at: [1000, 0, 500] },
    { id: 'floor', at: [1000, 0, 0] },
    { id: 'anchor', at: [1300, 0, 0] },
  ],
  members: [member('beam', 0, 1), member('ground', 2, 3)],
  ...{ panels: [], struts: [] },
  supports: [
    { node: 0, fix: ['x', 'y', 'z', 'rx', 'ry', 'rz'] },
    { node: 2, fix: ['x', 'y', 'z', 'rx', 'ry', 'rz'] },
    { node: 3, fix: ['x', 'y', 'z', 'rx', 'ry', 'rz'] },
  ],
};
const prop: Strut = { id: 'prop', from: 2, to: 1, A: 100, E: 10_000, density: 0 };
const stage = stageStiffness(beam, []);
if (!stage.ok) throw new Error(stage.loose.join());
const length = { id: 'height', from: 2, to: 1, limit: 1 };
/** Of the beam's tip and of the prop, N/mm. */
const tip = (3 * STEEL.E * TUBE.Iy) / 1000 ** 3;
const wood = (100 * 10_000) / 500;
/** Half the beam's weight at its tip, N. */
const weight = (STEEL.density * 1e-9 * TUBE.A * 1000 * GRAVITY) / 2;
const with_ = (pressed: number, stood = 0, uncut = 0) =>
  propped(stage.value, [{ strut: prop, pressed, stood }], [length], 5, [uncut]);

describe('a prop', () => {
  it('bears the weight in the share of its stiffness, where it was there before the weight', () => {
    const { carries, gives } = with_(0);
    expect(carries[0]).toBeCloseTo((weight * wood) / (tip + wood), 6);
    expect(gives[0]!.sag).toBeCloseTo(-weight / (tip + wood), 8);
  });

  it('that was put in under the weight bears none of it, and lets go when the tip is lifted', () => {
    const stood = -weight / tip;
    const { carries, least, gives } = with_(0, stood);
    expect(carries[0]).toBeCloseTo(0, 8);
    expect(least[0]).toBeCloseTo(0, 8);
    // Lifted it is as if it were not there; pressed it holds.
    expect(gives[0]!.hand).toBeCloseTo(5 / tip, 6);
    expect(gives[0]!.sag).toBeCloseTo(stood, 8);
  });

  it('wedged in harder than the hand unloads it holds both ways, like a bar', () => {
    const { carries, least, gives } = with_(40, -weight / tip);
    // What wedges it lifts the tip, which gives beside it.
    const unloaded = (5 * wood) / (tip + wood);
    expect(carries[0]).toBeCloseTo(40, 6);
    expect(least[0]).toBeCloseTo(40 - unloaded, 6);
    expect(gives[0]!.hand).toBeCloseTo(5 / (tip + wood), 8);
  });

  it('gives more than a bar and less than nothing when the hand takes it off half way', () => {
    const { gives } = with_(2, -weight / tip);
    expect(gives[0]!.hand).toBeGreaterThan((5 / (tip + wood)) * 1.01);
    expect(gives[0]!.hand).toBeLessThan((5 / tip) * 0.99);
  });
});

describe('several props', () => {
  it('touch or stand off as trying every choice finds, whatever they stand on', () => {
    const random = seeded(23);
    for (let round = 0; round < 200; round++) {
      const n = 1 + Math.floor(4 * random.next());
      const root = Array.from({ length: n }, () => Array.from({ length: n }, () => random.normal()));
      const gives = root.map((row, i) =>
        root.map((other, j) => row.reduce((sum, each, k) => sum + each * other[k]!, 0) + (i === j ? 0.1 : 0)),
      );
      const apart = Array.from({ length: n }, () => random.normal());
      const found = tensions(gives, apart);
      const left = apart.map((each, i) => each - gives[i]!.reduce((sum, give, j) => sum + give * found[j]!, 0));
      // Pressing or not there, standing off or touching, and never both: of a positive definite matrix there is one such.
      for (let i = 0; i < n; i++) {
        expect(found[i]).toBeLessThanOrEqual(1e-9);
        expect(left[i]).toBeGreaterThanOrEqual(-1e-9);
        expect(Math.abs(found[i]! * left[i]!)).toBeLessThan(1e-9);
      }
    }
  });
});
