import type { Vector } from '../maths/geometry/vector';
import { isPair, tipDistance, type SurveyReading } from './survey';

/** Rough coordinates made from the readings alone, and what they leave open. */
export interface RoughStart {
  /** Positions in axes of their own: X along the shell, Y to the right, Z as read, mm. */
  readonly positions: ReadonlyMap<string, Vector>;
  /** Points that could as well stand on the other side of the line through their neighbours. */
  readonly mirrored: readonly string[];
  /** Nothing says which way round the whole net is: it may be its own mirror image. */
  readonly handedness: 'known' | 'unknown';
  /** Points that too few readings speak of to be placed at all. */
  readonly unplaced: readonly string[];
}

export type SideOf = (id: string) => 'left' | 'right' | 'centre' | undefined;

/** Two circles that miss each other by less than this still meet, mm: readings have errors. */
const SLACK = 60;

/**
 * Rough coordinates where no chart gives any: heights as read, plan positions by circles about points
 * already placed (trilateration), begun on the longest triangle-ready pair. Which of two crossings is
 * meant is settled by a third length, else by the side the point is on, else it is named as mirrored.
 */
export function roughStart(
  ids: readonly string[],
  readings: readonly SurveyReading[],
  sideOf: SideOf,
  codeOf: (id: string) => string = (id) => id,
): RoughStart {
  const heights = heightsOf(readings);
  const links = planLinks(readings, heights);
  const placed = new Map<string, readonly [number, number]>();
  const mirrored = new Set<string>();
  const seed = seedPair(ids, links);
  if (seed) {
    placed.set(seed[0], [0, 0]);
    placed.set(seed[1], [0, links.get(seed[0])!.get(seed[1])!]);
    grow(ids, links, placed, mirrored, sideOf);
  }
  const turned = seed ? alongTheShell(placed, sideOf, codeOf) : { flat: placed, known: false };
  const known = [...heights.values()];
  const usual = known.length > 0 ? known.reduce((sum, h) => sum + h, 0) / known.length : 0;
  const positions = new Map<string, Vector>();
  for (const [id, [x, y]] of turned.flat) positions.set(id, [x, y, heights.get(id) ?? usual]);
  return {
    positions,
    mirrored: [...mirrored],
    handedness: turned.known ? 'known' : 'unknown',
    unplaced: ids.filter((id) => !positions.has(id)),
  };
}

/**
 * Rough positions of points that have none, among those that have: by circles about them, heights as read or as those
 * near by have them. A point with fewer than two lengths to placed ones is left out.
 */
export function placeAmong(
  known: ReadonlyMap<string, Vector>,
  ids: readonly string[],
  readings: readonly SurveyReading[],
  sideOf: SideOf,
): Map<string, Vector> {
  const read = heightsOf(readings);
  const heights = new Map([...[...known].map(([id, at]) => [id, at[2]] as const), ...read]);
  const placed = new Map([...known].map(([id, [x, y]]) => [id, [x, y] as const]));
  const links = planLinks(readings, heights);
  grow(ids, links, placed, new Set(), sideOf);
  return new Map(
    ids.flatMap((id) => {
      const at = known.has(id) ? undefined : placed.get(id);
      const near = [...(links.get(id)?.keys() ?? [])].flatMap((to) => heights.get(to) ?? []);
      const usual = near.length > 0 ? near.reduce((sum, z) => sum + z, 0) / near.length : 0;
      return at ? [[id, [at[0], at[1], read.get(id) ?? usual] as const] as const] : [];
    }),
  );
}

function heightsOf(readings: readonly SurveyReading[]): Map<string, number> {
  const heights = new Map<string, number>();
  for (const reading of readings)
    if (reading.kind === 'height') heights.set(reading.point, reading.value);
    else if (reading.kind === 'position' && !reading.body) heights.set(reading.point, reading.value[2]);
  return heights;
}

type Links = Map<string, Map<string, number>>;

/** Lengths in plan between points: tip distances less the rise where both heights are known. */
function planLinks(readings: readonly SurveyReading[], heights: ReadonlyMap<string, number>): Links {
  const links: Links = new Map();
  const link = (a: string, b: string, length: number) => {
    if (!links.has(a)) links.set(a, new Map());
    links.get(a)!.set(b, length);
  };
  for (const reading of readings) {
    if (!isPair(reading) || reading.kind === 'rise') continue;
    const tip = tipDistance(reading.value, reading.pointers);
    const [from, to] = [heights.get(reading.from), heights.get(reading.to)];
    const rise = reading.kind === 'plan' || from === undefined || to === undefined ? 0 : to - from;
    const length = Math.sqrt(Math.max(tip ** 2 - rise ** 2, 1));
    link(reading.from, reading.to, length);
    link(reading.to, reading.from, length);
  }
  return links;
}

/** The pair with the most points tied to both its ends. */
function seedPair(ids: readonly string[], links: Links): [string, string] | undefined {
  let best: { pair: [string, string]; shared: number } | undefined;
  for (const a of ids)
    for (const b of links.get(a)?.keys() ?? []) {
      if (b < a) continue;
      const shared = [...links.get(a)!.keys()].filter((c) => links.get(b)?.has(c)).length;
      if (!best || shared > best.shared) best = { pair: [a, b], shared };
    }
  return best?.pair;
}

/** Places point after point, the one with the most lengths to placed points first. */
function grow(
  ids: readonly string[],
  links: Links,
  placed: Map<string, readonly [number, number]>,
  mirrored: Set<string>,
  sideOf: SideOf,
): void {
  for (;;) {
    const open = ids
      .filter((id) => !placed.has(id))
      .map((id) => ({ id, ties: [...(links.get(id) ?? [])].filter(([to]) => placed.has(to)) }));
    const next = open.sort((a, b) => b.ties.length - a.ties.length)[0];
    if (!next || next.ties.length < 2) return;
    const circles = next.ties.map(([to, radius]) => ({ centre: placed.get(to)!, radius }));
    const crossings = bestCrossings(circles);
    if (!crossings) {
      links.delete(next.id);
      continue;
    }
    const misfit = ([x, y]: readonly [number, number]) =>
      circles.reduce((sum, { centre, radius }) => sum + Math.abs(Math.hypot(x - centre[0], y - centre[1]) - radius), 0);
    const [p, q] = [...crossings].sort((a, b) => misfit(a) - misfit(b));
    const clear = circles.length > 2 && misfit(q!) > 2 * misfit(p!) + SLACK;
    const bySide = clear ? undefined : onOwnSide(next.id, [p!, q!], placed, sideOf);
    if (!clear && !bySide && placed.size > 2) mirrored.add(next.id);
    placed.set(next.id, bySide ?? p!);
  }
}

interface Circle {
  readonly centre: readonly [number, number];
  readonly radius: number;
}

/** Where the two circles that cross most squarely meet. */
function bestCrossings(circles: readonly Circle[]): [readonly [number, number], readonly [number, number]] | undefined {
  let best: { points: [readonly [number, number], readonly [number, number]]; sine: number } | undefined;
  circles.forEach((a, i) =>
    circles.slice(i + 1).forEach((b) => {
      const [dx, dy] = [b.centre[0] - a.centre[0], b.centre[1] - a.centre[1]];
      const d = Math.hypot(dx, dy);
      if (d < 1 || d > a.radius + b.radius + SLACK || d < Math.abs(a.radius - b.radius) - SLACK) return;
      const along = (d ** 2 + a.radius ** 2 - b.radius ** 2) / (2 * d);
      const across = Math.sqrt(Math.max(a.radius ** 2 - along ** 2, 0));
      const at = (side: number) =>
        [
          a.centre[0] + (along * dx - side * across * dy) / d,
          a.centre[1] + (along * dy + side * across * dx) / d,
        ] as const;
      const sine = (across * d) / (a.radius * b.radius);
      if (!best || sine > best.sine) best = { points: [at(1), at(-1)], sine };
    }),
  );
  return best?.points;
}

/** The one of two places that is on the point's own side of the placed pairs, if only one is. */
function onOwnSide(
  id: string,
  places: readonly (readonly [number, number])[],
  placed: ReadonlyMap<string, readonly [number, number]>,
  sideOf: SideOf,
): readonly [number, number] | undefined {
  const side = sideOf(id);
  const mean = (wanted: string) => {
    const points = [...placed].flatMap(([each, at]) => (sideOf(each) === wanted ? [at] : []));
    return points.length === 0
      ? undefined
      : ([0, 1].map((i) => points.reduce((sum, p) => sum + p[i]! / points.length, 0)) as [number, number]);
  };
  const [left, right] = [mean('left'), mean('right')];
  if (!left || !right || (side !== 'left' && side !== 'right')) return undefined;
  const reach = ([x, y]: readonly [number, number]) =>
    (x - (left[0] + right[0]) / 2) * (right[0] - left[0]) + (y - (left[1] + right[1]) / 2) * (right[1] - left[1]);
  const own = places.filter((place) => reach(place) > 0 === (side === 'right'));
  return own.length === 1 ? own[0] : undefined;
}

/**
 * Turns the plan so that the left points lie to the left and X runs rearward. A plan and its mirror image fit the lengths
 * alike, and differ in which end is the front: that the codes tell.
 */
function alongTheShell(
  placed: ReadonlyMap<string, readonly [number, number]>,
  sideOf: SideOf,
  codeOf: (id: string) => string,
): { flat: Map<string, readonly [number, number]>; known: boolean } {
  const points = [...placed];
  const mean = (wanted: string) => {
    const own = points.filter(([id]) => sideOf(id) === wanted);
    return own.length === 0
      ? undefined
      : ([0, 1].map((i) => own.reduce((sum, [, at]) => sum + at[i]! / own.length, 0)) as [number, number]);
  };
  const [left, right] = [mean('left'), mean('right')];
  if (!left || !right) return { flat: new Map(points), known: false };
  const width = Math.hypot(right[0] - left[0], right[1] - left[1]) || 1;
  const [rx, ry] = [(right[0] - left[0]) / width, (right[1] - left[1]) / width];
  const middle = [(left[0] + right[0]) / 2, (left[1] + right[1]) / 2] as const;
  const across = (at: readonly [number, number]) => (at[0] - middle[0]) * rx + (at[1] - middle[1]) * ry;
  const along = (at: readonly [number, number]) => (at[0] - middle[0]) * ry - (at[1] - middle[1]) * rx;
  const ranks = ranksAlong(points.map(([id]) => codeOf(id)));
  const usual = ranks.reduce((sum, rank) => sum + rank, 0) / ranks.length;
  const centre = points.reduce((sum, [, at]) => sum + along(at), 0) / points.length;
  const sense = points.reduce((sum, [, at], i) => sum + (along(at) - centre) * (ranks[i]! - usual), 0);
  const forward = sense < 0 ? -1 : 1;
  const flat = points.map(([id, at]) => [id, [forward * along(at), across(at)] as const] as const);
  const first = Math.min(...flat.map(([, at]) => at[0]));
  return { flat: new Map(flat.map(([id, [x, y]]) => [id, [x - first, y] as const])), known: sense !== 0 };
}

/**
 * How far back each code says its point is: by F for front and R for rear, unless R means right there (L is used too);
 * where no letters tell, by their numbers, the lower in front.
 */
function ranksAlong(codes: readonly string[]): number[] {
  const begins = (letter: string) => codes.some((code) => code.toUpperCase().startsWith(letter));
  if (begins('R') && !begins('L')) return codes.map((code) => ({ F: -1, R: 1 })[code[0]?.toUpperCase() ?? ''] ?? 0);
  return codes.map((code) => Number(/\d+/.exec(code)?.[0] ?? 0));
}
