import { describe, expect, it } from 'vitest';
import { add, scale, subtract, type Vector } from '../geometry/vector';
import { addedTurn, turned, turnGradient } from './turn';

const ARM: Vector = [420, -310, 95];

describe('a turn', () => {
  it('of a quarter about z takes forward to the right', () => {
    const [x, y, z] = turned([1, 0, 0], [0, 0, Math.PI / 2]);
    expect([x, y, z].map((value) => value.toFixed(12))).toEqual(['0.000000000000', '1.000000000000', '0.000000000000']);
  });

  it.each<Vector>([
    [0, 0, 0],
    [1e-5, -2e-5, 1e-5],
    [0.02, -0.01, 0.03],
    [0.9, -1.2, 0.4],
  ])('moves its place as its gradient says, at %o', (...w) => {
    const h = 1e-5;
    for (let axis = 0; axis < 3; axis++)
      turnGradient(ARM, w, axis).forEach((slope, k) => {
        const step: Vector = [k === 0 ? h : 0, k === 1 ? h : 0, k === 2 ? h : 0];
        const [up, down] = [turned(ARM, add(w, step)), turned(ARM, subtract(w, step))];
        expect(slope).toBeCloseTo((up[axis]! - down[axis]!) / (2 * h), 4);
      });
  });

  it('after another is both at once', () => {
    const w: Vector = [0.4, -0.7, 0.2];
    const by = scale([0.3, 0.5, -0.9], 1e-6);
    const both = turned(turned(ARM, w), by);
    const one = turned(ARM, add(w, addedTurn(w, by)));
    both.forEach((value, k) => expect(one[k]!).toBeCloseTo(value, 8));
  });
});
