import { Matrix } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import { add, apply, motion, subtract, type Matrix3, type Vector } from '../geometry/vector';
import { seeded } from '../random/seeded';
import { Joint } from '../linear/joint';
import { Symmetric } from '../linear/symmetric';
import { rigidDesign, withFreeMotion } from './freedom';

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
    const covariance = Symmetric.zeros(21).addDiagonal(0.8 ** 2);
    const weights = withFreeMotion(covariance, positions).inverse();
    const cost = (movement: Matrix) => weights.quadratic(movement.to1DArray());
    expect(cost(carried([3, -5, 2, 0.4, -0.3, 0.6]))).toBeLessThan(0.05);
    const dent = Matrix.zeros(21, 1);
    dent.set(10, 0, 8);
    expect(cost(dent)).toBeGreaterThan(0.5 * (8 / 0.8) ** 2);
    expect(cost(dent)).toBeLessThanOrEqual((8 / 0.8) ** 2);
  });
});

describe('a joint covariance', () => {
  const blocks = new Matrix(Array.from({ length: 6 }, () => Array.from({ length: 6 }, random.normal)));
  const whole = Symmetric.of(blocks.mmul(blocks.transpose()));
  const joint = Joint.of<'round'>(['a', 'b'], [0, 3], whole);

  it('is put together from the blocks of its points, in any order', () => {
    expect(joint.matrix(['a', 'b']).values).toEqual(whole.values);
    expect(joint.matrix(['b', 'a']).get(0, 4)).toBe(whole.get(3, 1));
    expect(joint.block('b', 'a')).toEqual(whole.block(1, 0));
    expect(joint.block('a')).toEqual(whole.block(0, 0));
  });

  it('is nothing for a point held fixed', () => {
    expect(Joint.of<'round'>(['a', 'b'], [0, -1], whole).block('a', 'b')).toEqual([0, 0, 0, 0, 0, 0, 0, 0, 0]);
  });

  it('turns with the axes, point by point', () => {
    const quarter = motion<'round', 'chart'>(QUARTER, [0, 0, 0]);
    const back = motion<'chart', 'round'>(QUARTER, [0, 0, 0]);
    const after = joint.turned(quarter).matrix(['a', 'b']);
    // After a quarter turn the old x is the new y, the old y the new −x.
    expect(after.get(1, 1)).toBeCloseTo(whole.get(0, 0), 12);
    expect(after.get(0, 4)).toBeCloseTo(-whole.get(1, 3), 12);
    expect(after.get(2, 5)).toBeCloseTo(whole.get(2, 5), 12);
    const round = joint.turned(quarter).turned(back).turned(quarter).turned(back);
    expect(round.matrix(['a', 'b']).get(1, 3)).toBeCloseTo(whole.get(1, 3), 12);
  });
});
