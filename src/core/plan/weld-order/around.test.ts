import { describe, expect, it } from 'vitest';
import type { WeldLayout } from './layout';
import { stepsAround } from './around';

const layout = (places: number, minutes: number): Pick<WeldLayout, 'places' | 'minutes'> => ({
  places: Array.from({ length: places }, (_, i) => ({ number: i + 1 })) as unknown as WeldLayout['places'],
  minutes,
});
const plugs = { kind: 'plug', long: 1000, clampedFor: null, inTurnWithId: null } as const;

describe('the steps around a joint', () => {
  it('take so long for a metre of thirty plugs, as worked by hand', () => {
    const steps = stepsAround(plugs, layout(30, 62));
    expect(steps.map(({ kind, minutes }) => [kind, minutes])).toEqual([
      ...[
        ['access', 20],
        ['strip', 35],
        ['fit', 35],
        ['deburr', 15],
        ['weldPrime', 20],
        ['clamp', 20],
        ['weld', 60],
      ],
      ...[
        ['readCold', 20],
        ['dress', 30],
        ['treat', 15],
        ['prime', 20],
        ['sealFirst', 20],
        ['sealSecond', 10],
        ['wax', 20],
      ],
    ]);
  });

  it('do first what nobody reaches when the joint is closed', () => {
    for (const seam of [plugs, { kind: 'bond', long: 600, clampedFor: 90 } as const]) {
      const steps = stepsAround(seam, layout(12, 30));
      const closed = steps.findIndex(({ kind }) => kind === 'weld' || kind === 'glue');
      expect(closed).toBeGreaterThan(0);
      expect(steps.slice(closed).some(({ beforeAccess }) => beforeAccess)).toBe(false);
      expect(steps.slice(0, closed).some(({ beforeAccess }) => beforeAccess)).toBe(true);
    }
  });

  it('melt nothing where a joint is bonded, and hold it as long as its adhesive wants', () => {
    const steps = stepsAround({ kind: 'bond', long: 600, clampedFor: 90 }, layout(0, 20));
    expect(steps.map(({ kind }) => kind)).not.toContain('weld');
    expect(steps.find(({ kind }) => kind === 'glue')).toMatchObject({ waits: 90, curesAt: 20 });
    expect(steps.find(({ kind }) => kind === 'abrade')).toMatchObject({ keeps: 240 });
  });

  it('let primer and sealer cure, and say how long a coat keeps', () => {
    const of = Object.fromEntries(stepsAround(plugs, layout(30, 62)).map((each) => [each.kind, each]));
    expect(of.sealSecond).toMatchObject({ waits: 1440, curesAt: 20, keeps: null });
    expect(of.weldPrime!.keeps).toBeGreaterThan(of.weldPrime!.waits!);
    expect(of.weld).toMatchObject({ waits: 60, curesAt: null });
  });
});
