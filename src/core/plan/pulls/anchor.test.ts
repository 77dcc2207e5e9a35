import { describe, expect, it } from 'vitest';
import { norm, type Vector } from '../../maths/geometry/vector';
import { anchorFrom, chainTo, onFloor } from './anchor';

describe('the anchor of a chain', () => {
  it('stands where the chain ends, and a chain leads to where it stands', () => {
    const anchor: Vector = [1200, -500, -900];
    const chain = chainTo(anchor)!;
    // 1200² + 500² + 900² = 1581.1².
    expect(chain.chain).toBeCloseTo(1581.14, 2);
    expect(norm(chain.direction)).toBeCloseTo(1, 12);
    anchorFrom(chain).forEach((value, k) => expect(value).toBeCloseTo(anchor[k]!, 9));
    expect(chainTo([0, 0, 0])).toBeUndefined();
  });

  it('keeps its height on the floor while the chain is turned', () => {
    // 30° down from a point 500 above the floor: a metre of chain.
    const down = Math.sin(Math.PI / 6);
    const steep = onFloor([Math.cos(Math.PI / 6), 0, -down], -500);
    expect(steep.chain).toBeCloseTo(1000, 9);
    for (const direction of [
      [0.6, 0.6, -0.5],
      [1, 0, 0],
      [0.7, -0.2, 0.6],
    ] as const) {
      const turned = onFloor(direction, -500);
      expect(norm(turned.direction)).toBeCloseTo(1, 12);
      expect(anchorFrom(turned)[2]).toBeCloseTo(-500, 9);
      expect(Math.atan2(turned.direction[1], turned.direction[0])).toBeCloseTo(
        Math.atan2(direction[1], direction[0]),
        9,
      );
    }
  });
});
