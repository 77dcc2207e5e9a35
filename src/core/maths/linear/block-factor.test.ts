import { Matrix, solve } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import { seeded } from '../random/seeded';
import { minimumDegree } from './minimum-degree';
import { BlockFactor } from './block-factor';
import { plainKernel } from './plain-kernel';
import { wasmKernel } from './wasm-kernel';

const KERNELS = [
  ['compiled', wasmKernel()!],
  ['plain', plainKernel],
] as const;

/** A dense symmetric matrix in blocks of some widths, put into a factor. */
function blocks(dense: Matrix, widths: readonly number[]): BlockFactor {
  const first = widths.map((_, j) => widths.slice(0, j).reduce((sum, width) => sum + width, 0));
  const filled = (a: number, b: number) => {
    for (let r = 0; r < widths[a]!; r++)
      for (let c = 0; c < widths[b]!; c++) if (dense.get(first[a]! + r, first[b]! + c) !== 0) return true;
    return false;
  };
  const factor = new BlockFactor({
    widths,
    neighbours: widths.map((_, a) => widths.flatMap((__, b) => (filled(a, b) ? [b] : []))),
  });
  widths.forEach((_, b) =>
    widths.forEach((__, a) => {
      if (a < b || (a !== b && !filled(a, b))) return;
      const { panel, start, stride } = factor.place(a, b);
      for (let r = 0; r < widths[a]!; r++)
        for (let c = 0; c < widths[b]!; c++) panel[start + r * stride + c] = dense.get(first[a]! + r, first[b]! + c);
    }),
  );
  return factor;
}

const ones = (count: number): number[] => Array.from({ length: count }, () => 1);

/** Springs between some pairs of masses, and from some to the ground. */
function springs(size: number, pairs: readonly (readonly [number, number])[], grounded: readonly number[]): Matrix {
  const k = Matrix.zeros(size, size);
  for (const [a, b] of pairs) {
    k.set(a, a, k.get(a, a) + 1);
    k.set(b, b, k.get(b, b) + 1);
    k.set(a, b, k.get(a, b) - 1);
    k.set(b, a, k.get(b, a) - 1);
  }
  for (const a of grounded) k.set(a, a, k.get(a, a) + 1);
  return k;
}

describe.each(KERNELS)('a factor in blocks by the %s kernel', (_, by) => {
  it('solves as a dense one does, on forty nets of springs', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const random = seeded(seed);
      const size = 3 + Math.floor(random.next() * 20);
      const any = () => Math.floor(random.next() * size);
      const chain = Array.from({ length: size - 1 }, (_, i) => [i, i + 1] as const);
      const more = Array.from({ length: size }, () => [any(), any()] as const).filter(([a, b]) => a !== b);
      const matrix = springs(size, [...chain, ...more], [any()]);
      const load = Float64Array.from({ length: size }, () => random.normal());
      const widths: number[] = [];
      for (let left = size; left > 0; left -= widths.at(-1)!)
        widths.push(Math.min(left, Math.floor(random.next() * 7)));
      const factor = blocks(matrix, widths);
      expect(factor.factorise(by)).toEqual([]);
      const dense = solve(matrix, Matrix.columnVector([...load])).to1DArray();
      factor.solve(load.slice(), by).forEach((value, i) => expect(value).toBeCloseTo(dense[i]!, 8));
    }
  });

  it('finds the directions that nothing resists', () => {
    // Two chains: one on the ground, one afloat as a whole.
    const matrix = springs(
      6,
      [
        [0, 1],
        [1, 2],
        [3, 4],
        [4, 5],
      ],
      [0],
    );
    const free = blocks(matrix, [2, 1, 3]).factorise(by);
    expect(free.map((direction) => [...direction].map((value) => Math.round(value * 1e6) / 1e6 + 0))).toEqual([
      [0, 0, 0, 1, 1, 1],
    ]);
  });
});

describe('a factor in blocks', () => {
  it('solves a frame’s blocks of six the same by either kernel', () => {
    const random = seeded(66);
    // A band of blocks of six and one of three, each with the three before it.
    const widths = Array.from({ length: 24 }, (_, j) => (j % 7 === 3 ? 3 : 6));
    const first = widths.map((_, j) => widths.slice(0, j).reduce((sum, width) => sum + width, 0));
    const size = widths.reduce((sum, width) => sum + width, 0);
    const blockOf = (i: number) => first.findLastIndex((start) => start <= i);
    const half = Matrix.zeros(size, size);
    for (let i = 0; i < size; i++)
      for (let j = 0; j <= i; j++) if (blockOf(i) - blockOf(j) < 4) half.set(i, j, random.normal() + (i === j ? 8 : 0));
    const matrix = half.mmul(half.transpose());
    const [own, plain] = KERNELS.map(([, by]) => {
      const factor = blocks(matrix, widths);
      expect(factor.factorise(by)).toEqual([]);
      return factor.solve(
        Float64Array.from({ length: size }, (_, i) => Math.sin(i)),
        by,
      );
    }) as [Float64Array, Float64Array];
    own.forEach((value, i) => expect(value).toBeCloseTo(plain[i]!, 9));
  });

  it('is thin in an order of minimum degree: a star of a hundred rays fills nothing', () => {
    const size = 101;
    const neighbours = Array.from({ length: size }, (_, i) =>
      i === 0 ? Array.from({ length: 100 }, (__, k) => k + 1) : [0],
    );
    const order = [...minimumDegree(size, neighbours)];
    expect([...order].sort((a, b) => a - b)).toEqual(neighbours.map((_, i) => i));
    // The hub goes only when no more than one ray is left beside it.
    expect(order.indexOf(0)).toBeGreaterThanOrEqual(99);
    const place = (node: number) => order.indexOf(node);
    const rays = neighbours.slice(1).map((_, i) => [place(0), place(i + 1)] as const);
    expect(blocks(springs(size, rays, [0]), ones(size)).fill).toBe(201);
  });
});
