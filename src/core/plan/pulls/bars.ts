import { dot, scale, type Vector } from '../../maths/geometry/vector';
import { Symmetric } from '../../maths/linear/symmetric';
import { displaced } from '../../structure/stiffness';
import { mainAxis, movedAt } from './moves';
import type { PullModel, WantedPoint } from './pull-model';
import { loadOf, type PullAt } from './try-pull';

/** Points out the same way that lie along one line, as on a sill that was pushed in: a bar can pull at all of them at once. */
export interface PlateRow {
  /** Along the line. */
  readonly places: readonly WantedPoint[];
  /** The axis they are to move along most, and which way. */
  readonly axis: number;
  readonly way: 1 | -1;
  /** The one that has furthest to go. */
  readonly deepest: WantedPoint;
  /** How far the deepest stands in beyond the straight line through the others, mm: a bar goes through all plates once that is little. */
  readonly bow: number;
}

/** Fewer plates than this are pulled one by one. */
const LEAST = 3;
/** Plates stand on one line where they are no further off it, mm, and one bar reaches from each to the next, mm. */
const BESIDE = 160;
const REACHES = 1000;
/** So far plates may be out of line and the bar still goes through their eyes, mm. */
export const EYE = 4;

/** All rows of plates among the points that are out; no point is in two of them. */
export function plateRows({ frame, wanted }: Pick<PullModel, 'frame' | 'wanted'>): PlateRow[] {
  const out = wanted.filter(({ isOut }) => isOut);
  const at = (place: WantedPoint): Vector => frame.nodes[place.node]!.at;
  const taken = new Set<number>();
  const rows: PlateRow[] = [];
  for (const axis of [1, 2, 0])
    for (const way of [1, -1] as const) {
      // Along the car for what went sideways or up, across it for what went lengthwise.
      const run = axis === 0 ? 1 : 0;
      const beside = [0, 1, 2].filter((k) => k !== run);
      const alike = out
        .filter(({ move, node }) => !taken.has(node) && mainAxis(move) === axis && Math.sign(move[axis]!) === way)
        .toSorted((a, b) => at(a)[run]! - at(b)[run]!);
      for (const places of runsOf(alike, (a, b) => {
        const by = (k: number) => Math.abs(at(a)[k]! - at(b)[k]!);
        return beside.every((k) => by(k) < BESIDE) && by(run) < REACHES;
      })) {
        if (places.length < LEAST) continue;
        for (const { node } of places) taken.add(node);
        rows.push(rowOf(places, axis, way, (place) => at(place)[run]!));
      }
    }
  return rows;
}

/** Places in order, parted wherever one does not go with any of the last. */
function runsOf<T>(places: readonly T[], goWith: (a: T, b: T) => boolean): T[][] {
  const runs: T[][] = [];
  for (const place of places) {
    const run = runs.find((each) => goWith(each.at(-1)!, place));
    if (run) run.push(place);
    else runs.push([place]);
  }
  return runs;
}

function rowOf(
  places: readonly WantedPoint[],
  axis: number,
  way: 1 | -1,
  along: (place: WantedPoint) => number,
): PlateRow {
  const depth = ({ move }: WantedPoint) => Math.abs(move[axis]!);
  const deepest = places.reduce((most, place) => (depth(place) > depth(most) ? place : most));
  const others = places.filter((place) => place !== deepest);
  const mean = (of: (place: WantedPoint) => number) =>
    others.reduce((sum, place) => sum + of(place), 0) / others.length;
  const [x, d] = [mean(along), mean(depth)];
  const spread = others.reduce((sum, place) => sum + (along(place) - x) ** 2, 0);
  const slope = others.reduce((sum, place) => sum + (along(place) - x) * (depth(place) - d), 0) / (spread || 1);
  return { places, axis, way, deepest, bow: Math.max(0, depth(deepest) - (d + slope * (along(deepest) - x))) };
}

export const isStraight = ({ bow }: PlateRow): boolean => bow <= EYE;

/**
 * The pull of a bar through all plates of a row: the force shared so that, elastically, each plate goes as far as its place is
 * out, f = C⁻¹m with C what a unit force at one plate moves the others by; plates that would have to push take nothing.
 *
 * @returns undefined where fewer than two plates take a part
 */
export function barPull(model: Pick<PullModel, 'frame' | 'stiffness'>, row: PlateRow): PullAt | undefined {
  const { axis, way } = row;
  const direction = [0, 1, 2].map((k) => (k === axis ? way : 0)) as unknown as Vector;
  let places = row.places;
  while (places.length > 1) {
    const under = places.map(({ node }) => displaced(model.stiffness, loadOf(model, { node, direction })));
    const give = under.map((moves) => places.map(({ node }) => dot(movedAt(moves, node), direction)));
    const wants = Float64Array.from(places, ({ move }) => dot(move, direction));
    const forces = new Symmetric(places.length, Float64Array.from(give.flat())).factor()?.solve(wants);
    if (!forces) return undefined;
    const pulls = places.filter((_, i) => forces[i]! > 0);
    if (pulls.length < places.length) {
      places = pulls;
      continue;
    }
    const all = forces.reduce((sum, force) => sum + force, 0);
    const own = Math.max(0, places.indexOf(row.deepest));
    return {
      ...{ node: places[own]!.node, direction },
      plates: places.flatMap(({ node }, i) => (i === own ? [] : [{ node, share: forces[i]! / all }])),
    };
  }
  return undefined;
}

/** How far the deepest place is pulled by itself, until a bar goes through all: to the line through the others, mm along the row's axis. */
export const deepestFirst = ({ bow, axis, way }: PlateRow): Vector =>
  scale([0, 1, 2].map((k) => (k === axis ? way : 0)) as unknown as Vector, bow);
