import type { Vector } from '../../maths/geometry/vector';

/** The axis a direction goes along most: 0 length, 1 sideways, 2 height. */
export const mainAxis = (direction: Vector): number =>
  [0, 1, 2].reduce((best, k) => (Math.abs(direction[k]!) > Math.abs(direction[best]!) ? k : best), 0);

/** The movement of a node, mm, out of those of all nodes, six freedoms each. */
export const movedAt = (moves: ArrayLike<number>, node: number): Vector => [
  moves[6 * node]!,
  moves[6 * node + 1]!,
  moves[6 * node + 2]!,
];
