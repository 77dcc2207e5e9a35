/** Thin pieces of one kind on the shelf, mm. */
export interface Shim {
  readonly name: string;
  readonly height: number;
  readonly count: number;
}

/** What to put in under a support that has no thread, and how much it then is off, mm. */
export interface Shimming {
  readonly names: readonly string[];
  readonly off: number;
}

/** Pieces thicker than this are towers, not shims, mm. */
export const THICKEST_SHIM = 12;
const MOST_SHIMS = 4;
/** Shims nearer than this to what is wanted are as good as each other: the fewest are taken, mm. */
const AS_GOOD = 0.1;

/**
 * The shims nearest to a wanted rise, at most four of them: of those as near the fewest, tried one by one, the thickest
 * first.
 */
export function shimsFor(rise: number, shelf: readonly Shim[]): Shimming {
  const kinds = shelf.filter(({ height }) => height <= THICKEST_SHIM).toSorted((a, b) => b.height - a.height);
  let best: { names: readonly string[]; off: number } = { names: [], off: -rise };
  const consider = (names: readonly string[], sum: number) => {
    const off = sum - rise;
    const nearer = Math.abs(best.off) - Math.abs(off);
    if (nearer > AS_GOOD || (nearer > -AS_GOOD && names.length < best.names.length)) best = { names, off };
  };
  const add = (from: number, names: readonly string[], sum: number) => {
    consider(names, sum);
    if (names.length === MOST_SHIMS || sum > rise) return;
    for (let k = from; k < kinds.length; k++) {
      const { name, height, count } = kinds[k]!;
      if (names.filter((each) => each === name).length < count) add(k, [...names, name], sum + height);
    }
  };
  add(0, [], 0);
  return best;
}
