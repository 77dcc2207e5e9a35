import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../../tests/support/demo-rows';
import type { WeldSeam } from '../../shell/job/entities';
import { Job } from '../../shell/job/job';
import { cutModel } from '../cut/cut-model';
import { layOut } from './layout';
import { seamEffects, type Effect } from './shrink-effect';
import { seamShrinkage, shrinkFactor } from './shrinkage';

const rows = demoRows('solbris');
const job = Job.of(rows);
const cut = cutModel(job)!;
const joint = rows.joints.find(({ beside }) => beside === 'floor flange')!;
const idOf = (code: string) => rows.points.find((each) => each.code === code)!.id;
const seam = (first: string, last: string, more: Partial<WeldSeam> = {}): WeldSeam => ({
  ...rows.weldSeams.find(({ id }) => id === joint.id)!,
  ...{ long: 600, firstPointId: idOf(first), lastPointId: idOf(last) },
  ...more,
});
function effects(of: WeldSeam, { share = 1, factor = shrinkFactor([]) } = {}) {
  const shrinkage = seamShrinkage(of, joint, layOut(of, joint, []))!;
  return seamEffects(job, cut, { seam: of, panelId: joint.panelId }, { shrinkage, factor, share });
}
const effect = (list: readonly Effect[], code: string) => list.find((each) => each.code === code);

describe('what a seam’s shrinkage does to the shell', () => {
  it('draws its two ends together, by less than the seam would shrink by itself', () => {
    const of = seam('S1L', 'S2L');
    const { along, effects: moved } = effects(of)!;
    const { free } = seamShrinkage(of, joint, layOut(of, joint, []))!;
    expect(along).toBeGreaterThan(0.02);
    expect(along).toBeLessThan(free);
    // The sill it lies on gets shorter.
    expect(effect(moved, 'CL1')!.usual).toBeLessThan(0);
  });

  it('tells a range that holds what is usual, and no line that does not notice it', () => {
    for (const { low, usual, high } of effects(seam('S1L', 'S3L'))!.effects) {
      expect(low).toBeLessThanOrEqual(usual);
      expect(usual).toBeLessThanOrEqual(high);
      expect(Math.max(-low, high)).toBeGreaterThan(0.02);
    }
  });

  it('is the more, the more of it is laid and the more the shop’s seams shrink', () => {
    const usual = (...of: Parameters<typeof effects>) => effect(effects(...of)!.effects, 'CL1')!.usual;
    const of = seam('S1L', 'S3L');
    expect(usual(of, { share: 0.5 })).toBeCloseTo(usual(of) / 2, 9);
    const twice = { ...shrinkFactor([]), usual: 2 };
    expect(usual(of, { factor: twice })).toBeCloseTo(2 * usual(of), 9);
  });

  it('is the same on the right as on the left where the shell is alike there', () => {
    // The front of the shell is sound on both sides.
    const [left, right] = [effects(seam('F1L', 'F2L'))!, effects(seam('F1R', 'F2R'))!];
    expect(left.along / right.along).toBeCloseTo(1, 1);
  });

  it('shortens what it runs across: a seam round a sill shortens the sill', () => {
    const told = effects(seam('S1L', 'A1L', { kind: 'butt' }))!;
    expect(told.across).toEqual(['left sill']);
    expect(effect(told.effects, 'CL1')!.usual).toBeLessThan(0);
    expect(effects(seam('S1L', 'S2L'))!.across).toEqual([]);
  });

  it('is not told where nobody knows where it runs', () => {
    expect(effects({ ...seam('S1L', 'S2L'), lastPointId: null })).toBeUndefined();
    expect(effects({ ...seam('S1L', 'S2L'), lastPointId: idOf('S1L') })).toBeUndefined();
  });
});
