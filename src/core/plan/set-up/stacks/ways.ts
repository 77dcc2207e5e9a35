/** Towers or spacers of one height on the shelf, mm. */
export interface ShelfPiece {
  readonly id: string;
  readonly height: number;
  readonly count: number;
  /** Not on the shelf: it would have to be made or bought. */
  readonly toGet?: boolean;
}

/** Heads of one kind on the shelf; their screw lifts by 0 … `adjust` mm. */
export interface ShelfHead extends ShelfPiece {
  readonly adjust: number;
}

export interface Shelf {
  readonly pieces: readonly ShelfPiece[];
  readonly heads: readonly ShelfHead[];
}

/** A place a stack is wanted at. */
export interface StackMount {
  readonly id: string;
  /** From the beam's top face to the point, mm. */
  readonly height: number;
  /** Kinds of heads that fit its hole. */
  readonly heads: readonly string[];
  /** Pieces in its stack, the head not counted. */
  readonly most: number;
}

/** One way of building a mount: indices into the shelf, tallest piece first. */
export interface Way {
  readonly head: number;
  readonly pieces: readonly number[];
  /** Pieces and heads of it that would have to be made or bought. */
  readonly toGet: number;
  /** How far the screw is turned out, mm. */
  readonly lift: number;
  /** How far the screw stands from its middle, mm. */
  readonly off: number;
}

/** A height just reached counts as reached, mm. */
const FORGIVEN = 1e-9;

/** All ways of building a mount out of a shelf that nobody else uses: every multiset of pieces whose lift the screw has. */
export function waysToBuild(mount: StackMount, { pieces, heads }: Shelf): Way[] {
  const tallest = [...pieces.keys()].sort((a, b) => pieces[b]!.height - pieces[a]!.height);
  const ways: Way[] = [];
  for (const head of heads.keys()) {
    const { id, height, adjust, count } = heads[head]!;
    if (count === 0 || !mount.heads.includes(id)) continue;
    const chosen: number[] = [];
    const toGetOf = (of: number) => [heads[of]!, ...chosen.map((i) => pieces[i]!)].filter(({ toGet }) => toGet).length;
    const build = (from: number, left: number) => {
      if (left < -FORGIVEN) return;
      if (left <= adjust + FORGIVEN)
        ways.push({ head, pieces: [...chosen], toGet: toGetOf(head), lift: left, off: Math.abs(left - adjust / 2) });
      for (let i = from; i < tallest.length && chosen.length < mount.most; i++) {
        const piece = pieces[tallest[i]!]!;
        // Even the tallest pieces left do not reach it.
        if (left - (mount.most - chosen.length) * piece.height > adjust + FORGIVEN) return;
        if (chosen.filter((each) => each === tallest[i]).length === piece.count) continue;
        chosen.push(tallest[i]!);
        build(i, left - piece.height);
        chosen.pop();
      }
    };
    build(0, mount.height - height);
  }
  return ways;
}

/** Whether one way is to be liked better than another: less to get, then fewer pieces, then the screw nearer its middle. */
export const byMerit = (a: Way, b: Way): number =>
  a.toGet - b.toGet || a.pieces.length - b.pieces.length || a.off - b.off;
