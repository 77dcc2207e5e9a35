import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compileKernel } from '../../../../scripts/kernel.mjs';
import { seeded } from '../random/seeded';
import { motion } from '../geometry/vector';
import { along, covarianceAlong, gradientOf, spreadBy, varianceAlong, type Gradient } from './gradient';
import { Joint } from './joint';
import { Room } from './room';
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
      const [less, other] = [values.slice(), values.slice()];
      simd.lessen(less, size, u, v);
      plainKernel.lessen(other, size, u, v);
      near(less, other);
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
    small!.factor.coloured(b(28), 2);
    kept.push(small!.factor.solve(b(14)));
    expect(kept.map((x) => x.length)).toEqual([14, 31, 14, 14, 14, 14]);
    for (const x of kept.slice(2)) expect(x).toEqual(kept[0]);
    expect(small!.factor.inverse().values).toEqual(small!.factor.inverse().values);
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

describe('the joint covariance of points', () => {
  const whole = matrix(9, 21);
  const [c, s] = [Math.cos(0.4), Math.sin(0.4)];
  const turn = motion<'round', 'chart'>(
    [
      [c, -s, 0],
      [s, c, 0],
      [0, 0, 1],
    ],
    [5, 6, 7],
  );
  // B is held fixed.
  const joint = Joint.of<'round'>(['A', 'B', 'C', 'D'], [0, -1, 3, 6], whole);

  it('as one matrix holds the block of every two points, in any order and in any axes', () => {
    for (const each of [joint, joint.turned(turn)] as const) {
      const ids = ['D', 'B', 'A'];
      const all = each.matrix(ids);
      ids.forEach((a, i) =>
        ids.forEach((b, k) => {
          const block = each.block(a, b);
          for (let r = 0; r < 3; r++)
            for (let q = 0; q < 3; q++) expect(all.get(3 * i + r, 3 * k + q)).toBeCloseTo(block[3 * r + q]!, 12);
        }),
      );
    }
  });

  it('turned keeps its variances in all', () => {
    const trace = (m: Symmetric) => m.values.reduce((sum, value, i) => sum + (i % (m.size + 1) === 0 ? value : 0), 0);
    const ids = ['A', 'C', 'D'];
    expect(trace(joint.turned(turn).matrix(ids))).toBeCloseTo(trace(joint.matrix(ids)), 10);
    expect(joint.turned(turn).matrix(['A']).get(0, 0)).toBeCloseTo(
      c * c * whole.get(0, 0) - 2 * c * s * whole.get(0, 1) + s * s * whole.get(1, 1),
      12,
    );
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

  it('gives what two rows have in common, whichever comes first', () => {
    const other = gradientOf([
      [0, 3],
      [4, 0.25],
    ]);
    const full = Float64Array.from({ length: 7 }, (_, i) => ({ 0: 3, 4: 0.25 })[i] ?? 0);
    const common = a.times(dense).reduce((sum, value, i) => sum + value * full[i]!, 0);
    expect(covarianceAlong(a, row, other)).toBeCloseTo(common, 10);
    expect(covarianceAlong(a, other, row)).toBeCloseTo(common, 10);
  });

  it('stays as it is where another is made of it, and changes where it is to', () => {
    for (const size of [7, 20]) {
      const own = matrix(size, 5);
      const before = [...own.values];
      const u = Float64Array.from({ length: size }, (_, i) => i / 10);
      const room = new Room();
      const less = own.less([{ u, share: 0.5 }]);
      const inRoom = own.copy(room).lessen([{ u, share: 0.5 }]);
      own.inverse();
      expect([...own.values]).toEqual(before);
      expect([...inRoom.values]).toEqual([...less.values]);
      expect(less.get(3, 2)).toBeCloseTo(own.get(3, 2) - 0.5 * u[3]! * u[2]!, 12);
      // What lies in a room is no more once something else does.
      own.copy(room);
      expect([...inRoom.values]).toEqual(before);
    }
  });

  it('keeps some of its rows in the order asked for', () => {
    const part = a.part([5, 2]);
    expect([part.get(0, 0), part.get(0, 1)]).toEqual([a.get(5, 5), a.get(5, 2)]);
  });
});
