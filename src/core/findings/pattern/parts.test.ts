import { inverse, Matrix } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import { Symmetric } from '../../maths/linear/symmetric';
import { seeded } from '../../maths/random/seeded';
import { designOf, hingeColumn, visibleComponents } from './model';
import { COMPONENTS } from '../../shell/components';
import { sectionAt } from '../../shell/sections';
import { hingesToTry, share, shareSlope, type Hinge, type PatternPoint } from './sections';
import { HingeSums } from './hinge-sums';
import { dotSparse, gramOf, Weights, type Sparse } from './weights';

const REAR: Hinge = { section: 'rear', hinge: 2000, end: 3200 };
const FRONT: Hinge = { section: 'front', hinge: 1000, end: 0 };
const CENTRE: Hinge = { section: 'centre', hinge: 1400, end: 2100 };

/** Points every 200 mm along both sides of a shell of 3.2 m. */
const points: PatternPoint[] = Array.from({ length: 17 }, (_, i) => 200 * i).flatMap((x) => [
  { id: `${x}L`, side: 'left', at: [x, -600, 150] },
  { id: `${x}R`, side: 'right', at: [x, 600, 150] },
]);

describe('a section', () => {
  it('moves nothing up to its hinge, all at its end, and evenly between', () => {
    expect([1500, 2000, 2600, 3200].map((x) => share(REAR, x))).toEqual([0, 0, 0.5, 1]);
    expect([1500, 1000, 500, 0].map((x) => share(FRONT, x))).toEqual([0, 0, 0.5, 1]);
  });

  it('goes on beyond its end at the front and the rear, but not into the next section', () => {
    expect(share(REAR, 3500)).toBeCloseTo(1.25, 12);
    expect(share(CENTRE, 2100)).toBeCloseTo(1, 12);
    expect(share(CENTRE, 2150)).toBe(0);
  });

  it('changes with its hinge as a small step of the hinge shows', () => {
    for (const hinge of [REAR, FRONT, CENTRE])
      for (const x of [250, 1750, 2600, 3100]) {
        const moved = (by: number) => share({ ...hinge, hinge: hinge.hinge + by }, x);
        expect(shareSlope(hinge, x)).toBeCloseTo((moved(0.01) - moved(-0.01)) / 0.02, 6);
      }
  });

  it('is named by the share of the shell’s length a station has', () => {
    expect([0, 800, 900, 2100, 2300].map((x) => sectionAt(x, [0, 3200]))).toEqual([
      'front',
      'front',
      'centre',
      'centre',
      'rear',
    ]);
  });
});

describe('the hinges tried', () => {
  it('leave points on both sides of them, and none too near the end', () => {
    const tried = hingesToTry(points, new Set());
    expect(new Set(tried.map(({ section }) => section))).toEqual(new Set(['front', 'centre', 'rear']));
    for (const hinge of tried) {
      expect(Math.abs(hinge.end - hinge.hinge)).toBeGreaterThanOrEqual(150);
      const beyond = points.filter(({ at }) => share(hinge, at[0]) > 0.02).length;
      expect(beyond).toBeGreaterThanOrEqual(3);
      expect(beyond).toBeLessThanOrEqual(0.6 * points.length);
    }
  });

  it('pass over a section that holds most of the control points: the rest moved against it', () => {
    const held = new Set(points.filter(({ at }) => at[0] > 2400).map(({ id }) => id));
    expect(hingesToTry(points, held).some(({ section }) => section === 'rear')).toBe(false);
    expect(hingesToTry(points, held).some(({ section }) => section === 'front')).toBe(true);
  });
});

describe('the named components', () => {
  it('are half-sums and differences of the sides', () => {
    const columns = designOf(REAR, points, COMPONENTS);
    const entry = (component: number, id: string, axis: number) => {
      const row = 3 * points.findIndex((point) => point.id === id) + axis;
      return columns[component]!.values[columns[component]!.rows.indexOf(row)] ?? 0;
    };
    const [mash, diamond, twist] = [0, 3, 5];
    expect([entry(mash, '3200L', 0), entry(mash, '3200R', 0)]).toEqual([1, 1]);
    expect([entry(diamond, '3200L', 0), entry(diamond, '3200R', 0)]).toEqual([-0.5, 0.5]);
    expect([entry(twist, '2600L', 2), entry(twist, '2600R', 2)]).toEqual([-0.25, 0.25]);
    expect(entry(mash, '1600L', 0)).toBe(0);
  });

  it('are three where only one side was measured', () => {
    expect(visibleComponents(REAR, points)).toEqual(COMPONENTS);
    const left = points.filter(({ side, at }) => side === 'left' || at[0] < 2000);
    expect(visibleComponents(REAR, left)).toEqual(['mash', 'sway', 'sag']);
  });

  it('change with the hinge as its column says', () => {
    const amounts = [-8, 5, 4, 11, 1, -7];
    const movement = (hinge: Hinge) => {
      const whole = new Float64Array(3 * points.length);
      designOf(hinge, points, COMPONENTS).forEach(({ rows, values }, c) =>
        rows.forEach((row, j) => (whole[row]! += amounts[c]! * values[j]!)),
      );
      return whole;
    };
    const [before, after] = [-0.05, 0.05].map((by) => movement({ ...REAR, hinge: REAR.hinge + 100 + by }));
    const along = hingeColumn({ ...REAR, hinge: REAR.hinge + 100 }, points, COMPONENTS, amounts);
    const column = new Float64Array(3 * points.length);
    along.rows.forEach((row, j) => (column[row] = along.values[j]!));
    column.forEach((value, i) => expect(value).toBeCloseTo((after![i]! - before![i]!) / 0.1, 6));
  });
});

describe('the weights of deviations', () => {
  const random = seeded(9);
  const half = new Matrix(Array.from({ length: 12 }, () => Array.from({ length: 12 }, random.normal)));
  const covariance = half.mmul(half.transpose()).add(Matrix.eye(12));
  const weights = Weights.of(Symmetric.of(covariance));
  const column = (seed: number): Sparse => {
    const own = seeded(seed);
    return { rows: [0, 4, 5, 11], values: [own.normal(), own.normal(), own.normal(), own.normal()] };
  };

  it('are the inverse of their covariance', () => {
    const b = column(1);
    const dense = Matrix.zeros(12, 1);
    b.rows.forEach((row, j) => dense.set(row, 0, b.values[j]!));
    const expected = inverse(covariance).mmul(dense).to1DArray();
    weights.times(b).forEach((value, i) => expect(value).toBeCloseTo(expected[i]!, 9));
  });

  it('are blind to what a model has explained', () => {
    const model = [column(1), column(2)];
    const left = weights.without(model);
    for (const b of model) left.times(b).forEach((value) => expect(value).toBeCloseTo(0, 9));
    // Taken out twice it is gone once.
    const other = column(3);
    const again = left.without([other]);
    const atOnce = weights.without([...model, other]);
    expect(dotSparse(column(4), again.times(column(4)))).toBeCloseTo(dotSparse(column(4), atOnce.times(column(4))), 9);
  });

  it('of the other points are those of a covariance without the point', () => {
    const kept = [0, 1, 2, 6, 7, 8, 9, 10, 11];
    const expected = Weights.of(Symmetric.of(covariance.selection(kept, kept)));
    const left = weights.withoutPoint(1);
    expect(left.size).toBe(9);
    for (const point of [0, 1, 2])
      left
        .block(point)
        .to1DArray()
        .forEach((value, i) => expect(value).toBeCloseTo(expected.block(point).to1DArray()[i]!, 9));
  });

  it('make a Gram matrix of two designs', () => {
    const [a, b] = [[column(1), column(2)], [column(3)]];
    const gram = gramOf(
      a,
      b.map((each) => weights.times(each)),
    );
    expect([gram.rows, gram.columns]).toEqual([2, 1]);
    expect(gram.get(1, 0)).toBeCloseTo(dotSparse(a[1]!, weights.times(b[0]!)), 12);
  });
});

describe('the sums along a shell', () => {
  it('give the weights’ products with the columns of any hinge', () => {
    const random = seeded(11);
    const shell = points.filter((_, i) => i % 3 !== 1);
    const size = 3 * shell.length;
    const half = new Matrix(Array.from({ length: size }, () => Array.from({ length: size }, random.normal)));
    const weights = Weights.of(Symmetric.of(half.mmul(half.transpose()).add(Matrix.eye(size))));
    const sums = new HingeSums(shell, weights);
    for (const hinge of [REAR, FRONT, CENTRE, { ...REAR, hinge: 2345 }, { ...CENTRE, hinge: 1760, end: 1100 }])
      designOf(hinge, shell, COMPONENTS).forEach((column, c) => {
        const product = sums.product(hinge, COMPONENTS[c]!);
        weights.times(column).forEach((value, i) => expect(product[i]).toBeCloseTo(value, 9));
      });
  });
});
