import {
  apply,
  cross,
  dot,
  motion,
  norm,
  place,
  scale,
  subtract,
  type Frame,
  type Matrix3,
  type Motion,
  type Position,
  type Vector,
} from '../geometry/vector';
import { fitCentrePlane, type MirrorInput } from './centre-plane';

export type AxesResult<F extends Frame> =
  { readonly ok: true; readonly motion: Motion<F, 'vehicle'> } | { readonly ok: false; readonly reason: string };

/**
 * Vehicle axes for a shell that no chart gives any: width from the centre plane of its pairs, height as the
 * round measured it made square to that, length from the foremost pair. A motion from the round's axes.
 */
export function vehicleAxes<F extends Frame>(input: MirrorInput<F>): AxesResult<F> {
  const fit = fitCentrePlane(input);
  if (!fit.ok) return fit;
  const { offset, lengthways, upward } = fit.plane;
  const across = unit([-lengthways, 1, -upward]);
  const up = unit(subtract([0, 0, 1], scale(across, dot(across, [0, 0, 1]))));
  const back = cross(across, up);
  const rotation: Matrix3 = [back, across, up];
  const turned = [...input.positions.values()].map((at) => apply(rotation, at));
  const front = Math.min(...turned.map(([x]) => x));
  const onPlane = apply(rotation, [0, offset, 0]);
  return { ok: true, motion: motion(rotation, [-front, -onPlane[1], 0]) };
}

const unit = (v: Vector): Vector => scale(v, 1 / norm(v));

/** Positions carried by a motion. */
export const carried = <A extends Frame, B extends Frame>(
  by: Motion<A, B>,
  positions: ReadonlyMap<string, Position<A>>,
): Map<string, Position<B>> => new Map([...positions].map(([id, at]) => [id, place(by, at)]));
