import { describe, expect, it } from 'vitest';
import type { Vector } from '../../maths/geometry/vector';
import { liftOn } from './lifting';

const point = (id: string, at: Vector) => ({ id, at });
const four = [
  point('FL', [0, -600, 200]),
  point('FR', [0, 600, 200]),
  point('RL', [2000, -600, 200]),
  point('RR', [2000, 600, 200]),
];
const weight = { kilograms: 240, centre: [1000, 0, 600] as Vector };

describe('lifting', () => {
  it('hangs the hook over the weight and rates each leg as if two opposite ones carried all', () => {
    const lifted = liftOn(four, weight, 1500);
    if (!lifted.ok) throw new Error(lifted.fault.kind);
    const { hook, legs, inside } = lifted.lift;
    expect(hook).toEqual([1000, 0, 1700]);
    expect(inside).toBeCloseTo(600, 9);
    const length = Math.hypot(1000, 600, 1500);
    for (const leg of legs) {
      expect(leg.length).toBeCloseTo(length, 9);
      expect(leg.kilograms).toBeCloseTo(60, 4);
      expect(leg.rating).toBeCloseTo((120 * length) / 1500, 4);
      expect(leg.angle).toBeCloseTo((Math.atan2(Math.hypot(1000, 600), 1500) * 180) / Math.PI, 6);
    }
  });

  it('takes the shares of three legs as they are: statics knows them', () => {
    const three = [four[0]!, four[1]!, point('R', [2000, 0, 200])];
    const lifted = liftOn(three, weight, 2000);
    if (!lifted.ok) throw new Error(lifted.fault.kind);
    expect(lifted.lift.legs.map(({ kilograms }) => kilograms)).toEqual(
      [60, 60, 120].map((kg) => expect.closeTo(kg, 3)),
    );
  });

  it('refuses two points, a weight outside of them, and a sling that hangs too flat', () => {
    const fault = (points: typeof four, height: number, at: Vector = weight.centre) => {
      const lifted = liftOn(points, { ...weight, centre: at }, height);
      return lifted.ok ? undefined : lifted.fault.kind;
    };
    expect(fault(four.slice(0, 2), 1500)).toBe('tooFew');
    expect(fault(four, 1500, [2100, 0, 600])).toBe('outside');
    expect(fault(four, 400)).toBe('tooFlat');
  });
});
