import { grouped } from '../../../maths/grouped';
import type { SolveBinary } from '../../../maths/search/binary-program';
import { stack, type Stacks } from './stack';
import type { Shelf, ShelfHead, ShelfPiece, StackMount } from './ways';

/** Something the shelf lacks, and for which mounts. */
export interface Lacking {
  readonly kind: 'piece' | 'head';
  /** The shelf has it already, but too few; absent where it is a height of its own. */
  readonly id?: string;
  readonly height: number;
  readonly count: number;
  readonly mounts: readonly string[];
}

export interface WithMore {
  readonly shelf: Shelf;
  readonly stacks: Stacks;
  readonly lacking: readonly Lacking[];
}

/**
 * The fewest pieces to make or buy so that all mounts can be built, with what is then built: more of every height the shelf
 * has, and for each mount one tower that alone brings its screw to the middle, in whole millimetres. One that frees a
 * piece for another mount counts once.
 */
export function buildWithMore(shelf: Shelf, mounts: readonly StackMount[], solve?: SolveBinary): WithMore {
  const more = <T extends ShelfPiece>(piece: T, id = piece.id): T => ({
    ...piece,
    id: `${id} more`,
    count: mounts.length * 4,
    toGet: true,
  });
  const own = mounts.flatMap((mount) =>
    shelf.heads.flatMap((head) => {
      const height = Math.round(mount.height - head.height - head.adjust / 2);
      return mount.heads.includes(head.id) && height > 0 ? [height] : [];
    }),
  );
  const heights = [...new Set(own)].filter((height) => !shelf.pieces.some((piece) => piece.height === height));
  const widened: Shelf = {
    pieces: [
      ...shelf.pieces,
      ...shelf.pieces.map((piece) => more(piece)),
      ...heights.map((height) => more({ id: `${height}`, height, count: 0 })),
    ],
    heads: [...shelf.heads, ...shelf.heads.map((head): ShelfHead => more(head))],
  };
  const wanting = mounts.map((mount) => ({ ...mount, heads: mount.heads.flatMap((id) => [id, `${id} more`]) }));
  const stacks = stack(widened, wanting, solve);
  return { shelf: widened, stacks, lacking: lackingOf(shelf, widened, mounts, stacks) };
}

function lackingOf(shelf: Shelf, widened: Shelf, mounts: readonly StackMount[], { ways }: Stacks): Lacking[] {
  const got = ways.flatMap((way, i) => {
    const each = way
      ? [...way.pieces.map((k) => ['piece', widened.pieces[k]!] as const), ['head', widened.heads[way.head]!] as const]
      : [];
    return each.flatMap(([kind, piece]) => (piece.toGet ? [{ kind, piece, mount: mounts[i]!.id }] : []));
  });
  return [...grouped(got, ({ kind, piece }) => `${kind} ${piece.id}`).values()].map((of): Lacking => {
    const { kind, piece } = of[0]!;
    const id = piece.id.replace(/ more$/, '');
    const known = (kind === 'piece' ? shelf.pieces : shelf.heads).some((each) => each.id === id);
    return {
      kind,
      ...(known ? { id } : {}),
      height: piece.height,
      count: of.length,
      mounts: [...new Set(of.map(({ mount }) => mount))],
    };
  });
}
