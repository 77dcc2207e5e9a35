import { dot, norm, scale, type Vector } from '@/core/maths/geometry/vector';
import type { PullPicture, PullView } from '@/core/report/pages/pulling';

/** Movement of each node of the structure, three a node, chart axes, mm. */
export type Shape = readonly number[];

/** The movement of one node. */
export const nodeIn = (shape: Shape, node: number): Vector => [
  shape[3 * node] ?? 0,
  shape[3 * node + 1] ?? 0,
  shape[3 * node + 2] ?? 0,
];

/** Several movements one upon the other. */
export const together = (shapes: readonly Shape[]): Shape =>
  shapes.length === 0 ? [] : shapes[0]!.map((_, i) => shapes.reduce((sum, shape) => sum + (shape[i] ?? 0), 0));

/** The members of the shell where they would stand, `times` as far out as they do; nothing that does not move. */
export function membersAt({ nodes, members }: PullPicture, shape: Shape, times: number): [Vector, Vector][] {
  const at = (node: number): Vector => {
    const moved = nodeIn(shape, node);
    return nodes[node]!.at.map((value, k) => value + times * moved[k]!) as unknown as Vector;
  };
  return members.map(([from, to]) => [at(from), at(to)]);
}

/** What a pull would move were its force to go another way, as far as all gives elastically: for as long as a hand turns it. */
export function whileTurning({ pull, worked }: PullView, direction: Vector): Shape {
  if (!worked) return [];
  const { influence, at } = worked;
  const unit = influence[0]!.map((_, i) =>
    influence.reduce((sum, column, k) => sum + direction[k]! * (column[i] ?? 0), 0),
  );
  const aim: Vector = [pull.aimX, pull.aimY, pull.aimZ];
  const size = norm(aim);
  const along = size > 0 ? dot(nodeIn(unit, at.node), scale(aim, 1 / size)) : 0;
  // Beside the aim it would take any force to come there: it goes no further than it is wanted to.
  const force = Math.min(Math.max(0, size / Math.max(along, 1e-9)), size / (norm(nodeIn(unit, at.node)) || 1));
  return unit.map((value) => value * force);
}

const DEGREE = Math.PI / 180;

/** A unit direction by its angles: in plan from straight rearward to the right, and above the datum plane, degrees. */
export function directionAt(heading: number, rise: number): Vector {
  const level = Math.cos(rise * DEGREE);
  return [level * Math.cos(heading * DEGREE), level * Math.sin(heading * DEGREE), Math.sin(rise * DEGREE)];
}

export const anglesOf = ([x, y, z]: Vector): { readonly heading: number; readonly rise: number } => ({
  heading: Math.atan2(y, x) / DEGREE,
  rise: Math.atan2(z, Math.hypot(x, y)) / DEGREE,
});
