import type { Vector } from '../../maths/geometry/vector';

/** A line on the floor through the plumb marks of two points, and where everything stands by it. Millimetres. */
export interface FloorLine {
  /** Between the two marks. */
  readonly length: number;
  /** How it runs against the shell's centre plane, degrees: to the right towards the rear is positive. */
  readonly turned: number;
  /** How far right of the centre plane it begins. */
  readonly beside: number;
  readonly places: readonly FloorPlace[];
}

export interface FloorPlace {
  readonly id: string;
  /** From the first mark along the line, and right of it looking from the second mark to the first, as the driver does. */
  readonly along: number;
  readonly right: number;
  /** From either mark: where two tapes cross. */
  readonly fromFirst: number;
  readonly fromSecond: number;
}

/**
 * Lays a line from two points' plumb marks: every other place by how far along and beside it is, and by its two distances
 * from the marks, so that a tape finds it without a square.
 *
 * @param first  the mark nearer the front, chart axes, mm
 * @param second the other
 * @returns undefined where the two marks are nearly one
 */
export function floorLine(
  first: Vector,
  second: Vector,
  places: readonly { readonly id: string; readonly at: Vector }[],
): FloorLine | undefined {
  const [dx, dy] = [second[0] - first[0], second[1] - first[1]];
  const length = Math.hypot(dx, dy);
  if (length < LEAST) return undefined;
  const [ux, uy] = [dx / length, dy / length];
  return {
    length,
    turned: Math.atan2(dy, dx) * (180 / Math.PI),
    beside: first[1],
    places: places.map(({ id, at: [x, y] }) => {
      const [px, py] = [x - first[0], y - first[1]];
      return {
        id,
        along: px * ux + py * uy,
        right: py * ux - px * uy,
        fromFirst: Math.hypot(px, py),
        fromSecond: Math.hypot(x - second[0], y - second[1]),
      };
    }),
  };
}

/** Marks nearer than this carry no line, mm. */
const LEAST = 300;
