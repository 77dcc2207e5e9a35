import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compileKernel } from '../../../../scripts/kernel.mjs';
import { seeded } from '../random/seeded';
import { along, spreadBy, varianceAlong, type Gradient } from './gradient';
import { kernel } from './kernel';
import type { Kernel } from './loops';
import { KERNEL } from './kernel-module';
import { plainKernel } from './plain-kernel';
import { Symmetric, SymmetricFactor } from './symmetric';
import { wasmKernel } from './wasm-kernel';

/** A random positive definite matrix. */
function matrix(size: number, seed: number): Symmetric {
  const random = seeded(seed);
  const b = Array.from({ length: size * size }, () => random.normal());
  const a = new Float64Array(size * size);
  for (let i = 0; i < size; i++)
    for (let j = 0; j < size; j++)
      for (let k = 0; k < size; k++) a[i * size + j]! += b[i * size + k]! * b[j * size + k]! + (i === j ? 0.1 : 0);
  return new Symmetric(size, a);
}

const simd = wasmKernel()!;
const KERNELS: readonly [string, Kernel][] = [
  ['plain', plainKernel],
  ['simd', simd],
];

describe('the compiled kernel', () => {
  it('is the one in use here, and is what its source compiles to', { timeout: 60_000 }, () => {
    expect(kernel.name).toBe('simd');
    expect(KERNEL).toBe(compileKernel());
  });

  it('gives the fallback’s figures for every size and remainder', () => {
    const near = (a: Float64Array, b: Float64Array) =>
      a.forEach((value, i) => expect(value).toBeCloseTo(b[i]!, 8 - Math.max(0, Math.log10(Math.abs(b[i]!) + 1))));
    for (const size of [12, 13, 14, 15, 16, 17, 31, 48]) {
      const { values } = matrix(size, size);
      const [plain, fast] = [values.slice(), values.slice()];
      expect([plainKernel.factorise(plain, size), simd.factorise(fast, size)]).toEqual([true, true]);
      // The upper triangle of a factor is meaningless.
      for (let i = 0; i < size; i++)
        for (let k = 0; k <= i; k++) expect(fast[i * size + k]).toBeCloseTo(plain[i * size + k]!, 9);
      near(simd.invert(plain, size), plainKernel.invert(plain, size));
      const random = seeded(size);
      const noise = Float64Array.from({ length: size * 7 }, () => random.normal());
      near(simd.coloured(plain, size, noise, 7), plainKernel.coloured(plain, size, noise, 7));
      near(simd.product(noise, values, size), plainKernel.product(noise, values, size));
      const [u, v] = [noise.slice(0, 4 * size), noise.slice(3 * size)];
      near(simd.solve(plain, size, u.slice(0, size)), plainKernel.solve(plain, size, u.slice(0, size)));
      near(simd.less(values, size, u, v), plainKernel.less(values, size, u, v));
      const [quick, slow] = [simd.multiplier(values, size), plainKernel.multiplier(values, size)];
      for (const at of [0, 1, 2]) {
        const vector = noise.slice(at * size, (at + 1) * size);
        near(quick(vector), slow(vector));
        // Whatever else went on in the meantime.
        if (at === 1) simd.solve(plain, size, vector);
      }
    }
  });

  it('solves with the factor that is meant, whatever was made since', () => {
    const [small, large] = [matrix(14, 3), matrix(31, 4)].map((a) => ({ a, factor: a.factor(simd)! }));
    const b = (size: number) => new Float64Array(size).fill(1);
    const kept = [small!.factor.solve(b(14)), large!.factor.solve(b(31)), small!.factor.solve(b(14))];
    small!.factor.inverse();
    kept.push(small!.factor.solve(b(14)), small!.factor.solve(b(14)));
    expect(kept.map((x) => x.length)).toEqual([14, 31, 14, 14, 14]);
    for (const x of [kept[2], kept[3], kept[4]]) expect(x).toEqual(kept[0]);
    large!.a.times(kept[1]!).forEach((value) => expect(value).toBeCloseTo(1, 6));
  });

  it('grows its memory for what is larger than it ever had', () => {
    const size = 300;
    const { values } = matrix(size, 1);
    const lower = values.slice();
    expect(simd.factorise(lower, size)).toBe(true);
    const inverse = simd.invert(lower, size);
    let sum = 0;
    for (let k = 0; k < size; k++) sum += values[7 * size + k]! * inverse[k * size + 7]!;
    expect(sum).toBeCloseTo(1, 6);
  });
});

describe.each(KERNELS)('the factorisation by the %s kernel', (_, by) => {
  it('solves and inverts matrices of every size, odd and even', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 23 }), fc.integer({ min: 1, max: 999 }), (size, seed) => {
        const a = matrix(size, seed);
        const factor = a.factor(by)!;
        const right = Float64Array.from({ length: size }, (__, i) => i - 2);
        const x = factor.solve(right);
        const product = a.times(x);
        const back = factor.inverse().times(right);
        for (let i = 0; i < size; i++) {
          expect(product[i]).toBeCloseTo(right[i]!, 5);
          expect(back[i]).toBeCloseTo(x[i]!, 5);
        }
      }),
      { numRuns: 40 },
    );
  });

  it('makes of independent noise noise with the covariance it was made from', () => {
    for (const size of [4, 14]) {
      const count = 40_001;
      const a = matrix(size, 7);
      const random = seeded(3);
      const noise = Float64Array.from({ length: size * count }, () => random.normal());
      const drawn = a.factor(by)!.coloured(noise, count);
      for (let i = 0; i < size; i++)
        for (let j = 0; j < size; j++) {
          let sum = 0;
          for (let run = 0; run < count; run++) sum += drawn[run * size + i]! * drawn[run * size + j]!;
          const spread = Math.sqrt((a.get(i, i) * a.get(j, j) + a.get(i, j) ** 2) / count);
          expect(Math.abs(sum / count - a.get(i, j))).toBeLessThan(4.5 * spread);
        }
    }
  });

  it('refuses a matrix that is not positive definite', () => {
    for (const values of [
      [1, 2, 2, 1],
      [1, 1, 1, 1],
    ])
      expect(SymmetricFactor.of(Float64Array.from(values), 2, by)).toBeUndefined();
    expect(SymmetricFactor.of(Float64Array.from([0]), 1, by)).toBeUndefined();
    const large = matrix(15, 3);
    large.set(14, 14, -1);
    expect(large.factor(by)).toBeUndefined();
  });
});

describe('a symmetric matrix', () => {
  const a = matrix(7, 11);
  const row: Gradient = {
    count: 3,
    columns: Int32Array.of(1, 4, 6),
    coefficients: Float64Array.of(0.5, -2, 1),
  };
  const dense = Float64Array.from({ length: 7 }, (_, i) => ({ 1: 0.5, 4: -2, 6: 1 })[i] ?? 0);

  it('gives for a row with few entries what it gives for the whole row', () => {
    expect([...spreadBy(a, row)]).toEqual([...a.times(dense)].map((value) => expect.closeTo(value, 10)));
    expect(varianceAlong(a, row)).toBeCloseTo(a.quadratic(dense), 10);
    expect(along(spreadBy(a, row), row)).toBeCloseTo(a.quadratic(dense), 10);
    const ones = new Float64Array(7).fill(1);
    a.timesEach([dense, ones]).forEach((each, k) => {
      const alone = a.times([dense, ones][k]!);
      each.forEach((value, i) => expect(value).toBeCloseTo(alone[i]!, 10));
    });
  });

  it('brought down by a reading is the inverse of the weights with the reading in', () => {
    const sigma = 0.7;
    const weights = a.inverse();
    for (let i = 0; i < 7; i++)
      for (let k = 0; k < 7; k++) weights.values[7 * i + k]! += (dense[i]! * dense[k]!) / sigma ** 2;
    const spread = spreadBy(a, row);
    const updated = a.less([{ u: spread, share: 1 / (sigma ** 2 + along(spread, row)) }]);
    const anew = weights.inverse();
    updated.values.forEach((value, i) => expect(value).toBeCloseTo(anew.values[i]!, 8));
  });

  it('keeps some of its rows in the order asked for', () => {
    const part = a.part([5, 2]);
    expect([part.get(0, 0), part.get(0, 1)]).toEqual([a.get(5, 5), a.get(5, 2)]);
  });
});
