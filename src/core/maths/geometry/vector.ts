/** The axes a position is given in: those of one round's zero planes, or the chart's. */
export type Frame = 'round' | 'chart';

declare const frame: unique symbol;

/**
 * A position in millimetres: X rearward, Y to the right, Z up. The frame is part of the type, so
 * that a position in the round's axes cannot be compared with one in the chart's by mistake.
 */
export type Position<F extends Frame = Frame> = readonly [number, number, number] & {
  readonly [frame]?: F;
};

export type Vector = readonly [number, number, number];
/** Row major. */
export type Matrix3 = readonly [Vector, Vector, Vector];

export const AXES = ['x', 'y', 'z'] as const;
export type Axis = (typeof AXES)[number];

export const add = (a: Vector, b: Vector): Vector => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const subtract = (a: Vector, b: Vector): Vector => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const scale = (a: Vector, s: number): Vector => [a[0] * s, a[1] * s, a[2] * s];
export const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const norm = (a: Vector): number => Math.hypot(a[0], a[1], a[2]);
export const apply = (m: Matrix3, v: Vector): Vector => [dot(m[0], v), dot(m[1], v), dot(m[2], v)];

/** Distance between two positions of the same frame, millimetres. */
export const distance = <F extends Frame>(a: Position<F>, b: Position<F>): number => norm(subtract(b, a));

/** Length of the same line projected on the datum plane, millimetres. */
export const levelDistance = <F extends Frame>(a: Position<F>, b: Position<F>): number =>
  Math.hypot(b[0] - a[0], b[1] - a[1]);

/** Weighted mean of positions; weights above zero. */
export function centroid(points: readonly Vector[], weights: readonly number[]): Vector {
  let sum: Vector = [0, 0, 0];
  let total = 0;
  points.forEach((point, i) => {
    sum = add(sum, scale(point, weights[i]!));
    total += weights[i]!;
  });
  return scale(sum, 1 / total);
}
