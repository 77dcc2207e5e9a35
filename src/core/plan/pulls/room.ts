import { mapAxes, subtract, type Vector } from '../../maths/geometry/vector';

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

/** What nobody means to move wanders so far from one round to the next, mm: one standard deviation. */
const WANDERS = 0.5;
/** Further off than so many standard deviations it was moved, and what was known of it before says nothing. */
const MOVED = 3;

/**
 * Where a place stands once one more round has read it: what was known, less sure by how far it may have wandered since, and what
 * is read, each by its weight, axis by axis (a filter of a random walk; Kalman 1960). One that was moved is known by the reading alone.
 */
export function standsNow<Known extends Standing>(before: Standing | undefined, read: Known): Known {
  if (!before) return read;
  const variances = read.off.map((_, k) => [before.sd[k]! ** 2 + WANDERS ** 2, read.sd[k]! ** 2] as const);
  const apart = subtract(read.off, before.off);
  if (variances.some(([known, reading], k) => apart[k]! ** 2 > MOVED ** 2 * (known + reading))) return read;
  const share = (k: 0 | 1 | 2) => variances[k]![0] / (variances[k]![0] + variances[k]![1]);
  return {
    ...read,
    off: mapAxes((k) => before.off[k] + share(k) * apart[k]),
    sd: mapAxes((k) => Math.sqrt((1 - share(k)) * variances[k]![0])),
  };
}

/** A place may stand nearer to its limit than is known by so many standard deviations: what stands right is not to be lost. */
const SURE = 2.5;

/** What is left of a place's limit wherever it may stand. */
export function roomOf({ off, sd, limit }: Standing): Room {
  const left = (way: 1 | -1) =>
    off.map((value, k) => Math.max(LEAST_ROOM, limit - way * value - SURE * sd[k]!)) as unknown as Vector;
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
