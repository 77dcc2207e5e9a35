import { Matrix } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import { displacement, type Displacement } from '../../maths/geometry/vector';
import { Symmetric } from '../../maths/linear/symmetric';
import { seeded } from '../../maths/random/seeded';
import { StableSet, type Discrepancy } from './stable-set';

const COUNT = 6;
const random = seeded(44);
const noise = (): Displacement<'earlier'> => displacement([random.normal(), random.normal(), random.normal()]);
const differences = Array.from({ length: COUNT }, noise);
const half = new Matrix(Array.from({ length: 3 * COUNT }, () => Array.from({ length: 3 * COUNT }, random.normal)));
const covariance = Symmetric.of(half.mmul(half.transpose()).add(Matrix.eye(3 * COUNT)));
const of = (members: readonly number[]) => StableSet.of(differences, covariance, members);

const same = (a: Discrepancy<'earlier'>, b: Discrepancy<'earlier'>) => {
  expect(a.chiSquare).toBeCloseTo(b.chiSquare, 8);
  a.change.forEach((value, i) => expect(value).toBeCloseTo(b.change[i]!, 8));
  a.covariance.forEach((value, i) => expect(value).toBeCloseTo(b.covariance[i]!, 8));
};

describe('a set of points taken as stable', () => {
  it('is the same whether points left it one by one or were never in it', () => {
    const stepwise = of([0, 1, 2, 3, 4, 5]).without(4).without(1);
    const anew = of([0, 2, 3, 5]);
    expect(stepwise.members).toEqual(anew.members);
    expect(stepwise.chiSquare()).toBeCloseTo(anew.chiSquare(), 8);
    stepwise.membersTested().forEach((test, k) => same(test, anew.membersTested()[k]!));
  });

  it('is the same whether points came back or were always in it', () => {
    const stepwise = of([0, 2, 3]).with(5).with(1);
    expect(stepwise.chiSquare()).toBeCloseTo(of([0, 2, 3, 5, 1]).chiSquare(), 8);
    expect(stepwise.fresh().chiSquare()).toBeCloseTo(stepwise.chiSquare(), 8);
  });

  it('tests a member as it tests the same point outside', () => {
    const whole = of([0, 1, 2, 3]);
    same(whole.membersTested()[2]!, of([0, 1, 3]).outsiderTested(2));
  });

  it('falls by a member’s own statistic when that member leaves', () => {
    const whole = of([0, 1, 2, 3, 4]);
    const own = whole.membersTested()[3]!.chiSquare;
    expect(whole.chiSquare() - whole.without(3).chiSquare()).toBeCloseTo(own, 8);
  });

  it('of independent points tests each by itself', () => {
    const alone = StableSet.of(
      [displacement([3, 0, 0]), displacement([0, 4, 0]), displacement([0, 0, 0])],
      Symmetric.zeros(9).addDiagonal(4),
      [0, 1, 2],
    );
    expect(alone.chiSquare()).toBeCloseTo((9 + 16) / 4, 12);
    expect(alone.membersTested().map(({ chiSquare }) => chiSquare)).toEqual([9 / 4, 4, 0]);
  });
});
