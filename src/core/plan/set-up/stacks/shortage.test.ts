import { beforeAll, describe, expect, it } from 'vitest';
import { loadSolver } from '../../../maths/search/highs';
import type { SolveBinary } from '../../../maths/search/binary-program';
import { buildWithMore } from './shortage';

const tower = (height: number, count: number) => ({ id: `T${height}`, height, count });
const cone = { id: 'cone', height: 60, adjust: 10, count: 4 };
const mount = (id: string, height: number) => ({ id, height, heads: ['cone'], most: 4 });

describe('what a shelf lacks', () => {
  let solve: SolveBinary;
  beforeAll(async () => {
    solve = await loadSolver(20);
  });

  it('is nothing where it suffices', () => {
    const shelf = { pieces: [tower(100, 2)], heads: [cone] };
    const { lacking, stacks } = buildWithMore(shelf, [mount('A', 165), mount('B', 165)], solve);
    expect(lacking).toEqual([]);
    expect(stacks).toMatchObject({ built: 2, toGet: 0 });
  });

  it('is one piece where that frees another: a second tower of 100 lets both fifties go elsewhere', () => {
    // A and B each want 100, C wants 50 + 50: there are a 100 and two 50s.
    const shelf = { pieces: [tower(100, 1), tower(50, 2)], heads: [cone] };
    const { lacking, stacks } = buildWithMore(shelf, [mount('A', 165), mount('B', 165)], solve);
    expect(lacking).toEqual([]);
    expect(stacks.pieces).toBe(3);
    const three = buildWithMore(shelf, [mount('A', 165), mount('B', 165), mount('C', 115)], solve);
    expect(three.lacking).toMatchObject([{ kind: 'piece', id: 'T100', height: 100, count: 1 }]);
  });

  it('is a height of its own where nothing on the shelf reaches, and heads where they run out', () => {
    const shelf = { pieces: [tower(100, 4)], heads: [{ ...cone, count: 1 }] };
    const { lacking, stacks } = buildWithMore(shelf, [mount('A', 165), mount('B', 232)], solve);
    expect(stacks.built).toBe(2);
    expect(lacking).toEqual(
      expect.arrayContaining([
        { kind: 'piece', height: 167, count: 1, mounts: ['B'] },
        expect.objectContaining({ kind: 'head', id: 'cone', count: 1 }),
      ]),
    );
    expect(lacking).toHaveLength(2);
  });

  it('is everything on a shelf of nothing but heads, and a mount without a head stays unbuilt', () => {
    const empty = buildWithMore({ pieces: [], heads: [cone] }, [mount('A', 165), mount('B', 165)], solve);
    expect(empty.lacking).toEqual([{ kind: 'piece', height: 100, count: 2, mounts: ['A', 'B'] }]);
    const bare = buildWithMore({ pieces: [], heads: [] }, [mount('A', 165)], solve);
    expect(bare.stacks.built).toBe(0);
  });
});
