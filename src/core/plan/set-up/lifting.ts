import { GRAVITY } from '../../structure/shell-frame';
import { norm, subtract, type Vector } from '../../maths/geometry/vector';
import { insideBy } from './choose-mounts';
import { loadsOn } from './loads';
import type { ShellWeight } from './weight';

/** A leg of the sling from the hook to a pick-up point. */
export interface Leg {
  readonly id: string;
  /** mm. */
  readonly length: number;
  /** Upright part of what it carries where all legs share, kg. */
  readonly kilograms: number;
  /** What the leg must be rated for: two legs opposite each other may have to carry everything, kg along the leg. */
  readonly rating: number;
  /** Degrees from upright; beyond 60 no sling is meant for it. */
  readonly angle: number;
}

export interface Lift {
  /** Where the hook hangs, chart axes, mm: over the weight, so that the shell does not swing. */
  readonly hook: Vector;
  readonly legs: readonly Leg[];
  /** How far inside of the pick-up points the weight hangs, mm. */
  readonly inside: number;
}

export type LiftFault =
  | { readonly kind: 'tooFew'; readonly there: number }
  | { readonly kind: 'outside'; readonly by: number }
  | { readonly kind: 'tooFlat'; readonly id: string; readonly angle: number };

const STEEPEST = 60;

/**
 * What a lift on one hook asks of each leg of its sling. Of four legs two opposite ones may carry everything, since no
 * sling is cut so well that all four pull: each is rated for half the weight, and no less than its own share, along its
 * slope (weight · length / height).
 *
 * @param points pick-up points, chart axes, mm
 * @param height of the hook over the highest of them, mm
 */
export function liftOn(
  points: readonly { readonly id: string; readonly at: Vector }[],
  { kilograms, centre }: ShellWeight,
  height: number,
): { readonly ok: true; readonly lift: Lift } | { readonly ok: false; readonly fault: LiftFault } {
  if (points.length < 3) return { ok: false, fault: { kind: 'tooFew', there: points.length } };
  const places = points.map(({ at: [x, y] }) => ({ x, y, height: 0 }));
  const inside = insideBy(places, centre);
  const loads = loadsOn(places, { kilograms, x: centre[0], y: centre[1] });
  if (!loads || !(inside > 0)) return { ok: false, fault: { kind: 'outside', by: -inside } };
  const hook: Vector = [centre[0], centre[1], Math.max(...points.map(({ at }) => at[2])) + height];
  const legs = points.map(({ id, at }, i): Leg => {
    const length = norm(subtract(hook, at));
    const up = hook[2] - at[2];
    const share = loads.newtons[i]! / GRAVITY;
    const most = points.length > 3 ? Math.max(share, kilograms / 2) : share;
    return {
      id,
      length,
      kilograms: share,
      rating: (most * length) / up,
      angle: (Math.acos(up / length) * 180) / Math.PI,
    };
  });
  const flat = legs.find(({ angle }) => angle > STEEPEST);
  if (flat) return { ok: false, fault: { kind: 'tooFlat', id: flat.id, angle: flat.angle } };
  return { ok: true, lift: { hook, legs, inside } };
}
