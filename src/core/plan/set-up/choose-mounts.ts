import type { Vector } from '../../maths/geometry/vector';
import type { Proposal } from '../proposal';
import { onOneLine } from './loads';
import type { Extent, ShellWeight } from './weight';

/** A point the shell could stand on. Chart axes, mm. */
export interface MountCandidate {
  readonly id: string;
  readonly at: Vector;
  /** Why it is better not stood on; empty where nothing speaks against it. */
  readonly against: readonly Against[];
}

export type Against = 'rust' | 'moved' | 'toBeCut' | 'suspension' | 'gone' | 'buried';

/** Seen from above: how far the shell swings at its worst corner for a millimetre at a mount, and what each carries. */
export interface MountSet {
  readonly ids: readonly string[];
  /** Worst standard deviation of a corner of the shell for 1 mm of each mount's. */
  readonly leverage: number;
  /** kg on each, in the order of the ids. */
  readonly kilograms: readonly number[];
  /** How far inside of them the weight stands, mm. */
  readonly inside: number;
}

export type WhyMounts =
  | { readonly kind: 'spread'; readonly leverage: number; readonly length: number; readonly width: number }
  | { readonly kind: 'load'; readonly least: number; readonly most: number }
  | { readonly kind: 'inside'; readonly margin: number }
  /** What it has before the next set: less swing, by so many per cent; a more even load, by so many kg. */
  | { readonly kind: 'steadier'; readonly percent: number }
  | { readonly kind: 'evener'; readonly kilograms: number };

export type MountProposal = Proposal<MountSet, WhyMounts>;

/** The weight stands at least so far inside, mm: a shell is leant upon. */
const LEAST_INSIDE = 150;
/** Sets whose swing differs by less are as good, as a share. */
const AS_GOOD = 0.03;
const MINUTES_A_MOUNT = 8;

interface Shell {
  readonly extent: Extent;
  readonly weight: ShellWeight;
}

/**
 * Sets of mounts to lower the shell on first, best first. Refused are points that something speaks against, sets on one
 * line and sets the weight does not stand well inside of. The rest are ranked by how steady they hold: a mount's height and
 * place are known with some standard deviation, and the corner of the shell that swings most for it counts (least-squares
 * plane and plane motion through the mounts); as good ones by how evenly they carry.
 *
 * @param count mounts of a set: 3 or 4
 * @param most  sets wanted
 */
export function chooseMounts(
  candidates: readonly MountCandidate[],
  shell: Shell,
  count: 3 | 4,
  most: number,
): MountProposal[] {
  const sound = candidates.filter(({ against }) => against.length === 0);
  // A set and its mirror image are one proposal: the first stands for both.
  const found = steadiest(sound, shell, count, 2 * most + 1);
  const uneven = ({ kilograms }: MountSet) => Math.max(...kilograms) - Math.min(...kilograms);
  const best = found[0]?.leverage ?? 0;
  const level = ({ leverage }: MountSet) => Math.floor(Math.log(leverage / best) / Math.log(1 + AS_GOOD) + 1e-9);
  found.sort((a, b) => level(a) - level(b) || uneven(a) - uneven(b) || a.leverage - b.leverage);
  const at = new Map(sound.map((each) => [each.id, each.at]));
  const sets = withoutMirrored(found, at);
  return sets.slice(0, most).map((set, i) => proposalOf(set, at, sets[i + 1], uneven));
}

/** Places nearer than this are each other's mirror image, mm. */
const MIRRORED = 10;

function withoutMirrored(sets: readonly MountSet[], at: ReadonlyMap<string, Vector>): MountSet[] {
  const outline = ({ ids }: MountSet, side: 1 | -1) =>
    ids
      .map((id) => at.get(id)!)
      .map(([x, y]) => `${Math.round(x / MIRRORED)} ${Math.round((side * y) / MIRRORED) || 0}`)
      .sort()
      .join();
  const seen = new Set<string>();
  return sets.filter((set) => {
    if (seen.has(outline(set, -1))) return false;
    seen.add(outline(set, 1));
    return true;
  });
}

/** So many sets the shell would stand on, the steadiest first, and all that are about as steady as the last of them. */
function steadiest(
  sound: readonly MountCandidate[],
  { extent, weight }: Shell,
  count: 3 | 4,
  wanted: number,
): MountSet[] {
  const all: { readonly leverage: number; readonly chosen: readonly number[] }[] = [];
  const places = sound.map(({ at: [x, y] }) => ({ x, y }));
  const choose = (from: number, chosen: readonly number[]) => {
    if (chosen.length === count)
      return void all.push({
        leverage: leverageOf(
          chosen.map((i) => places[i]!),
          extent,
        ),
        chosen,
      });
    for (let i = from; i < sound.length; i++) choose(i + 1, [...chosen, i]);
  };
  choose(0, []);
  all.sort((a, b) => a.leverage - b.leverage);
  const sets: MountSet[] = [];
  let end = Infinity;
  for (const { leverage, chosen } of all) {
    if (!(leverage <= end)) break;
    const set = setOf(
      chosen.map((i) => sound[i]!),
      extent,
      weight,
    );
    if (set && sets.push(set) === wanted) end = leverage * (1 + AS_GOOD);
  }
  return sets;
}

function proposalOf(
  what: MountSet,
  at: ReadonlyMap<string, Vector>,
  next: MountSet | undefined,
  uneven: (set: MountSet) => number,
): MountProposal {
  const places = what.ids.map((id) => at.get(id)!);
  const range = (axis: 0 | 1) => {
    const values = places.map((place) => place[axis]);
    return Math.max(...values) - Math.min(...values);
  };
  const percent = next ? Math.round(100 * (next.leverage / what.leverage - 1)) : 0;
  const evener = next ? Math.round(uneven(next) - uneven(what)) : 0;
  return {
    what,
    cost: { minutes: what.ids.length * MINUTES_A_MOUNT },
    gain: { before: Infinity, after: what.leverage },
    why: [
      { kind: 'spread', leverage: what.leverage, length: range(0), width: range(1) },
      { kind: 'load', least: Math.min(...what.kilograms), most: Math.max(...what.kilograms) },
      { kind: 'inside', margin: what.inside },
      ...(percent >= 1 ? [{ kind: 'steadier', percent } as const] : []),
      ...(evener >= 1 ? [{ kind: 'evener', kilograms: evener } as const] : []),
    ],
  };
}

/** A set with its figures; undefined where the shell would not stand on all of it. */
export function setOf(
  mounts: readonly Pick<MountCandidate, 'id' | 'at'>[],
  extent: Extent,
  weight: ShellWeight,
): MountSet | undefined {
  const places = mounts.map(({ at: [x, y] }) => ({ x, y }));
  if (onOneLine(places)) return undefined;
  const inside = insideBy(places, weight.centre);
  if (inside < LEAST_INSIDE) return undefined;
  const plane = planeThrough(places);
  const [x, y] = weight.centre;
  // Equal springs under a rigid shell: forces as a plane over the mounts that balances the weight and its moments.
  const kilograms = places.map((mount) => weight.kilograms * plane.between(mount, { x, y }));
  if (kilograms.some((load) => load <= 0)) return undefined;
  return { ids: mounts.map(({ id }) => id), leverage: leverageOf(places, extent), kilograms, inside };
}

/** The mounts after the first: each the one that steadies the shell most with those before it. */
export function orderOfOthers(
  first: readonly MountCandidate[],
  others: readonly MountCandidate[],
  extent: Extent,
): MountCandidate[] {
  const seatsOf = (mounts: readonly MountCandidate[]) => mounts.map(({ at: [x, y] }) => ({ x, y }));
  const left = others.filter(({ against }) => against.length === 0);
  const order: MountCandidate[] = [];
  while (left.length > 0) {
    const swing = left.map((each) => leverageOf(seatsOf([...first, ...order, each]), extent));
    order.push(...left.splice(swing.indexOf(Math.min(...swing)), 1));
  }
  return order;
}

type Place = { readonly x: number; readonly y: number };

/**
 * A plane a + b·x + c·y by least squares through places: `between(p, q)` is [1 p]·N⁻¹·[1 q]ᵀ, the covariance of its heights
 * at p and q for unit variance at each place, and as well the share of a load at q that falls on a place p.
 */
function planeThrough(places: readonly Place[]) {
  const n = places.length;
  const x = places.reduce((sum, place) => sum + place.x, 0) / n;
  const y = places.reduce((sum, place) => sum + place.y, 0) / n;
  let [xx, xy, yy] = [0, 0, 0];
  for (const place of places) {
    xx += (place.x - x) ** 2;
    xy += (place.x - x) * (place.y - y);
    yy += (place.y - y) ** 2;
  }
  const determinant = xx * yy - xy ** 2;
  const between = (p: Place, q: Place) =>
    1 / n +
    ((p.x - x) * (yy * (q.x - x) - xy * (q.y - y)) + (p.y - y) * (xx * (q.y - y) - xy * (q.x - x))) / determinant;
  return { x, y, spread: xx + yy, onLine: determinant <= 1e-9 * (xx + yy) ** 2, between };
}

/**
 * Worst standard deviation of a corner of the shell, all axes together, for 1 mm on each axis of each mount: a plane
 * through the heights, and a shift with a turn in the plane.
 */
export function leverageOf(mounts: readonly Place[], { from, to }: Extent): number {
  const plane = planeThrough(mounts);
  if (plane.onLine) return Infinity;
  const corners = [from[0], to[0]].flatMap((x) => [from[1], to[1]].map((y) => ({ x, y })));
  return Math.max(
    ...corners.map((corner) => {
      const turn = ((corner.x - plane.x) ** 2 + (corner.y - plane.y) ** 2) / plane.spread;
      return Math.sqrt(plane.between(corner, corner) + 2 / mounts.length + turn);
    }),
  );
}

/** How far inside the outline of some places another stands, mm; negative where it is outside. */
export function insideBy(places: readonly Place[], [x, y]: Vector): number {
  const outline = hull(places);
  return Math.min(
    ...outline.map((a, i) => {
      const b = outline[(i + 1) % outline.length]!;
      return ((b.x - a.x) * (y - a.y) - (b.y - a.y) * (x - a.x)) / Math.hypot(b.x - a.x, b.y - a.y);
    }),
  );
}

/** Convex hull, counter-clockwise (monotone chain, Andrew 1979). */
function hull(places: readonly Place[]): Place[] {
  const sorted = [...places].sort((a, b) => a.x - b.x || a.y - b.y);
  const turn = (a: Place, b: Place, c: Place) => (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
  const half = (list: readonly Place[]) => {
    const chain: Place[] = [];
    for (const place of list) {
      while (chain.length > 1 && turn(chain.at(-2)!, chain.at(-1)!, place) <= 0) chain.pop();
      chain.push(place);
    }
    return chain.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.toReversed())];
}
