import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seeded } from '../maths/random/seeded';
import { shellNet } from '../practice/shell-net';
import { ellipseOf } from '../maths/geometry/ellipse';
import { coloured, factorise, invert, solve } from '../maths/linear/cholesky';
import { rigidFreedoms } from './datum';
import { looseSentence } from './loose';
import { equationsOf, linearise, newRow } from './observations';
import { startOf } from './solve';
import type { Survey } from './survey';

/** A random positive definite matrix. */
function matrix(size: number, seed: number): Float64Array {
  const random = seeded(seed);
  const b = Array.from({ length: size * size }, () => random.normal());
  const a = new Float64Array(size * size);
  for (let i = 0; i < size; i++)
    for (let j = 0; j < size; j++)
      for (let k = 0; k < size; k++) a[i * size + j]! += b[i * size + k]! * b[j * size + k]! + (i === j ? 0.1 : 0);
  return a;
}

describe('the factorisation', () => {
  it('solves and inverts matrices of every size, odd and even', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 23 }), fc.integer({ min: 1, max: 999 }), (size, seed) => {
        const a = matrix(size, seed);
        const factor = factorise(Float64Array.from(a), size)!;
        const right = Float64Array.from({ length: size }, (_, i) => i - 2);
        const x = solve(factor, right);
        const inverse = invert(factor);
        for (let i = 0; i < size; i++) {
          let [product, by] = [0, 0];
          for (let j = 0; j < size; j++) {
            product += a[i * size + j]! * x[j]!;
            by += inverse[i * size + j]! * right[j]!;
          }
          expect(product).toBeCloseTo(right[i]!, 5);
          expect(by).toBeCloseTo(x[i]!, 5);
        }
      }),
      { numRuns: 40 },
    );
  });

  it('makes of independent noise noise with the covariance it was made from', () => {
    const [size, count] = [4, 40_001];
    const a = matrix(size, 7);
    const random = seeded(3);
    const noise = Float64Array.from({ length: size * count }, () => random.normal());
    const drawn = coloured(factorise(Float64Array.from(a), size)!, noise, count);
    for (let i = 0; i < size; i++)
      for (let j = 0; j < size; j++) {
        let sum = 0;
        for (let run = 0; run < count; run++) sum += drawn[run * size + i]! * drawn[run * size + j]!;
        const spread = Math.sqrt((a[i * size + i]! * a[j * size + j]! + a[i * size + j]! ** 2) / count);
        expect(Math.abs(sum / count - a[i * size + j]!)).toBeLessThan(4 * spread);
      }
  });

  it('refuses a matrix that is not positive definite', () => {
    expect(factorise(Float64Array.from([1, 2, 2, 1]), 2)).toBeUndefined();
    expect(factorise(Float64Array.from([1, 1, 1, 1]), 2)).toBeUndefined();
    expect(factorise(Float64Array.from([0]), 1)).toBeUndefined();
  });
});

describe('the gradient of an observation', () => {
  it('is what a small step makes of its value', () => {
    const { survey } = shellNet({ points: 6, distances: 8 }, seeded(2));
    const plan = {
      ...survey,
      readings: [
        ...survey.readings,
        { id: 'p', kind: 'plan', from: 'P0L', to: 'P2R', value: 1, sigma: 1 } as const,
        { id: 'z', kind: 'rise', from: 'P0L', to: 'P2R', value: 1, sigma: 1 } as const,
      ],
    };
    const equations = equationsOf(plan);
    const x = startOf(plan);
    const none = new Float64Array(0);
    for (const observation of equations.observations) {
      const row = newRow();
      linearise(equations, observation, x, none, row);
      for (let p = 0; p < row.count; p++) {
        const moved = Float64Array.from(x);
        moved[row.columns[p]!]! += 1e-4;
        const after = newRow();
        linearise(equations, observation, moved, none, after);
        expect((after.value - row.value) / 1e-4).toBeCloseTo(row.coefficients[p]!, 4);
      }
    }
  });
});

describe('the freedoms of a datum', () => {
  const { survey } = shellNet({ points: 8, distances: 28 }, seeded(7));
  const freedoms = (of: Survey) => rigidFreedoms(equationsOf(of), startOf(of)).length;
  const distances = {
    ...survey,
    readings: survey.readings.filter(({ kind }) => kind === 'distance'),
  };
  const held = (...ids: string[]): Survey => ({
    ...distances,
    points: distances.points.map((point) => (ids.includes(point.id) ? { ...point, hold: 'fixed' as const } : point)),
  });

  it('are six with distances alone, three with heights, and fewer with every point held', () => {
    expect(freedoms(distances)).toBe(6);
    expect(freedoms(survey)).toBe(3);
    expect(freedoms(held('P0L'))).toBe(3);
    expect(freedoms(held('P0L', 'P3R'))).toBe(1);
    expect(freedoms(held('P0L', 'P3R', 'P1R'))).toBe(0);
  });
});

describe('what a loose net is told', () => {
  it('stands in one line, points with the same advice together', () => {
    const loose = [
      { id: 'A', directions: [], advice: 'add a height' },
      { id: 'B', directions: [], advice: 'add a height' },
      { id: 'C', directions: [], advice: 'add a length' },
    ];
    expect(looseSentence(loose.slice(0, 1))).toBe('point "A" is not determined: add a height');
    expect(looseSentence(loose)).toBe(
      'points "A", "B", "C" are not determined: "A", "B": add a height; "C": add a length',
    );
  });
});

describe('the ellipse of two axes', () => {
  it('has the eigenvalues of their covariance', () => {
    const { major, minor, angle } = ellipseOf([5, 2, 0, 2, 2, 0, 0, 0, 1], 0, 1);
    expect(major ** 2).toBeCloseTo(6, 9);
    expect(minor ** 2).toBeCloseTo(1, 9);
    expect(Math.tan(angle)).toBeCloseTo(0.5, 9);
  });
});
