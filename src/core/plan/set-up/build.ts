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
  | { readonly kind: 'onLine' }
  /** The weight stands so far outside of the mounts, mm. */
  | { readonly kind: 'tips'; readonly by: number }
  | { readonly kind: 'overloaded'; readonly id: string; readonly kilograms: number; readonly rating: number }
  | { readonly kind: 'emptyShelf' };

export interface Built {
  readonly mounts: readonly BuiltMount[];
  readonly faults: readonly SetUpFault[];
  readonly lacking: readonly Lacking[];
  /** Shown to be the best. */
  readonly proven: boolean;
  readonly beams: readonly number[];
}

/** Kinds of benches with beams at holes of a rail. */
export const hasBeams = ({ beams, rails }: Pick<BenchVersion, 'beams' | 'rails'>): boolean => beams > 0 && rails > 0;

const MOST_PIECES = 4;
/** Loads are told for the mounts the shell is first lowered on: of more, statics cannot tell. */
const FIRST = 4;

/** What to build under each mount, for all together, with what stands in the way; loads on the first mounts. */
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
  const shelf: Shelf = { pieces, heads: heads.map((head) => ({ ...head, adjust: head.travel })) };
  const wanted = mounts.map(({ id, holeDiameter, floor = 0 }, i): StackMount => ({
    id,
    height: places[i]!.z - version.beamTop - (beams ? 0 : floor),
    heads: heads.filter((head) => fits(head, holeDiameter)).map((head) => head.id),
    most: MOST_PIECES,
  }));
  const first = stack(shelf, wanted, solve);
  const short = first.built < mounts.length;
  const more = short ? buildWithMore(shelf, wanted, solve) : undefined;
  const kilograms = loadOf(places.slice(0, FIRST), weight.kilograms, centre);
  const built = mounts.map((mount, i): BuiltMount => {
    const on = laid.mounts.find(({ id }) => id === mount.id);
    const way = first.ways[i];
    return {
      id: mount.id,
      x: places[i]!.x,
      side: places[i]!.y,
      height: wanted[i]!.height,
      ...(on ? { hole: on.hole, offset: on.offset } : {}),
      ...(way ? stackOf(shelf, way) : {}),
      ...(kilograms?.[i] === undefined ? {} : { kilograms: kilograms[i]! }),
    };
  });
  const faults: SetUpFault[] = [
    ...(items.length === 0 && mounts.length > 0 ? [{ kind: 'emptyShelf' } as const] : []),
    ...laid.faults,
    ...unbuilt(mounts, wanted, first.ways, items.length > 0),
    ...overloaded(built, items),
    ...standing(places, centre),
  ];
  const holes = [...new Set(laid.mounts.map(({ hole }) => hole))].sort((a, b) => a - b);
  return { mounts: built, faults, lacking: more?.lacking ?? [], proven: first.proven, beams: holes };
}

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
  ways: readonly (Way | null)[],
  shelved: boolean,
): SetUpFault[] {
  if (!shelved) return [];
  return mounts.flatMap(({ id, holeDiameter }, i): SetUpFault[] => {
    if (ways[i]) return [];
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
