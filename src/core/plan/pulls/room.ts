import type { Vector } from '../../maths/geometry/vector';

/** How far a place may move along each axis, the one way and the other, mm; all above zero. */
export interface Room {
  readonly up: Vector;
  readonly down: Vector;
}

/** However near its limit a point stands, it may move so far, mm: less is not read. */
const LEAST_ROOM = 0.25;

/** The same every way. */
export const evenRoom = (mm: number): Room => ({ up: [mm, mm, mm], down: [mm, mm, mm] });

/** A place that stands right: how far it is from where it belongs, one standard deviation of that, and its limit along each axis, mm. */
export interface Standing {
  readonly off: Vector;
  readonly sd: Vector;
  readonly limit: number;
}

/** What is left of a place's limit, as far as it is known where it stands. */
export function roomOf({ off, sd, limit }: Standing): Room {
  const left = (way: 1 | -1) =>
    off.map((value, k) => Math.max(LEAST_ROOM, limit - way * value - sd[k]!)) as unknown as Vector;
  return { up: left(1), down: left(-1) };
}

/** The axis along which a movement takes up most of a room, how far it goes there, and how far it may that way. */
export interface Taken {
  readonly axis: number;
  readonly by: number;
  readonly of: number;
  readonly share: number;
}

export function takenOf({ up, down }: Room, move: Vector): Taken {
  const along = move.map((by, axis): Taken => {
    const of = (by < 0 ? down : up)[axis]!;
    return { axis, by, of, share: Math.abs(by) / of };
  });
  return along.reduce((most, each) => (each.share > most.share ? each : most));
}
