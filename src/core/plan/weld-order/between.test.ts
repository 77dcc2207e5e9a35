import { describe, expect, it } from 'vitest';
import { NEW_WELD_SEAM, type WeldSeam } from '../../shell/job/entities';
import { betweenSteps, minutesBetween } from './between';
import { layOut } from './layout';

const SEAM: WeldSeam = {
  ...NEW_WELD_SEAM,
  ...{ id: 's', jobId: 'j', kind: 'butt', process: 'mig', long: 360 },
};
const JOINT = { thicknessA: 1, thicknessB: 1, factorySpots: null };
const said = (more: Partial<WeldSeam>, corner?: number) => {
  const seam = { ...SEAM, ...more };
  const stretches =
    corner === undefined ? [] : [{ id: 'c', seamId: 's', what: 'corner' as const, starts: corner, ends: corner }];
  return betweenSteps(seam, layOut(seam, JOINT, stretches)).map(({ kind, after }) => `${kind} ${after}`);
};

describe('what is done between the places of a seam', () => {
  it('taps down and planishes short runs, and reads at every third', () => {
    expect(said({})).toEqual([
      ...['tap 3', 'planish 4', 'read 4', 'tap 6', 'planish 8', 'read 8', 'tap 9'],
      ...['planish 12', 'read 12'],
    ]);
  });

  it('planishes what is made in one go from stop to stop', () => {
    expect(said({ process: 'tig' })).toEqual(['planish 12', 'read 12']);
    expect(said({ process: 'tig' }, 180)).toEqual(['planish 6', 'read 6', 'planish 12', 'read 12']);
  });

  it('hammers no plugs and no brazed joint', () => {
    expect(said({ kind: 'plug' })).toEqual(['read 3', 'read 6', 'read 9']);
    expect(said({ kind: 'braze' })).toEqual(['read 4', 'read 8', 'read 12']);
    expect(said({ kind: 'bond', process: null })).toEqual([]);
  });

  it('takes longer the longer the seam is', () => {
    const minutes = (long: number) => {
      const seam = { ...SEAM, long };
      return minutesBetween(betweenSteps(seam, layOut(seam, JOINT, [])));
    };
    // Three times planishing and reading, taps, and 0.04 minutes a millimetre.
    expect(minutes(360)).toBeCloseTo(3 * 2 + 3 * 5 + 3 * 1 + 0.04 * 360, 9);
    expect(minutes(720)).toBeGreaterThan(minutes(360) + 14);
  });
});
