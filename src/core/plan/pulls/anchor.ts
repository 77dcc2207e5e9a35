import { norm, scale, type Vector } from '../../maths/geometry/vector';

/** A pull's chain: the way it leaves its point, of unit length, chart axes, and how long it is, mm. */
export interface Chain {
  readonly direction: Vector;
  readonly chain: number;
}

/** Where the anchor stands, from the point, chart axes, mm. */
export const anchorFrom = ({ direction, chain }: Chain): Vector => scale(direction, chain);

/** The chain to an anchor that stands so far from the point; undefined where it stands at the point. */
export function chainTo(anchor: Vector): Chain | undefined {
  const chain = norm(anchor);
  return chain > 0 ? { direction: scale(anchor, 1 / chain), chain } : undefined;
}

/** A chain to the floor is no flatter than this: the anchor would stand too far away. */
const FLATTEST = (3 * Math.PI) / 180;

/**
 * The chain turned another way while its anchor stays on the floor: as much lower or higher than the point as it was, nearer or
 * further away.
 *
 * @param height of the anchor above the point, mm; negative below it, and not nothing
 */
export function onFloor([x, y, z]: Vector, height: number): Chain {
  const flat = Math.hypot(x, y);
  const rise = Math.max(FLATTEST, Math.atan2(Math.sign(height) * z, flat));
  const level = Math.cos(rise) / (flat || 1);
  return {
    direction: [x * level, y * level, Math.sign(height) * Math.sin(rise)],
    chain: Math.abs(height) / Math.sin(rise),
  };
}
