import type { Vector } from '../../maths/geometry/vector';
import { CENTRE_SHARE, extentOf, type Section } from '../../shell/sections';

/** A point of the shell as the pattern of a damage sees it. */
export interface PatternPoint {
  readonly id: string;
  readonly side: 'left' | 'right' | 'centre';
  /** Reference position, chart axes, mm. */
  readonly at: Vector;
}

/** One way a section may have moved: where it hinges and where its movement is largest. */
export interface Hinge {
  readonly section: Section;
  /** Station of the hinge, mm. */
  readonly hinge: number;
  /** Station at which the amounts are given: the end of the section, mm. */
  readonly end: number;
}

/** Floor points lie at most this far above the lowest, mm: the leg ends are among them. */
const FLOOR = 260;
const MOST_HINGES = 10;
/** A hinge nearer to the section's end than this has no lever to be seen by, mm. */
const SHORTEST = 150;
const FEWEST_BEYOND = 3;

/**
 * How much of a section's end movement a station has: 0 up to the hinge, 1 at the section's end, linear
 * between and, for the front and the rear, beyond.
 */
export function share({ section, hinge, end }: Hinge, x: number): number {
  const u = (x - hinge) / (end - hinge);
  return u <= 0 || (section === 'centre' && u > 1 + 1e-9) ? 0 : u;
}

/** Derivative of that share with respect to the hinge's station, 1/mm. */
export const shareSlope = (hinge: Hinge, x: number): number =>
  share(hinge, x) > 0 ? (x - hinge.end) / (hinge.end - hinge.hinge) ** 2 : 0;

/** Every hinge worth trying: stations of points, with enough points on both sides of it. */
export function hingesToTry(points: readonly PatternPoint[], held: ReadonlySet<string>): Hinge[] {
  const stations = points.map(({ at }) => at[0]);
  const [from, to] = extentOf(stations);
  const bound = CENTRE_SHARE.map((part) => from + part * (to - from)) as [number, number];
  const ends = floorEnds(points);
  const middle = (bound[0] + bound[1]) / 2;
  const all: Hinge[] = [
    ...spread(
      stations.filter((x) => x >= middle),
      ends[1],
    ).map((hinge): Hinge => ({ section: 'rear', hinge, end: ends[1] })),
    ...spread(
      stations.filter((x) => x <= middle),
      ends[0],
    ).map((hinge): Hinge => ({ section: 'front', hinge, end: ends[0] })),
    ...bound.flatMap((end) =>
      spread(
        stations.filter((x) => x >= bound[0] && x <= bound[1]),
        end,
      )
        .slice(0, MOST_HINGES / 2)
        .map((hinge): Hinge => ({ section: 'centre', hinge, end })),
    ),
  ];
  return all.filter((hinge) => {
    const beyond = points.filter(({ at }) => share(hinge, at[0]) > 0.02);
    const control = beyond.filter(({ id }) => held.has(id)).length;
    // What the control points themselves are, did not move: the rest moved against them.
    return beyond.length >= FEWEST_BEYOND && beyond.length <= points.length * 0.6 && control <= held.size / 3;
  });
}

/** The foremost and rearmost station of the floor, where the chassis legs end. */
function floorEnds(points: readonly PatternPoint[]): [number, number] {
  const lowest = Math.min(...points.map(({ at }) => at[2]));
  const paired = points.filter(({ at, side }) => at[2] <= lowest + FLOOR && side !== 'centre');
  const stations = (paired.length >= 4 ? paired : points).map(({ at }) => at[0]);
  return extentOf(stations);
}

/** A few different stations out of many, none too near the end. */
function spread(stations: readonly number[], end: number): number[] {
  const usable = [...new Set(stations.map((x) => Math.round(x)))]
    .filter((x) => Math.abs(end - x) >= SHORTEST)
    .sort((a, b) => a - b)
    .filter((x, i, all) => i === 0 || x - all[i - 1]! > 20);
  if (usable.length <= MOST_HINGES) return usable;
  return Array.from(
    { length: MOST_HINGES },
    (_, k) => usable[Math.round((k * (usable.length - 1)) / (MOST_HINGES - 1))]!,
  );
}
