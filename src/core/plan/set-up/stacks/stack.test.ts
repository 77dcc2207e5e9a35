import { beforeAll, describe, expect, it } from 'vitest';
import { loadSolver } from '../../../maths/search/highs';
import type { SolveBinary } from '../../../maths/search/binary-program';
import { seeded } from '../../../maths/random/seeded';
import { stack, type Stacks } from './stack';
import { waysToBuild, type Shelf, type StackMount, type Way } from './ways';

const tower = (height: number, count: number) => ({ id: `T${height}`, height, count });
const head = (id: string, height: number, adjust: number, count: number) => ({ id, height, adjust, count });
const mount = (id: string, height: number, heads: string[], most = 4): StackMount => ({ id, height, heads, most });

/** Best of all by trying every way of every mount: most built, then fewest pieces, then the screws nearest their middles. */
function byTryingAll(shelf: Shelf, mounts: readonly StackMount[]): Pick<Stacks, 'built' | 'pieces' | 'off'> {
  const ways = mounts.map((each) => waysToBuild(each, shelf));
  const left = [...shelf.pieces, ...shelf.heads].map(({ count }) => count);
  let best = { built: 0, pieces: 0, off: 0 };
  const take = (way: Way, sign: number) => {
    for (const piece of way.pieces) left[piece]! -= sign;
    left[shelf.pieces.length + way.head]! -= sign;
  };
  const from = (i: number, built: number, pieces: number, off: number) => {
    if (i === mounts.length) {
      const better =
        built - best.built || best.pieces - pieces || (Math.abs(best.off - off) < 1e-9 ? 0 : best.off - off);
      if (better > 0) best = { built, pieces, off };
      return;
    }
    from(i + 1, built, pieces, off);
    for (const way of ways[i]!) {
      take(way, 1);
      if (left.every((count) => count >= 0)) from(i + 1, built + 1, pieces + way.pieces.length, off + way.off);
      take(way, -1);
    }
  };
  from(0, 0, 0, 0);
  return best;
}

describe('stacks out of one shelf', () => {
  let solve: SolveBinary;
  beforeAll(async () => {
    solve = await loadSolver(20);
  });

  it('agree with trying everything, on shelves that are short of something', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const random = seeded(seed);
      const whole = (from: number, to: number) => from + Math.floor(random.next() * (to - from + 1));
      const shelf: Shelf = {
        pieces: [100, 50, 20, 15, 5].map((height) => tower(height, whole(0, 2))),
        heads: [head('cone', 60, 10, whole(0, 2)), head('plate', 45, 20, whole(1, 2))],
      };
      const mounts = ['A', 'B', 'C', 'D'].map((id) =>
        mount(id, whole(40, 260), random.next() < 0.5 ? ['cone'] : ['cone', 'plate'], whole(1, 3)),
      );
      const { built, pieces, off, proven } = stack(shelf, mounts, solve);
      const best = byTryingAll(shelf, mounts);
      expect({ seed, built, pieces, off: off.toFixed(6), proven }).toEqual({
        seed,
        ...best,
        off: best.off.toFixed(6),
        proven: true,
      });
    }
  });

  it('use no piece oftener than there are, and lift no screw beyond its travel', () => {
    const shelf = { pieces: [tower(80, 3), tower(40, 2), tower(7, 1)], heads: [head('cone', 50, 12, 4)] };
    const mounts = ['A', 'B', 'C', 'D', 'E'].map((id, i) => mount(id, 140 + 23 * i, ['cone']));
    const { ways } = stack(shelf, mounts, solve);
    const used = ways.flatMap((way) => way?.pieces ?? []);
    shelf.pieces.forEach(({ count }, k) => expect(used.filter((each) => each === k).length).toBeLessThanOrEqual(count));
    expect(ways.filter((way) => way).length).toBeLessThanOrEqual(4);
    ways.forEach((way, i) => {
      if (!way) return;
      const sum = way.pieces.reduce((all, piece) => all + shelf.pieces[piece]!.height, 0);
      expect(way.lift).toBeCloseTo(mounts[i]!.height - 50 - sum, 9);
      expect(way.lift).toBeGreaterThanOrEqual(-1e-9);
      expect(way.lift).toBeLessThanOrEqual(12 + 1e-9);
    });
  });

  it('reach both ends of the screw, stand on the beam without a piece, and leave alone what nothing reaches', () => {
    const shelf = { pieces: [tower(100, 1)], heads: [head('cone', 60, 10, 3)] };
    const mounts = [mount('low', 60, ['cone']), mount('high', 170, ['cone']), mount('far', 300, ['cone'])];
    const { ways, proven } = stack(shelf, mounts, solve);
    expect(ways).toMatchObject([{ pieces: [], lift: 0 }, { pieces: [0], lift: 10 }, null]);
    expect(proven).toBe(true);
  });

  it('give a quick answer without a solver: one that can be built, and the best where nothing is short', () => {
    const ample = { pieces: [tower(100, 9), tower(20, 9)], heads: [head('cone', 60, 25, 9)] };
    const mounts = [mount('A', 270, ['cone']), mount('B', 190, ['cone'])];
    expect(stack(ample, mounts)).toEqual(stack(ample, mounts, solve));
    expect(stack(ample, mounts).proven).toBe(true);
    const short = { ...ample, pieces: [tower(100, 2), tower(20, 9)] };
    expect(stack(short, mounts)).toMatchObject({ built: 1, proven: false });
  });

  it('are proven for twelve mounts out of ten kinds that do not suffice', () => {
    const random = seeded(7);
    const pieces = [200, 160, 120, 80, 60, 40, 25, 15, 10, 5].map((height) => tower(height, 2));
    const heads = [head('cone', 50, 10, 6), head('plate', 30, 16, 5), head('pin', 60, 12, 4)];
    const mounts = Array.from({ length: 12 }, (_, i) =>
      mount(`M${i}`, 120 + Math.round(random.next() * 260), i % 3 === 0 ? ['pin', 'cone'] : ['cone', 'plate']),
    );
    const answer = stack({ pieces, heads }, mounts, solve);
    expect(answer.proven).toBe(true);
    expect(answer.built).toBeGreaterThanOrEqual(stack({ pieces, heads }, mounts).built);
  });
});
