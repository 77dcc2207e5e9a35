import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { apply, covariance, motion, norm, position, subtract, type Matrix3, type Vector } from '../geometry/vector';
import { deviationOf, fitSelected, rootMeanSquare, type AlignmentPoint } from './fit';
import { axisDeviations, deviationCovariances, deviationGradient } from './uncertainty';

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
    reference: position(reference),
    measured: position(apply(transpose(r), subtract(reference, t))),
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
      const { dx, dy, dz, d } = expected.points[i];
      [dx, dy, dz].forEach((value, axis) => expect(deviation.by[axis]).toBeCloseTo(value, 6));
      expect(deviation.d).toBeCloseTo(d, 6);
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
      reference: position(reference),
      measured: position([reference[0], -reference[1], reference[2]]),
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
      i === 5 ? { ...point, measured: position<'round'>([3250, 430, 345]) } : point,
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
      reference: position([k * 100, k * 50, 0]),
      measured: position([k * 100, k * 50, 0]),
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
  const identity = motion<'round', 'chart'>(rotation(0, 0, 0), [0, 0, 0]);
  const uncertain = (at: Vector, id: string) => ({
    id,
    reference: position<'chart'>(at),
    measured: position<'round'>(at),
    trust: 0,
    sigma,
  });
  const control = front.map((at, i) => uncertain(at, `c${i}`));
  /** Points measured each by itself: no covariance between two of them. */
  const apart = (a: string, b: string) =>
    covariance<'round'>([0, 1, 2, 3, 4, 5, 6, 7, 8].map((k) => (a === b && k % 4 === 0 ? sigma ** 2 : 0)));

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
    const noisy = (at: Vector) => position<'round'>(at.map((value) => value + sigma * normal()));
    const places: Vector[] = [...front, [3240, 430, 345], [1500, 0, 240]];
    const sums = places.map(() => [0, 0, 0]);
    const runs = 4000;
    for (let run = 0; run < runs; run++) {
      const points = places.map((reference, i): AlignmentPoint => ({
        id: `${i}`,
        reference: position(reference),
        measured: noisy(reference),
        sigma,
      }));
      const fit = fitSelected(points.slice(0, 4));
      if (!fit.ok) throw new Error(fit.reason);
      points.forEach((point, i) => {
        deviationOf(fit.motion, point).by.forEach((value, k) => (sums[i]![k]! += value ** 2));
      });
    }
    const covariances = deviationCovariances(
      identity,
      control.map((point, i) => ({ ...point, id: `${i}` })),
      places.map((at, i) => uncertain(at, `${i}`)),
      apart,
    );
    places.forEach((_, i) => {
      const expected = axisDeviations(covariances.get(`${i}`)!);
      sums[i]!.forEach((sum, k) => expect(Math.sqrt(sum / runs) / expected[k]!).toBeCloseTo(1, 1));
    });
  });

  it('of one component is what its gradient says, point by point and reference by reference', () => {
    const by = motion<'round', 'chart'>(rotation(0.01, -0.02, 0.4), [100, 20, -310]);
    const trusted = control.map((point, i) => ({ ...point, trust: 0.04 * (i + 1) }));
    for (const point of [{ ...uncertain([3240, 430, 345], 'rear'), trust: 0.09 }, trusted[2]!]) {
      const whole = deviationCovariances(by, trusted, [point], apart).get(point.id)!;
      for (const axis of [0, 1, 2] as const) {
        const { terms, trust } = deviationGradient(by, trusted, point, axis);
        const measured = terms.reduce((sum, { by: share }) => sum + sigma ** 2 * norm(share) ** 2, 0);
        expect(measured + trust).toBeCloseTo(whole[4 * axis]!, 9);
      }
    }
  });

  it('does not change when the shell stands elsewhere on the bench', () => {
    const r = rotation(0.01, -0.02, 0.4);
    const turned = motion<'round', 'chart'>(r, [100, 20, -310]);
    const stand = (at: Vector) => apply(transpose(r), subtract(at, turned.translation));
    const at = (by: typeof identity, place: (p: Vector) => Vector) => {
      const points = front.map((on, i) => ({
        ...uncertain(on, `c${i}`),
        measured: position<'round'>(place(on)),
      }));
      const rear = { ...uncertain([3240, 430, 345], 'rear'), measured: position<'round'>(place([3240, 430, 345])) };
      return axisDeviations(deviationCovariances(by, points, [rear], apart).get('rear')!);
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
