import { scale, type Vector } from '../maths/geometry/vector';
import type { BodyPicture } from '../shell/bodies/body';
import type { Side } from '../shell/job/entities';

/** Each axis as a stretch and a shift; the width is only stretched, since its zero is the middle. */
export type Axes = readonly [Line, Line, Line];
interface Line {
  readonly stretch: number;
  readonly shift: number;
}

/** A point of the shell and its place on the picture, where one was chosen. */
interface Standing {
  readonly side: Side;
  readonly place: string;
  readonly at: Vector;
}

/** Points on all of a shell leave no axis longer or shorter than the picture, as large as it is thought to be, by more than this. */
const WHOLE = 1.25;
/** Sizes that are tried where they do not. */
const SIZES = [0.88, 0.94, 1, 1.06, 1.12] as const;
/** How far apart the places are that are tried, mm. */
const STEP = 80;
/** How far outside the picture a point may stand, mm. */
const OUTSIDE = 200;
/** How far a shell's points stand from the picture's places, one standard deviation, mm. */
const OWN_SHAPE = 90;
/** A point farther than so many of those from every place stands at none of them. */
const AT_NONE = 3;
/** How much longer, wider or higher a shell is than it is thought to be, one standard deviation, a share. */
const OWN_SIZE = 0.08;
/** So many of the best are looked at more closely, in so many turns. */
const CLOSER = 8;
const TURNS = 10;

/** A known point and the places it may stand at: the one chosen, else all of its side; three coordinates of the picture each. */
interface Reach {
  readonly at: Vector;
  readonly isChosen: boolean;
  readonly places: Float64Array;
}

export const alongAxes =
  (axes: Axes) =>
  (at: Vector): Vector =>
    [0, 1, 2].map((k) => axes[k]!.stretch * at[k]! + axes[k]!.shift) as unknown as Vector;

/**
 * Where the picture of a body stands on points that are not all chosen on it: so that boxes agree, where the points are on all of
 * the shell; else where most points stand at a place of the picture, which is then about as large as it is thought to be. That is
 * found by trying: sizes, and places along and up; the best few are brought closer, each to the places its points stand nearest
 * to. The measure is Σ min(d²/σ², 3²) over the points, d from the nearest place of the same side or all of it from the one chosen,
 * and what each stretch is off, squared by its own variance.
 *
 * @param known four or more points
 * @param rough where the picture stands before any point is looked at: each axis by a typed measure, or as it is drawn
 */
export function startOnBody(picture: BodyPicture, known: readonly Standing[], rough: (at: Vector) => Vector): Axes {
  const boxes = boxesAgree(picture, known);
  const size = rough([1, 1, 1]);
  const isWhole = boxes.every(({ stretch }, k) => Math.abs(Math.log(stretch / size[k]!)) < Math.log(WHOLE));
  if (isWhole) return boxes;
  const reaches = known.map((point) => reachOf(point, picture));
  const judged = (axes: Axes) => ({ axes, misfit: misfitOf(axes, reaches, size) });
  const tried = SIZES.flatMap((by) => shiftsOf(picture, known, scale(size, by))).map(judged);
  const best = tried.toSorted((a, b) => a.misfit - b.misfit).slice(0, CLOSER);
  return [judged(boxes), ...best]
    .map(({ axes }) => judged(broughtCloser(axes, reaches, size)))
    .reduce((kept, each) => (each.misfit < kept.misfit ? each : kept)).axes;
}

function reachOf({ side, place, at }: Standing, { places }: BodyPicture): Reach {
  const chosen = places.filter(({ code }) => code === place);
  const within = chosen.length > 0 ? chosen : places.filter((each) => each.side === side);
  return { at, isChosen: chosen.length > 0, places: Float64Array.from(within.flatMap((each) => [...each.at])) };
}

function boxesAgree({ places }: BodyPicture, known: readonly Standing[]): Axes {
  const line = (k: 0 | 2): Line => {
    const [[a, b], [c, d]] = [rangeOf(places, k), rangeOf(known, k)];
    const stretch = (d - c) / (b - a);
    return { stretch, shift: c - stretch * a };
  };
  const widest = (list: readonly { readonly at: Vector }[]) => Math.max(...list.map(({ at }) => Math.abs(at[1])));
  return [line(0), { stretch: widest(known) / widest(places), shift: 0 }, line(2)];
}

const rangeOf = (list: readonly { readonly at: Vector }[], k: 0 | 2): readonly [number, number] => {
  const along = list.map(({ at }) => at[k]);
  return [Math.min(...along), Math.max(...along)];
};

/** Everywhere the picture may stand in one size so that the points stand on it. */
function shiftsOf({ places }: BodyPicture, known: readonly Standing[], stretch: Vector): Axes[] {
  const shifts = (k: 0 | 2): number[] => {
    const [[a, b], [c, d]] = [rangeOf(places, k), rangeOf(known, k)];
    const [least, most] = [d - stretch[k] * b - OUTSIDE, c - stretch[k] * a + OUTSIDE];
    if (most < least) return [(least + most) / 2];
    const count = Math.ceil((most - least) / STEP);
    return Array.from({ length: count + 1 }, (_, i) => least + (i * (most - least)) / Math.max(1, count));
  };
  const up = shifts(2);
  return shifts(0).flatMap((x) =>
    up.map((z): Axes => [
      { stretch: stretch[0], shift: x },
      { stretch: stretch[1], shift: 0 },
      { stretch: stretch[2], shift: z },
    ]),
  );
}

const offSize = (axes: Axes, size: Vector): number =>
  axes.reduce((sum, { stretch }, k) => sum + (Math.log(stretch / size[k]!) / OWN_SIZE) ** 2, 0);

function misfitOf(axes: Axes, reaches: readonly Reach[], size: Vector): number {
  let sum = offSize(axes, size);
  for (const reach of reaches) {
    const off = nearestIn(reach, axes).squared / OWN_SHAPE ** 2;
    sum += reach.isChosen ? off : Math.min(off, AT_NONE ** 2);
  }
  return sum;
}

/** The place that a point stands nearest to, and how far squared, mm². */
function nearestIn({ at, places }: Reach, [x, y, z]: Axes): { readonly index: number; readonly squared: number } {
  let [index, squared] = [-1, Infinity];
  for (let i = 0; i < places.length; i += 3) {
    const dx = x.stretch * places[i]! + x.shift - at[0];
    const dy = y.stretch * places[i + 1]! + y.shift - at[1];
    const dz = z.stretch * places[i + 2]! + z.shift - at[2];
    const far = dx * dx + dy * dy + dz * dz;
    if (far < squared) [index, squared] = [i, far];
  }
  return { index, squared };
}

/** Each axis anew by least squares over the places that points stand near, its stretch being held to what it is thought to be. */
function broughtCloser(from: Axes, reaches: readonly Reach[], size: Vector): Axes {
  let axes = from;
  for (let turn = 0; turn < TURNS; turn++) {
    const pairs = reaches.flatMap((reach): (readonly [Vector, Vector])[] => {
      const { index, squared } = nearestIn(reach, axes);
      const isNear = index >= 0 && (reach.isChosen || squared < (AT_NONE * OWN_SHAPE) ** 2);
      return isNear ? [[reach.places.subarray(index, index + 3) as unknown as Vector, reach.at]] : [];
    });
    if (pairs.length < 2) return axes;
    axes = [lineThrough(pairs, 0, size), lineThrough(pairs, 1, size), lineThrough(pairs, 2, size)];
  }
  return axes;
}

function lineThrough(pairs: readonly (readonly [Vector, Vector])[], k: 0 | 1 | 2, size: Vector): Line {
  const mean = (i: 0 | 1) => (k === 1 ? 0 : pairs.reduce((sum, pair) => sum + pair[i][k], 0) / pairs.length);
  const [a0, b0] = [mean(0), mean(1)];
  const held = (OWN_SHAPE / (OWN_SIZE * size[k])) ** 2;
  let [sab, saa] = [held * size[k], held];
  for (const [a, b] of pairs) {
    sab += (a[k] - a0) * (b[k] - b0);
    saa += (a[k] - a0) ** 2;
  }
  const stretch = sab / saa;
  return { stretch, shift: b0 - stretch * a0 };
}
