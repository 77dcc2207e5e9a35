import type { BinaryColumn, SolveBinary } from '../../../maths/search/binary-program';
import { byMerit, waysToBuild, type Shelf, type StackMount, type Way } from './ways';

/** What stands under each mount. */
export interface Stacks {
  /** In the order of the mounts; null where one is not built. */
  readonly ways: readonly (Way | null)[];
  readonly built: number;
  /** Pieces over all built mounts. */
  readonly pieces: number;
  /** Pieces and heads among them that would have to be made or bought. */
  readonly toGet: number;
  /** Sum of the distances of the screws from their middles, mm. */
  readonly off: number;
  /** Shown to be the best. */
  readonly proven: boolean;
}

/**
 * What to build under each mount out of one shelf: as many mounts as can be, of these with the least to make or
 * buy, of these with the fewest pieces, of these with
 * the screws nearest their middles.
 *
 * Where every mount can have the way that is best for it alone, that is the answer. Otherwise a way that is nowhere worse
 * than another of its mount makes that one needless, and of the rest a binary program chooses: one column a mount and way,
 * one row a mount and a kind that could run out; first for mounts and pieces, then, these held, for the screws.
 *
 * @param solve without it, a quick answer: ways taken in turn, the mounts with fewest first
 */
export function stack(shelf: Shelf, mounts: readonly StackMount[], solve?: SolveBinary): Stacks {
  const ways = mounts.map((mount) => waysToBuild(mount, shelf).sort(byMerit));
  const alone = ways.map(([best]) => best ?? null);
  if (isOnShelf(shelf, alone)) return stacksOf(alone, true);
  const { scarce, worthwhile } = withoutNeedless(shelf, ways);
  const quick = inTurn(shelf, worthwhile);
  if (!solve) return stacksOf(quick, false);
  return chosenBy(solve, shelf, scarce, worthwhile, quick);
}

function stacksOf(ways: readonly (Way | null)[], proven: boolean): Stacks {
  const built = ways.filter((way) => way !== null);
  return {
    ways,
    built: built.length,
    pieces: built.reduce((sum, { pieces }) => sum + pieces.length, 0),
    toGet: built.reduce((sum, { toGet }) => sum + toGet, 0),
    off: built.reduce((sum, { off }) => sum + off, 0),
    proven,
  };
}

/** How often a way uses each kind: pieces first, then heads. */
const usesOf = (shelf: Shelf, way: Way): Map<number, number> => {
  const uses = new Map([[shelf.pieces.length + way.head, 1]]);
  for (const piece of way.pieces) uses.set(piece, (uses.get(piece) ?? 0) + 1);
  return uses;
};

const countsOf = ({ pieces, heads }: Shelf): number[] => [...pieces, ...heads].map(({ count }) => count);

function isOnShelf(shelf: Shelf, ways: readonly (Way | null)[]): boolean {
  const left = countsOf(shelf);
  for (const way of ways) if (way) for (const [kind, times] of usesOf(shelf, way)) left[kind]! -= times;
  return left.every((count) => count >= 0);
}

/** The kinds that could run out, and of each mount the ways that no other one of it makes needless. */
function withoutNeedless(shelf: Shelf, ways: readonly (readonly Way[])[]) {
  const wanted = countsOf(shelf).map(() => 0);
  for (const of of ways) {
    const most = wanted.map(() => 0);
    for (const way of of) for (const [kind, times] of usesOf(shelf, way)) most[kind] = Math.max(most[kind]!, times);
    most.forEach((times, kind) => (wanted[kind]! += times));
  }
  const scarce = countsOf(shelf).flatMap((count, kind) => (wanted[kind]! > count ? [kind] : []));
  return { scarce, worthwhile: ways.map((of) => undominated(shelf, scarce, of)) };
}

function undominated(shelf: Shelf, scarce: readonly number[], ways: readonly Way[]): Way[] {
  const kept: { readonly way: Way; readonly uses: readonly number[] }[] = [];
  // Best first: what stands before is at least as good in pieces and screw.
  for (const way of ways) {
    const all = usesOf(shelf, way);
    const uses = scarce.map((kind) => all.get(kind) ?? 0);
    if (!kept.some((better) => better.uses.every((times, k) => times <= uses[k]!))) kept.push({ way, uses });
  }
  return kept.map(({ way }) => way);
}

/** Mounts in the order of how few ways they have, each given the best that is left. */
function inTurn(shelf: Shelf, ways: readonly (readonly Way[])[]): (Way | null)[] {
  const left = countsOf(shelf);
  const answer: (Way | null)[] = ways.map(() => null);
  for (const i of [...ways.keys()].sort((a, b) => ways[a]!.length - ways[b]!.length)) {
    const way = ways[i]!.find((each) => [...usesOf(shelf, each)].every(([kind, times]) => times <= left[kind]!));
    if (!way) continue;
    for (const [kind, times] of usesOf(shelf, way)) left[kind]! -= times;
    answer[i] = way;
  }
  return answer;
}

function chosenBy(
  solve: SolveBinary,
  shelf: Shelf,
  scarce: readonly number[],
  ways: readonly (readonly Way[])[],
  quick: readonly (Way | null)[],
): Stacks {
  const counts = countsOf(shelf);
  const choices = ways.flatMap((of, mount) => of.map((way) => ({ mount, way })));
  const rowOf = new Map(scarce.map((kind, k) => [kind, ways.length + k]));
  const rows = [
    ...ways.map(() => ({ least: 0, most: 1 })),
    ...scarce.map((kind) => ({ least: 0, most: counts[kind]! })),
  ];
  const column = (
    { mount, way }: (typeof choices)[number],
    cost: number,
    more: readonly (readonly [number, number])[],
  ) => {
    const used = [...usesOf(shelf, way)].flatMap(([kind, times]) =>
      rowOf.has(kind) ? [[rowOf.get(kind)!, times] as const] : [],
    );
    const cells = [[mount, 1] as const, ...used.sort(([a], [b]) => a - b), ...more.filter(([, value]) => value !== 0)];
    return { cost, rows: cells.map(([row]) => row), values: cells.map(([, value]) => value) } satisfies BinaryColumn;
  };
  const answerOf = (chosen: readonly number[]): (Way | null)[] => {
    const answer: (Way | null)[] = ways.map(() => null);
    for (const j of chosen) answer[choices[j]!.mount] = choices[j]!.way;
    return answer;
  };
  const columnsOf = (answer: readonly (Way | null)[]) =>
    choices.flatMap(({ mount, way }, j) => (answer[mount] === way ? [j] : []));

  // A piece to get outweighs all pieces there could be, and a mount more all of both.
  const longest = Math.max(0, ...choices.map(({ way }) => way.pieces.length));
  const dear = 1 + longest * ways.length;
  const weight = 1 + (dear * (longest + 1) + longest) * ways.length;
  const price = ({ way }: (typeof choices)[number]) => way.pieces.length + dear * way.toGet - weight;
  const most = solve({ rows, columns: choices.map((choice) => column(choice, price(choice), [])) }, columnsOf(quick));
  const first = most ? answerOf(most.chosen) : quick;
  const { built, pieces, toGet } = stacksOf(first, false);
  const held = [built, pieces, toGet].map((figure) => ({ least: figure, most: figure }));
  const finest = solve(
    {
      rows: [...rows, ...held],
      columns: choices.map((choice) =>
        column(choice, choice.way.off, [
          [rows.length, 1],
          [rows.length + 1, choice.way.pieces.length],
          [rows.length + 2, choice.way.toGet],
        ]),
      ),
    },
    columnsOf(first),
  );
  return stacksOf(finest ? answerOf(finest.chosen) : first, (most?.proven ?? false) && (finest?.proven ?? false));
}
