export type Vector = readonly [number, number, number];
/** Row major. */
export type Matrix3 = readonly [Vector, Vector, Vector];

/**
 * The axes a figure is given in: those of one round's zero planes (of an `earlier` and a `later` one where two are
 * joined), the chart's, the vehicle's own where no chart gives any, another shell's, the bench's.
 */
export type Frame = 'round' | 'earlier' | 'later' | 'chart' | 'vehicle' | 'theirs' | 'bench';

declare const frame: unique symbol;
declare const kind: unique symbol;

/** Invariant in the frame, so that two frames never meet in a union of both. */
interface In<F extends Frame, Kind extends string> {
  readonly [frame]: (own: F) => F;
  readonly [kind]: Kind;
}

/** A position in millimetres: X rearward, Y to the right, Z up. A bare vector is none until `position` says whose. */
export type Position<F extends Frame> = Vector & In<F, 'position'>;

/** A difference of two positions of one frame, millimetres. */
export type Displacement<F extends Frame> = Vector & In<F, 'displacement'>;

/** Covariance of two points' coordinates, 3×3 row major, mm². */
export type Covariance<F extends Frame> = readonly number[] & In<F, 'covariance'>;

/** Covariance of two points of one survey, by their identities. */
export type JointCovariance<F extends Frame> = (a: string, b: string) => Covariance<F>;

/** A rigid motion that carries positions of one frame into another: rotation · position + translation. */
export interface Motion<From extends Frame, To extends Frame> extends In<From, 'motion'> {
  readonly rotation: Matrix3;
  readonly translation: Vector;
  readonly to?: (own: To) => To;
}

/** Says which axes three numbers are in; the border, the solver and the motions are the places that know. */
export const position = <F extends Frame>(at: Vector | ArrayLike<number>): Position<F> => at as Position<F>;
export const displacement = <F extends Frame>(by: Vector): Displacement<F> => by as Displacement<F>;
export const covariance = <F extends Frame>(block: readonly number[]): Covariance<F> => block as Covariance<F>;
export const motion = <From extends Frame, To extends Frame>(rotation: Matrix3, translation: Vector) =>
  ({ rotation, translation }) as Motion<From, To>;

export const AXES = ['x', 'y', 'z'] as const;
export type Axis = (typeof AXES)[number];

export const add = (a: Vector, b: Vector): Vector => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const subtract = (a: Vector, b: Vector): Vector => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const scale = (a: Vector, s: number): Vector => [a[0] * s, a[1] * s, a[2] * s];
export const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const cross = (a: Vector, b: Vector): Vector => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
export const norm = (a: Vector): number => Math.hypot(a[0], a[1], a[2]);
export const apply = (m: Matrix3, v: Vector): Vector => [dot(m[0], v), dot(m[1], v), dot(m[2], v)];
export const mapAxes = (of: (axis: 0 | 1 | 2) => number): Vector => [of(0), of(1), of(2)];

/** From one position to another of the same frame. */
export const from = <F extends Frame>(a: Position<F>, b: Position<F>): Displacement<F> => displacement(subtract(b, a));

/** Distance between two positions of the same frame, millimetres. */
export const distance = <F extends Frame>(a: Position<F>, b: Position<F>): number => norm(subtract(b, a));

/** Length of the same line projected on the datum plane, millimetres. */
export const levelDistance = <F extends Frame>(a: Position<F>, b: Position<F>): number =>
  Math.hypot(b[0] - a[0], b[1] - a[1]);

/** Carries a position into the axes a motion leads to. */
export const place = <A extends Frame, B extends Frame>(by: Motion<A, B>, at: Position<A>): Position<B> =>
  position(add(apply(by.rotation, at), by.translation));

/** Turns a difference, which no translation changes, into the axes a motion leads to. */
export const turn = <A extends Frame, B extends Frame>(by: Motion<A, B>, d: Displacement<A>): Displacement<B> =>
  displacement(apply(by.rotation, d));

/** R Σ Rᵀ: a covariance in the axes a motion leads to. */
export function turnCovariance<A extends Frame, B extends Frame>(
  { rotation }: Motion<A, B>,
  block: Covariance<A>,
): Covariance<B> {
  const turned = Array.from({ length: 9 }, () => 0);
  for (let r = 0; r < 3; r++)
    for (let c = 0; c < 3; c++)
      for (let i = 0; i < 3; i++)
        for (let k = 0; k < 3; k++) turned[3 * r + c]! += rotation[r]![i]! * block[3 * i + k]! * rotation[c]![k]!;
  return covariance(turned);
}

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
