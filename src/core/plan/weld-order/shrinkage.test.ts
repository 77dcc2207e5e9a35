import { describe, expect, it } from 'vitest';
import { seeded } from '../../maths/random/seeded';
import { NEW_WELD_SEAM, type WeldMark, type WeldSeam } from '../../shell/job/entities';
import { layOut } from './layout';
import { ENOUGH_JOINTS, loggedAcross, seamShrinkage, shrinkFactor, type LoggedJoint } from './shrinkage';

const SEAM: WeldSeam = {
  ...NEW_WELD_SEAM,
  ...{ id: 's', jobId: 'j', kind: 'butt', process: 'mig', long: 600 },
};
const JOINT = { thicknessA: 1, thicknessB: 1, factorySpots: null };
const of = (more: Partial<WeldSeam> = {}) => {
  const seam = { ...SEAM, ...more };
  return seamShrinkage(seam, JOINT, layOut(seam, JOINT, []));
};
const logged = (count: number, ratio: (i: number) => number): LoggedJoint[] =>
  Array.from({ length: count }, (_, i) => ({ seamId: `s${i}`, shrank: 0.45 * ratio(i), sd: 0.02, modelled: 0.45 }));
const width = ({ low, high }: { readonly low: number; readonly high: number }) => high / low;

describe('what a seam shrinks', () => {
  it('hangs on the heat for each millimetre, not on how it is divided', () => {
    const whole = of()!;
    // 1100 W at 6 mm/s.
    expect(whole.across).toBeCloseTo((0.8 * 3.11972e-3 * 1100) / 6, 3);
    expect(of({ pitch: 20 })!.across).toBeCloseTo(whole.across, 9);
    expect(of({ long: 1200 })).toMatchObject({ tendon: expect.closeTo(whole.tendon, 6), free: 2 * whole.free });
  });

  it('is less in plugs, more with gas, and nothing where nothing is melted', () => {
    const across = (more: Partial<WeldSeam>) => of(more)!.across;
    expect(across({ kind: 'plug' })).toBeLessThan(0.2 * across({}));
    expect(across({ process: 'gas' })).toBeGreaterThan(across({ process: 'tig' }));
    expect(of({ kind: 'bond', process: null })).toBeUndefined();
  });

  it('is corrected by what the shop’s joints did, and no better known than before until there are five', () => {
    const before = shrinkFactor([]);
    expect(before).toMatchObject({ usual: 1, joints: 0, low: expect.closeTo(1 / 3, 9), high: expect.closeTo(3, 9) });
    for (let n = 1; n < ENOUGH_JOINTS; n++) {
      const factor = shrinkFactor(logged(n, () => 1.6));
      expect(factor.joints).toBe(n);
      expect(factor.usual).toBeGreaterThan(1.2);
      expect(width(factor)).toBeGreaterThanOrEqual(width(before) - 1e-9);
    }
    const five = shrinkFactor(logged(ENOUGH_JOINTS, () => 1.6));
    expect(width(five)).toBeLessThan(0.5 * width(before));
    expect(five.usual).toBeGreaterThan(1.5);
    // Joints that scatter are worth less than joints that agree.
    expect(width(shrinkFactor(logged(6, (i) => [0.5, 1.6, 4][i % 3]!)))).toBeGreaterThan(width(five));
  });

  it('takes many marks on one joint for that one joint', () => {
    const one = Array.from({ length: 12 }, () => ({ seamId: 's', shrank: 0.9, sd: 0.05, modelled: 0.45 }));
    expect(shrinkFactor(one).joints).toBe(1);
    expect(width(shrinkFactor(one))).toBeCloseTo(9, 6);
  });

  it('takes a joint that did not shrink for one that shrank no more than can be read', () => {
    const mark: WeldMark = {
      ...{
        id: 'm',
        seamId: 's',
        runs: 'across',
        before: 100,
        cold: 100.1,
        sd: 0.1,
        at: '',
        author: 'N',
        personId: null,
      },
    };
    const [log] = loggedAcross([mark, { ...mark, runs: 'along' }], of());
    expect(log).toMatchObject({ shrank: expect.closeTo(-0.1, 9) });
    const { usual } = shrinkFactor([log!]);
    expect(usual).toBeLessThan(1);
    expect(usual).toBeGreaterThan(0.5);
  });

  it('covers the next joint about as often as it says, over shops that shrink more or less than the model', () => {
    const { normal } = seeded(20261128);
    let [inside, all] = [0, 0];
    for (let shop = 0; shop < 400; shop++) {
      const own = Math.exp(0.4 * normal());
      const joint = () => own * Math.exp(0.2 * normal());
      const factor = shrinkFactor(logged(8, joint));
      const next = joint();
      all++;
      if (next >= factor.low && next <= factor.high) inside++;
    }
    expect(inside / all).toBeGreaterThan(0.93);
  });
});
