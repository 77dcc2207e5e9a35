import { place, position, type Motion, type Vector } from '../../maths/geometry/vector';
import type { SolveBinary } from '../../maths/search/binary-program';
import type { BenchVersion, ShelfItem } from '../../shell/job/entities';
import { layBeams, type BenchFault, type Laid } from './bench';
import { insideBy } from './choose-mounts';
import { loadsOn, onOneLine } from './loads';
import { buildWithMore, type Lacking } from './stacks/shortage';
import { stack } from './stacks/stack';
import type { Shelf, StackMount, Way } from './stacks/ways';
import type { ShellWeight } from './weight';

/** A place the shell is to stand on: chart axes, mm. */
export interface PlannedMount {
  readonly id: string;
  readonly at: Vector;
  readonly holeDiameter: number | null;
  /** The hole its beam is held at by hand. */
  readonly hole: number | null;
  /** How far the floor under it stands over the floor's plane, mm. */
  readonly floor?: number;
  /** What it was built of. */
  readonly standing?: Standing;
}

/** What stands under a mount already: kinds of heads and pieces by their identities. */
export interface Standing {
  readonly headId: string;
  /** From the beam up. */
  readonly pieceIds: readonly string[];
}

export interface OnBench {
  readonly version: BenchVersion;
  readonly items: readonly ShelfItem[];
  readonly placement: Motion<'chart', 'bench'>;
}

/** What stands under a mount. */
export interface BuiltMount {
  readonly id: string;
  /** Bench axes, mm. */
  readonly x: number;
  readonly side: number;
  /** From the beam's top, or from the floor, to the point. */
  readonly height: number;
  readonly hole?: number;
  readonly offset?: number;
  readonly headId?: string;
  /** From the beam up. */
  readonly pieceIds?: readonly string[];
  readonly lift?: number;
  /** Share of the weight while the shell stands on the first mounts alone, kg. */
  readonly kilograms?: number;
}

export type SetUpFault =
  | BenchFault
  /** No head on the shelf fits the hole. */
  | { readonly kind: 'noHead'; readonly id: string; readonly diameter: number }
  /** Nothing on the shelf reaches it. */
  | { readonly kind: 'notBuilt'; readonly id: string; readonly height: number }
  /** What stands there is so much too tall (+) or too short (−) for its screw, mm. */
  | { readonly kind: 'builtOff'; readonly id: string; readonly by: number }
  | { readonly kind: 'onLine' }
  /** The weight stands so far outside of the mounts, mm. */
  | { readonly kind: 'tips'; readonly by: number }
  | { readonly kind: 'overloaded'; readonly id: string; readonly kilograms: number; readonly rating: number }
  | { readonly kind: 'emptyShelf' };

export interface Built {
  readonly mounts: readonly BuiltMount[];
  readonly faults: readonly SetUpFault[];
  readonly lacking: readonly Lacking[];
  /** Shown to be the best, in what is built and in what the shelf lacks. */
  readonly proven: boolean;
  readonly beams: readonly number[];
}

/** Kinds of benches with beams at holes of a rail. */
export const hasBeams = ({ beams, rails }: Pick<BenchVersion, 'beams' | 'rails'>): boolean => beams > 0 && rails > 0;

const MOST_PIECES = 4;
/** Loads are told for the mounts the shell is first lowered on: of more, statics cannot tell. */
const FIRST = 4;

/** Binary programs that one set-up takes at most: two for what the shelf builds, and two for what it lacks. */
export const MOST_PROGRAMS = 4;

/**
 * What to build under each mount, for all together, with what stands in the way; loads on the first mounts. What stands
 * already stays, and its pieces are not on the shelf any more.
 *
 * @param solve without it, a quick answer: unproven where the best way of each alone takes more than the shelf has
 */
export function buildSetUp(
  { version, items, placement }: OnBench,
  mounts: readonly PlannedMount[],
  weight: ShellWeight,
  solve?: SolveBinary,
): Built {
  const onBench = (at: Vector) => place(placement, position<'chart'>(at));
  const places = mounts.map(({ id, at }) => {
    const [x, y, z] = onBench(at);
    return { id, x, y, z };
  });
  const centre = onBench(weight.centre);
  const beams = hasBeams(version);
  const held = new Map(mounts.flatMap(({ id, hole }) => (hole === null ? [] : [[id, hole] as const])));
  const laid: Laid = beams ? layBeams(version, places, held) : { mounts: [], faults: [] };
  const heads = items.filter(({ kind }) => kind !== 'piece');
  const pieces = items.filter(({ kind }) => kind === 'piece');
  const stood = standingOn(mounts, items);
  const left = <Item extends ShelfItem>(item: Item): Item => ({
    ...item,
    count: item.count - (stood.used.get(item.id) ?? 0),
  });
  const shelf: Shelf = {
    pieces: pieces.map(left),
    heads: heads.map((head) => ({ ...left(head), adjust: head.travel })),
  };
  const wanted = mounts.map(({ id, holeDiameter, floor = 0 }, i): StackMount => ({
    id,
    height: places[i]!.z - version.beamTop - (beams ? 0 : floor),
    heads: heads.filter((head) => fits(head, holeDiameter)).map((head) => head.id),
    most: MOST_PIECES,
  }));
  const open = wanted.filter(({ id }) => !stood.of.has(id));
  const first = stack(shelf, open, solve);
  const short = first.built < open.length;
  const more = short ? buildWithMore(shelf, open, solve) : undefined;
  const ways = new Map(open.map(({ id }, i) => [id, first.ways[i]!]));
  const kilograms = loadOf(places.slice(0, FIRST), weight.kilograms, centre);
  const built = mounts.map((mount, i): BuiltMount => {
    const on = laid.mounts.find(({ id }) => id === mount.id);
    const way = ways.get(mount.id);
    const own = stood.of.get(mount.id);
    return {
      id: mount.id,
      x: places[i]!.x,
      side: places[i]!.y,
      height: wanted[i]!.height,
      ...(on ? { hole: on.hole, offset: on.offset } : {}),
      ...(way ? stackOf(shelf, way) : {}),
      ...(own ? { ...own, lift: liftOf(own, wanted[i]!.height, items) } : {}),
      ...(kilograms?.[i] === undefined ? {} : { kilograms: kilograms[i]! }),
    };
  });
  const faults: SetUpFault[] = [
    ...(items.length === 0 && mounts.length > 0 ? [{ kind: 'emptyShelf' } as const] : []),
    ...laid.faults,
    ...builtOff(built, stood.of, items),
    ...unbuilt(mounts, wanted, built, items.length > 0),
    ...overloaded(built, items),
    ...standing(places, centre),
  ];
  const holes = [...new Set(laid.mounts.map(({ hole }) => hole))].sort((a, b) => a - b);
  const proven = first.proven && (more?.stacks.proven ?? true);
  return { mounts: built, faults, lacking: more?.lacking ?? [], proven, beams: holes };
}

/** What stands under mounts, of pieces of this bench, and how many of each are in use so. */
function standingOn(mounts: readonly PlannedMount[], items: readonly ShelfItem[]) {
  const known = new Set(items.map(({ id }) => id));
  const of = new Map(
    mounts.flatMap(({ id, standing }): [string, Standing][] =>
      standing && [standing.headId, ...standing.pieceIds].every((each) => known.has(each)) ? [[id, standing]] : [],
    ),
  );
  const used = new Map<string, number>();
  for (const { headId, pieceIds } of of.values())
    for (const each of [headId, ...pieceIds]) used.set(each, (used.get(each) ?? 0) + 1);
  return { of, used };
}

/** How far the screw of what stands is to be turned out so that the head is where its mount is, mm. */
function liftOf({ headId, pieceIds }: Standing, height: number, items: readonly ShelfItem[]): number {
  const tall = new Map(items.map((item) => [item.id, item.height]));
  return [headId, ...pieceIds].reduce((left, id) => left - tall.get(id)!, height);
}

/** A screw that is turned out just so far does, mm. */
const AS_FAR = 0.05;

const builtOff = (
  built: readonly BuiltMount[],
  standing: ReadonlyMap<string, Standing>,
  items: readonly ShelfItem[],
): SetUpFault[] =>
  built.flatMap(({ id, headId, lift }): SetUpFault[] => {
    if (!standing.has(id)) return [];
    const { travel } = items.find((item) => item.id === headId)!;
    const by = lift! < 0 ? -lift! : travel - lift!;
    return lift! < -AS_FAR || lift! > travel + AS_FAR ? [{ kind: 'builtOff', id, by }] : [];
  });

const fits = ({ fitsLeast, fitsMost }: ShelfItem, diameter: number | null): boolean =>
  diameter === null || ((fitsLeast ?? 0) <= diameter && diameter <= (fitsMost ?? Infinity));

const stackOf = (shelf: Shelf, way: Way) => ({
  headId: shelf.heads[way.head]!.id,
  pieceIds: way.pieces.map((piece) => shelf.pieces[piece]!.id),
  lift: way.lift,
});

type Place = { readonly x: number; readonly y: number };

function loadOf(places: readonly Place[], kilograms: number, [x, y]: Vector): number[] | undefined {
  const loads = loadsOn(
    places.map((each) => ({ ...each, height: 0 })),
    { kilograms, x, y },
  );
  const all = loads?.newtons.reduce((sum, newtons) => sum + newtons, 0) ?? 1;
  return loads?.newtons.map((newtons) => (newtons / all) * kilograms);
}

function unbuilt(
  mounts: readonly PlannedMount[],
  wanted: readonly StackMount[],
  built: readonly BuiltMount[],
  shelved: boolean,
): SetUpFault[] {
  if (!shelved) return [];
  return mounts.flatMap(({ id, holeDiameter }, i): SetUpFault[] => {
    if (built[i]!.headId !== undefined) return [];
    if (wanted[i]!.heads.length === 0 && holeDiameter !== null) return [{ kind: 'noHead', id, diameter: holeDiameter }];
    return [{ kind: 'notBuilt', id, height: wanted[i]!.height }];
  });
}

function overloaded(built: readonly BuiltMount[], items: readonly ShelfItem[]): SetUpFault[] {
  return built.flatMap(({ id, headId, kilograms }): SetUpFault[] => {
    const rating = items.find((item) => item.id === headId)?.rating;
    return rating && kilograms !== undefined && kilograms > rating
      ? [{ kind: 'overloaded', id, kilograms, rating }]
      : [];
  });
}

/** Whether the shell stands at all on its first mounts. */
function standing(places: readonly Place[], centre: Vector): SetUpFault[] {
  const first = places.slice(0, FIRST);
  if (first.length < 3) return [];
  if (onOneLine(first)) return [{ kind: 'onLine' }];
  const outside = -insideBy(first, centre);
  return outside > 0 ? [{ kind: 'tips', by: outside }] : [];
}
