/**
 * An order of elimination that keeps a sparse factor thin: the node with the fewest neighbours goes first, and its
 * neighbours become neighbours of each other (Tinney and Walker 1967; George and Liu 1989). The graph is kept as rows of
 * bits, so that joining two neighbourhoods is a few word operations; meant for some thousands of nodes.
 *
 * @param count      nodes
 * @param neighbours of each node; itself may be among them
 * @returns the nodes in the order they are eliminated
 */
export function minimumDegree(count: number, neighbours: readonly (readonly number[])[]): Int32Array {
  const words = (count + 31) >> 5;
  const rows = new Uint32Array(count * words);
  for (let i = 0; i < count; i++)
    for (const j of neighbours[i]!) {
      if (j === i) continue;
      rows[i * words + (j >> 5)]! |= 1 << (j & 31);
      rows[j * words + (i >> 5)]! |= 1 << (i & 31);
    }
  const degree = new Int32Array(count);
  const countBits = (i: number) => {
    let sum = 0;
    for (let w = i * words, end = w + words; w < end; w++) sum += bitsOf(rows[w]!);
    degree[i] = sum;
  };
  for (let i = 0; i < count; i++) countBits(i);
  const order = new Int32Array(count);
  const gone = new Uint8Array(count);
  for (let step = 0; step < count; step++) {
    let best = -1;
    for (let i = 0; i < count; i++) if (!gone[i] && (best < 0 || degree[i]! < degree[best]!)) best = i;
    order[step] = best;
    gone[best] = 1;
    const own = rows.subarray(best * words, (best + 1) * words);
    for (let w = 0; w < words; w++)
      for (let left = own[w]!; left !== 0; left &= left - 1) {
        const j = 32 * w + 31 - Math.clz32(left & -left);
        const first = j * words;
        for (let v = 0; v < words; v++) rows[first + v]! |= own[v]!;
        rows[first + (j >> 5)]! &= ~(1 << (j & 31));
        rows[first + (best >> 5)]! &= ~(1 << (best & 31));
        countBits(j);
      }
  }
  return order;
}

/** How many bits of a word are set. */
function bitsOf(word: number): number {
  let left = word - ((word >>> 1) & 0x55555555);
  left = (left & 0x33333333) + ((left >>> 2) & 0x33333333);
  return (((left + (left >>> 4)) & 0x0f0f0f0f) * 0x01010101) >>> 24;
}
