import { inverse, Matrix } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import { add, apply, subtract, type Matrix3, type Vector } from '../geometry/vector';
import { seeded } from '../random/seeded';
import { jointMatrix, rigidDesign, turned, withFreeMotion } from './freedom';

const random = seeded(3);
const positions = Array.from({ length: 7 }, (): Vector => [
  3600 * random.next(),
  1400 * (random.next() - 0.5),
  900 * random.next(),
]);
const QUARTER: Matrix3 = [
  [0, -1, 0],
  [1, 0, 0],
  [0, 0, 1],
];

/** The movement of every point when the shell shifts (mm) and turns (thousandths of a radian). */
const carried = (motion: readonly number[]): Matrix =>
  Matrix.columnVector(
    positions.flatMap((at) =>
      rigidDesign(at)
        .mmul(Matrix.columnVector([...motion]))
        .to1DArray(),
    ),
  );

describe('a small motion of the whole shell', () => {
  it('is what a small turn does to a point', () => {
    const at = positions[0]!;
    const angle = 1e-3;
    const turn: Matrix3 = [
      [Math.cos(angle), -Math.sin(angle), 0],
      [Math.sin(angle), Math.cos(angle), 0],
      [0, 0, 1],
    ];
    const truth = subtract(add(apply(turn, at), [2, 0, -1]), at);
    const linear = rigidDesign(at)
      .mmul(Matrix.columnVector([2, 0, -1, 0, 0, 1]))
      .to1DArray();
    truth.forEach((value, i) => expect(linear[i]).toBeCloseTo(value, 2));
  });

  it('left free, costs next to nothing, and a dent costs what it did', () => {
    const covariance = Matrix.eye(21).mul(0.8 ** 2);
    const weights = inverse(withFreeMotion(covariance, positions));
    const cost = (movement: Matrix) => movement.transpose().mmul(weights).mmul(movement).get(0, 0);
    expect(cost(carried([3, -5, 2, 0.4, -0.3, 0.6]))).toBeLessThan(0.05);
    const dent = Matrix.zeros(21, 1);
    dent.set(10, 0, 8);
    expect(cost(dent)).toBeGreaterThan(0.5 * (8 / 0.8) ** 2);
    expect(cost(dent)).toBeLessThanOrEqual((8 / 0.8) ** 2);
  });
});

describe('a joint covariance', () => {
  const blocks = new Matrix(Array.from({ length: 6 }, () => Array.from({ length: 6 }, random.normal)));
  const whole = blocks.mmul(blocks.transpose());
  const joint = (a: string, b: string) =>
    whole.subMatrix(3 * Number(a), 3 * Number(a) + 2, 3 * Number(b), 3 * Number(b) + 2).to1DArray();

  it('is put together from the blocks of its points, in any order', () => {
    expect(jointMatrix(['0', '1'], joint).to2DArray()).toEqual(whole.to2DArray());
    expect(jointMatrix(['1', '0'], joint).get(0, 4)).toBe(whole.get(3, 1));
  });

  it('turns with the axes, point by point', () => {
    const after = turned(whole, QUARTER);
    // After a quarter turn the old x is the new y, the old y the new −x.
    expect(after.get(1, 1)).toBeCloseTo(whole.get(0, 0), 12);
    expect(after.get(0, 4)).toBeCloseTo(-whole.get(1, 3), 12);
    expect(after.get(2, 5)).toBeCloseTo(whole.get(2, 5), 12);
    expect(turned(turned(turned(after, QUARTER), QUARTER), QUARTER).get(1, 3)).toBeCloseTo(whole.get(1, 3), 12);
  });
});
