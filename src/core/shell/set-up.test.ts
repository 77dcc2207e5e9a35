import { describe, expect, it } from 'vitest';
import { place, position } from '../maths/geometry/vector';
import { placementOf } from './set-up';

const straight = { x: 900, y: 5, z: 250, turnX: 0, turnY: 0, turnZ: 0 };
const at = (turns: Partial<typeof straight>) =>
  place(placementOf({ ...straight, ...turns }), position<'chart'>([1000, -400, 200])).map(
    (mm) => Math.round(mm * 1e6) / 1e6,
  );

describe('how a shell is planned to stand', () => {
  it('is a shift where nothing is turned', () => {
    expect(at({})).toEqual([1900, -395, 450]);
  });

  it('has its left on the right where it faces the other way', () => {
    expect(at({ turnZ: 180 })).toEqual([-100, 405, 450]);
  });

  it('sinks at the rear where it is turned up at the front about its width, and rolls to the right', () => {
    const rise = 1000 * Math.sin(Math.PI / 180);
    expect(at({ turnY: 1 })[2]).toBeCloseTo(250 - rise + 200 * Math.cos(Math.PI / 180), 6);
    expect(at({ turnX: 90 })).toEqual([1900, -195, -150]);
  });
});
