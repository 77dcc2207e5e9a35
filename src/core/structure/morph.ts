import { add, norm, scale, subtract, type Vector } from '../maths/geometry/vector';
import type { BodyPicture, BodyPlace } from '../shell/bodies/body';
import type { Side } from '../shell/job/entities';
import { alongAxes, startOnBody, type Axes } from './body-start';

/** A point of the shell whose place is known, chart axes, mm. */
export interface KnownPoint {
  readonly id: string;
  readonly code: string;
  readonly side: Side;
  /** The place of the picture it was chosen at; empty where it was not. */
  readonly place: string;
  readonly at: Vector;
}

/** A picture brought onto a shell: carries any place of the picture there, and says which known point stands where. */
export interface Morph {
  readonly carry: (at: Vector) => Vector;
  /** The known point that stands at a place, by the place's code. */
  readonly ties: ReadonlyMap<string, KnownPoint>;
}

/** How near a point must come to a place of the picture to be taken for it, mm: wide at first, narrow in the end. */
const NEAR = [600, 450, 350, 280, 220, 180] as const;

/** The same for what is left over in the end, mm. */
const FAR = 400;

/**
 * Brings the picture of a body onto a shell's known points: each axis is stretched and shifted by itself so that boxes agree,
 * then places and points of one side that are each other's nearest are tied and the axes fitted anew by least squares, six
 * times with ever less room; what is left at the ties is spread over the rest by inverse distance (Shepard 1968), so that a
 * tied place stands exactly at its point. Points chosen on the picture are tied from the beginning.
 *
 * @param rough where the picture stands before any point is looked at: by typed measures
 */
export function morphOnto(picture: BodyPicture, known: readonly KnownPoint[], rough: (at: Vector) => Vector): Morph {
  const byPlace = new Map(picture.places.map((place) => [place.code, place]));
  const chosen = known.flatMap((point): [BodyPlace, KnownPoint][] => {
    const place = byPlace.get(point.place);
    return place ? [[place, point]] : [];
  });
  const free = known.filter(({ place }) => !byPlace.has(place));
  let axes = free.length < 4 ? undefined : startOnBody(picture, known, rough);
  let ties = chosen;
  for (const near of NEAR) {
    const fitted = fit(ties, axes);
    const carried = fitted ? alongAxes(fitted) : rough;
    ties = [...chosen, ...nearest(picture, free, carried, chosen, near)];
    axes = fitted;
  }
  // What is left on either side may stand farther off: sills end, and posts stand, where each maker put them.
  const used = new Set(ties.map(([, point]) => point));
  const rest = free.filter((point) => !used.has(point));
  ties = [...ties, ...nearest(picture, rest, axes ? alongAxes(axes) : rough, ties, FAR)];
  const last = fit(ties, axes);
  const carry = last ? alongAxes(last) : rough;
  const left = ties.map(([place, point]) => ({ at: carry(place.at), by: subtract(point.at, carry(place.at)) }));
  return {
    carry: (at) => spread(carry(at), left),
    ties: new Map(ties.map(([place, point]) => [place.code, point])),
  };
}

/** Least squares axis by axis; an axis that the ties say too little of stays as it was, or takes the others' stretch. */
function fit(ties: readonly (readonly [BodyPlace, KnownPoint])[], before: Axes | undefined): Axes | undefined {
  if (ties.length < 2) return before;
  const line = (k: number): Axes[number] | undefined => {
    const pairs = ties.map(([place, point]) => [place.at[k]!, point.at[k]!] as const);
    if (k === 1) {
      const size = pairs.reduce((sum, [a]) => sum + a * a, 0);
      return size > 1e4 ? { stretch: pairs.reduce((sum, [a, b]) => sum + a * b, 0) / size, shift: 0 } : undefined;
    }
    const mean = (i: 0 | 1) => pairs.reduce((sum, pair) => sum + pair[i], 0) / pairs.length;
    const [a0, b0] = [mean(0), mean(1)];
    const size = pairs.reduce((sum, [a]) => sum + (a - a0) ** 2, 0);
    if (size < 1e4 * pairs.length) return undefined;
    const stretch = pairs.reduce((sum, [a, b]) => sum + (a - a0) * (b - b0), 0) / size;
    return stretch > 0.3 && stretch < 3 ? { stretch, shift: b0 - stretch * a0 } : undefined;
  };
  const lines = [0, 1, 2].map(line);
  const told = lines.filter((each) => each !== undefined);
  if (told.length === 0) return before;
  const usual = told.reduce((sum, { stretch }) => sum + stretch, 0) / told.length;
  return lines.map((each, k): Axes[number] => {
    if (each) return each;
    if (before) return before[k]!;
    // One height alone still says how high the shell stands.
    const shift = k === 1 ? 0 : ties.reduce((sum, [a, b]) => sum + b.at[k]! - usual * a.at[k]!, 0) / ties.length;
    return { stretch: usual, shift };
  }) as unknown as Axes;
}

/** Places and points of one side that are each other's nearest, and near enough. */
function nearest(
  { places }: BodyPicture,
  points: readonly KnownPoint[],
  carry: (at: Vector) => Vector,
  chosen: readonly (readonly [BodyPlace, KnownPoint])[],
  near: number,
): [BodyPlace, KnownPoint][] {
  const taken = new Set(chosen.map(([place]) => place));
  const carried = places.filter((place) => !taken.has(place)).map((place) => ({ place, at: carry(place.at) }));
  const best = <T extends { readonly at: Vector }>(from: Vector, list: readonly T[]): T | undefined =>
    list.reduce<T | undefined>(
      (kept, each) => (!kept || norm(subtract(each.at, from)) < norm(subtract(kept.at, from)) ? each : kept),
      undefined,
    );
  return carried.flatMap(({ place, at }): [BodyPlace, KnownPoint][] => {
    const point = best(
      at,
      points.filter(({ side }) => side === place.side),
    );
    if (!point || norm(subtract(point.at, at)) > near) return [];
    const back = best(
      point.at,
      carried.filter((each) => each.place.side === place.side),
    );
    return back?.place === place ? [[place, point]] : [];
  });
}

/** A carried place with what is left at the ties, by the inverse cube of the distance. */
function spread(at: Vector, left: readonly { readonly at: Vector; readonly by: Vector }[]): Vector {
  let [sum, by]: [number, Vector] = [0, [0, 0, 0]];
  for (const tie of left) {
    const distance = norm(subtract(tie.at, at));
    if (distance < 1e-6) return add(at, tie.by);
    const weight = distance ** -3;
    sum += weight;
    by = add(by, scale(tie.by, weight));
  }
  // Far from every tie the fit alone counts.
  return sum === 0 ? at : add(at, scale(by, 1 / (sum + 600 ** -3)));
}
