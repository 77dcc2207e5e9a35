import { describe, expect, it } from 'vitest';
import { position, type Position, type Vector } from '../geometry/vector';
import { Symmetric } from '../linear/symmetric';
import { seeded } from '../random/seeded';
import { fitCentrePlane, mirrored, planeSd, type MirrorInput } from './centre-plane';

const independent = (sd: number) => ({
  matrix: (ids: readonly string[]) => Symmetric.zeros(3 * ids.length).addDiagonal(sd ** 2),
});

/** A shell whose centre plane is turned and off, with some left-hand points pushed in. */
function shell(
  seed: number,
  pushed: number,
  { offset = 12, lengthways = 0.02, upward = -0.01 } = {},
): MirrorInput<'round'> {
  const random = seeded(seed);
  const positions = new Map<string, Position<'round'>>();
  const plane = { offset, lengthways, upward, covariance: [] };
  const pairs = Array.from({ length: 16 }, (_, i) => {
    const right = position<'round'>([
      i * 230 + 50 * random.next(),
      400 + 300 * random.next(),
      150 + 900 * random.next(),
    ]);
    const left = mirrored(plane, right);
    const dent = i < pushed ? [-9, 14, 6] : [0, 0, 0];
    const noisy = (at: Vector, more: readonly number[]) =>
      position<'round'>(at.map((value, k) => value + more[k]! + 0.6 * random.normal()));
    positions.set(`P${i}L`, noisy(left, dent));
    positions.set(`P${i}R`, noisy(right, [0, 0, 0]));
    return { left: `P${i}L`, right: `P${i}R` };
  });
  return { positions, joint: independent(0.6), pairs, centre: [] };
}

const fitted = (input: MirrorInput<'round'>) => {
  const result = fitCentrePlane(input);
  if (!result.ok) throw new Error(result.reason);
  return result;
};

describe('the centre plane', () => {
  it('is recovered within its uncertainty though a third of one side is pushed in', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const { plane, pairs } = fitted(shell(seed, 5));
      const at = position<'round'>([1800, 12 + 0.02 * 1800 - 0.01 * 500, 500]);
      const off = plane.offset + plane.lengthways * 1800 + plane.upward * 500 - at[1];
      expect(Math.abs(off)).toBeLessThan(4 * planeSd(plane, at));
      expect(pairs.slice(0, 5).every(({ symmetric }) => !symmetric)).toBe(true);
      expect(pairs.slice(5).filter(({ symmetric }) => symmetric).length).toBeGreaterThanOrEqual(10);
    }
  });

  it('gives the differences of the sides, right minus left, with their uncertainty', () => {
    const { pairs } = fitted(shell(3, 4));
    for (const { difference, sd } of pairs.slice(0, 4)) {
      // Left pushed 9 forward, 14 inward and 6 up.
      expect(Math.abs(difference[0] - 9)).toBeLessThan(4 * sd[0]);
      expect(Math.abs(difference[1] - 14)).toBeLessThan(4 * sd[1]);
      expect(Math.abs(difference[2] + 6)).toBeLessThan(4 * sd[2]);
    }
  });

  it('does not see damage that is the same on both sides', () => {
    const input = shell(9, 0, { offset: 0, lengthways: 0, upward: 0 });
    const positions = new Map(
      [...input.positions].map(
        ([id, [x, y, z]]) => [id, position<'round'>(x > 2500 ? [x - 20, y * 0.97, z + 8] : [x, y, z])] as const,
      ),
    );
    expect(fitted({ ...input, positions }).pairs.every(({ symmetric }) => symmetric)).toBe(true);
  });

  it('mirrors a mirror image back to where it was', () => {
    const plane = { offset: 7, lengthways: 0.03, upward: -0.02, covariance: [] };
    const at = position<'round'>([1200, 640, 300]);
    mirrored(plane, mirrored(plane, at)).forEach((value, i) => expect(value).toBeCloseTo(at[i]!, 9));
  });

  it('says what is missing', () => {
    expect(fitCentrePlane({ ...shell(1, 0), pairs: [] })).toMatchObject({
      ok: false,
      reason: expect.stringContaining('no left and right points'),
    });
    const input = shell(1, 0);
    expect(fitCentrePlane({ ...input, pairs: input.pairs.slice(0, 1) })).toMatchObject({
      ok: false,
      reason: expect.stringContaining('another pair'),
    });
  });
});
