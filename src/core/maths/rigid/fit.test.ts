import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { apply, norm, subtract, type Matrix3, type Vector } from '../geometry/vector';
import { deviationOf, fitSelected, rootMeanSquare, type AlignmentPoint } from './fit';
import { axisDeviations, deviationCovariances } from './uncertainty';

const sample = (name: string) => JSON.parse(readFileSync(`${samples}/${name}`, 'utf8'));
// The samples' figures are kept beside the tests, so that they run without anything around the project.
const samples = 'tests/samples';

/** Turn about X, then Y, then Z. */
function rotation(a: number, b: number, c: number): Matrix3 {
  const [ca, sa, cb, sb, cc, sc] = [Math.cos(a), Math.sin(a), Math.cos(b), Math.sin(b), Math.cos(c), Math.sin(c)];
  return [
    [cc * cb, cc * sb * sa - sc * ca, cc * sb * ca + sc * sa],
    [sc * cb, sc * sb * sa + cc * ca, sc * sb * ca - cc * sa],
    [-sb, cb * sa, cb * ca],
  ];
}

const shell: readonly Vector[] = [
  [0, -400, 230],
  [0, 400, 230],
  [760, -690, 150],
  [760, 690, 150],
  [3240, -430, 345],
  [3240, 430, 345],
];

const moved = (r: Matrix3, t: Vector): AlignmentPoint[] =>
  shell.map((reference, i) => ({
    id: `${i}`,
    reference,
    measured: apply(transpose(r), subtract(reference, t)),
    sigma: 1,
  }));
const transpose = (m: Matrix3): Matrix3 => [0, 1, 2].map((c) => [0, 1, 2].map((r) => m[r]![c]!)) as unknown as Matrix3;

describe('a fit on chosen points', () => {
  it('agrees with the figures worked for the moved corner', () => {
    const request = sample('moved-corner.alignment-request.json');
    const expected = sample('moved-corner.alignment-request.expected.json');
    const points: AlignmentPoint[] = request.points.map((point: AlignmentPoint) => ({
      ...point,
      sigma: 1,
    }));
    const fit = fitSelected(points.filter((point) => expected.used.includes(point.id)));
    if (!fit.ok) throw new Error(fit.reason);
    fit.motion.rotation.flat().forEach((value, i) => expect(value).toBeCloseTo(expected.rotation.flat()[i], 9));
    fit.motion.translation.forEach((value, i) => expect(value).toBeCloseTo(expected.translation[i], 6));
    const deviations = points.map((point) => deviationOf(fit.motion, point));
    deviations.forEach((deviation, i) => {
      for (const key of ['dx', 'dy', 'dz', 'd'] as const)
        expect(deviation[key]).toBeCloseTo(expected.points[i][key], 6);
    });
    expect(rootMeanSquare(deviations.filter((each) => expected.used.includes(each.id)))).toBeCloseTo(expected.rms, 6);
  });

  it('takes any rigid motion of the shell away without rest', () => {
    const angle = fc.double({ min: -3, max: 3, noNaN: true });
    const shift = fc.double({ min: -5000, max: 5000, noNaN: true });
    fc.assert(
      fc.property(angle, angle, angle, shift, shift, shift, (a, b, c, x, y, z) => {
        const points = moved(rotation(a, b, c), [x, y, z]);
        const fit = fitSelected(points);
        if (!fit.ok) throw new Error(fit.reason);
        for (const point of points) expect(deviationOf(fit.motion, point).d).toBeLessThan(1e-6);
      }),
    );
  });

  it('never mirrors the shell, even when a mirror would fit better', () => {
    const points = shell.map((reference, i): AlignmentPoint => ({
      id: `${i}`,
      reference,
      measured: [reference[0], -reference[1], reference[2]],
      sigma: 1,
    }));
    const fit = fitSelected(points);
    if (!fit.ok) throw new Error(fit.reason);
    const [r0, r1, r2] = fit.motion.rotation;
    const handed =
      r0[0] * (r1[1] * r2[2] - r1[2] * r2[1]) -
      r0[1] * (r1[0] * r2[2] - r1[2] * r2[0]) +
      r0[2] * (r1[0] * r2[1] - r1[1] * r2[0]);
    expect(handed).toBeCloseTo(1, 9);
  });

  it('gives a point of ten times the sigma a hundredth of the weight', () => {
    const points = moved(rotation(0, 0, 0), [0, 0, 0]).map((point, i) =>
      i === 5 ? { ...point, measured: [3250, 430, 345] as Vector } : point,
    );
    const even = fitSelected(points);
    const trusted = fitSelected(points.map((point, i) => ({ ...point, sigma: i === 5 ? 10 : 1 })));
    if (!even.ok || !trusted.ok) throw new Error('no fit');
    expect(deviationOf(trusted.motion, points[5]!).d).toBeGreaterThan(deviationOf(even.motion, points[5]!).d);
    expect(deviationOf(trusted.motion, points[0]!).d).toBeLessThan(0.1);
  });

  it.each([
    [2, 'needs at least three points, 2 chosen: add 1 more'],
    [0, 'add 3 more'],
  ])('refuses %i points and says what to add', (count, reason) => {
    const fit = fitSelected(moved(rotation(0, 0, 0), [0, 0, 0]).slice(0, count));
    expect(!fit.ok && fit.reason).toContain(reason);
  });

  it('refuses points on one line', () => {
    const line = [0, 1, 2, 3].map((k): AlignmentPoint => ({
      id: `${k}`,
      reference: [k * 100, k * 50, 0],
      measured: [k * 100, k * 50, 0],
      sigma: 1,
    }));
    const fit = fitSelected(line);
    expect(!fit.ok && fit.reason).toContain('on one line');
  });
});

describe('the uncertainty a fit leaves', () => {
  const sigma = 0.8;
  const front: Vector[] = [
    [0, -400, 230],
    [0, 400, 230],
    [760, -690, 150],
    [760, 690, 150],
  ];
  const identity = { rotation: rotation(0, 0, 0), translation: [0, 0, 0] as Vector };
  const uncertain = (position: Vector, id: string) => ({
    id,
    reference: position,
    measured: position,
    trust: 0,
    sigma,
  });
  const control = front.map((position, i) => uncertain(position, `c${i}`));
  /** Points measured each by itself: no covariance between two of them. */
  const apart = (a: string, b: string) =>
    [0, 1, 2, 3, 4, 5, 6, 7, 8].map((k) => (a === b && k % 4 === 0 ? sigma ** 2 : 0));

  it('makes four control points at the front say little about the height of a rear leg', () => {
    const rear = uncertain([3240, 430, 345], 'rear');
    const [, , z] = axisDeviations(deviationCovariances(identity, control, [rear], apart).get('rear')!);
    // Height at the rear: own 0.8, and the front's slope of 0.8 over 760 mm carried 2860 mm beyond its middle.
    const slope = sigma / Math.sqrt(4) / 380;
    const byHand = Math.hypot(
      sigma,
      sigma / 2,
      slope * (3240 - 380),
      (sigma / Math.sqrt(2 * (400 ** 2 + 690 ** 2))) * 430,
    );
    expect(z).toBeGreaterThan(2.4);
    expect(Math.abs(z / byHand - 1)).toBeLessThan(0.1);
  });

  it('agrees with what a thousand shells show', () => {
    let state = 7;
    const uniform = () => (state = (state * 48271) % 2147483647) / 2147483647;
    const normal = () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
    const noisy = (position: Vector) => position.map((value) => value + sigma * normal()) as unknown as Vector;
    const places: Vector[] = [...front, [3240, 430, 345], [1500, 0, 240]];
    const sums = places.map(() => [0, 0, 0]);
    const runs = 4000;
    for (let run = 0; run < runs; run++) {
      const points = places.map((reference, i): AlignmentPoint => ({
        id: `${i}`,
        reference,
        measured: noisy(reference),
        sigma,
      }));
      const fit = fitSelected(points.slice(0, 4));
      if (!fit.ok) throw new Error(fit.reason);
      points.forEach((point, i) => {
        const { dx, dy, dz } = deviationOf(fit.motion, point);
        [dx, dy, dz].forEach((value, k) => (sums[i]![k]! += value ** 2));
      });
    }
    const covariances = deviationCovariances(
      identity,
      control.map((point, i) => ({ ...point, id: `${i}` })),
      places.map((position, i) => uncertain(position, `${i}`)),
      apart,
    );
    places.forEach((_, i) => {
      const expected = axisDeviations(covariances.get(`${i}`)!);
      sums[i]!.forEach((sum, k) => expect(Math.sqrt(sum / runs) / expected[k]!).toBeCloseTo(1, 1));
    });
  });

  it('does not change when the shell stands elsewhere on the bench', () => {
    const r = rotation(0.01, -0.02, 0.4);
    const turned = { rotation: r, translation: [100, 20, -310] as Vector };
    const stand = (position: Vector) => apply(transpose(r), subtract(position, turned.translation));
    const at = (motion: typeof identity, place: (p: Vector) => Vector) => {
      const points = front.map((position, i) => ({
        ...uncertain(position, `c${i}`),
        measured: place(position),
      }));
      const rear = { ...uncertain([3240, 430, 345], 'rear'), measured: place([3240, 430, 345]) };
      return axisDeviations(deviationCovariances(motion, points, [rear], apart).get('rear')!);
    };
    expect(
      norm(
        subtract(
          at(turned, stand),
          at(identity, (p) => p),
        ),
      ),
    ).toBeLessThan(1e-6);
  });
});
