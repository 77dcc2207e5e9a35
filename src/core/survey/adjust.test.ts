import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Vector } from '../maths/geometry/vector';
import { seeded } from '../maths/random/seeded';
import { shellNet } from '../practice/shell-net';
import { adjust, type Adjustment } from './adjust';
import { checkObservations, degreesOfFreedom } from './reliability';
import { solveNet } from './solve';
import type { Survey, SurveyPoint, SurveyReading } from './survey';

const done = (survey: Survey, options = {}): Adjustment => {
  const result = adjust(survey, options);
  if (!result.ok) throw new Error(result.reason);
  return result.adjustment;
};
const reason = (survey: Survey): string => {
  const result = adjust(survey);
  return result.ok ? 'determined' : result.reason;
};
const free = (id: string, ...start: [number, number, number]): SurveyPoint => ({ id, start });
const fixed = (id: string, ...start: [number, number, number]): SurveyPoint => ({ id, start, hold: 'fixed' });
let count = 0;
const tape = (from: string, to: string, value: number, sigma = 0.5): SurveyReading => ({
  id: `r${count++}`,
  kind: 'distance',
  from,
  to,
  value,
  sigma,
});
const height = (point: string, value: number, sigma = 0.5): SurveyReading => ({
  id: `r${count++}`,
  kind: 'height',
  point,
  value,
  sigma,
});

describe('the adjustment of a net', () => {
  it('levels three heights in a ring as one does by hand: the misclosure is shared by the weights', () => {
    // A → B → C → A rises 100.0, 50.0, −150.9: the misclosure of −0.9 is shared as 1 : 1 : 4.
    const rise = (from: string, to: string, value: number, sigma: number): SurveyReading => ({
      id: from + to,
      kind: 'rise',
      from,
      to,
      value,
      sigma,
    });
    const at = (id: string, ...start: [number, number, number]) => fixed(id, ...start);
    const flat = (point: string, x: number, y: number): SurveyReading[] => [
      { id: `${point}x`, kind: 'station', point, value: x, sigma: 1 },
      { id: `${point}y`, kind: 'offset', point, value: y, sigma: 1 },
    ];
    const { points, readings, varianceFactor } = done({
      points: [at('A', 0, 0, 0), free('B', 500, 3, 90), free('C', 0, 500, 160)],
      readings: [
        rise('A', 'B', 100, 1),
        rise('B', 'C', 50, 1),
        rise('C', 'A', -150.9, 2),
        ...flat('B', 500, 0),
        ...flat('C', 0, 500),
      ],
    });
    expect(points[1]!.z).toBeCloseTo(100.15, 9);
    expect(points[2]!.z).toBeCloseTo(150.3, 9);
    expect(readings.slice(0, 3).map((each) => each.redundancy)).toEqual(
      [1 / 6, 1 / 6, 4 / 6].map((r) => expect.closeTo(r, 9)),
    );
    expect(varianceFactor).toBeCloseTo(0.9 ** 2 / 6, 9);
  });

  it('takes the difference of the pointers of a tram gauge into the tip distance', () => {
    const pointed: SurveyReading = { ...tape('A', 'P', 400), pointers: [350, 50] } as SurveyReading;
    const { readings } = done({ points: [fixed('A', 0, 0, 0), fixed('P', 400, 0, 300)], readings: [pointed] });
    expect(readings[0]!.residual).toBeCloseTo(0, 9);
  });

  it('converges from starting values 60 mm off', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const net = shellNet(
        { points: 24, distances: 140, startOff: 60, hold: (id) => (/P0|P9R/.test(id) ? 'fixed' : undefined) },
        seeded(seed),
      );
      for (const { id, x, y, z, sx, sy, sz } of done(net.survey).points) {
        const [tx, ty, tz] = net.truth.get(id)!;
        expect(Math.abs(x - tx)).toBeLessThanOrEqual(5 * sx);
        expect(Math.abs(y - ty)).toBeLessThanOrEqual(5 * sy);
        expect(Math.abs(z - tz)).toBeLessThanOrEqual(5 * sz);
      }
    }
  });

  it('lets a net that nothing holds float to the place nearest to its start', () => {
    const { survey } = shellNet({ points: 10, distances: 45, startOff: 8 }, seeded(3));
    const distancesOnly = { ...survey, readings: survey.readings.filter((r) => r.kind === 'distance') };
    const { datum, points, degreesOfFreedom: degrees } = done(distancesOnly);
    expect(datum).toBe('inner');
    expect(degrees).toBe(45 - 30 + 6);
    // Nearest: the corrections have no mean and no turn left in them.
    const shift = (axis: 0 | 1 | 2) =>
      points.reduce((sum, p, i) => sum + [p.x, p.y, p.z][axis]! - survey.points[i]!.start[axis], 0);
    for (const axis of [0, 1, 2] as const) expect(shift(axis)).toBeCloseTo(0, 5);
    const moment = points.reduce((sum, p, i) => {
      const [sx, sy] = survey.points[i]!.start;
      return sum + sx * (p.y - sy) - sy * (p.x - sx);
    }, 0);
    expect(moment / 1000).toBeCloseTo(0, 4);
  });

  it('calls a net with one point held fixed and turning about it an inner datum of three freedoms', () => {
    const { survey } = shellNet(
      { points: 8, distances: 28, hold: (id) => (id === 'P0L' ? 'fixed' : undefined) },
      seeded(4),
    );
    const result = solveNet({ ...survey, readings: survey.readings.filter((r) => r.kind === 'distance') });
    expect(result.ok && result.solution.freedoms).toBe(3);
  });

  it('reproduces its standard deviations in two thousand repetitions of a small net', () => {
    const random = seeded(11);
    const truth = { S: [1500, 800, 100], T: [1500, 0, 100] } as const;
    const readings = (noise: () => number): SurveyReading[] => [
      tape('P', 'S', 1700 + 0.5 * noise()),
      tape('Q', 'T', 1700 + 0.5 * noise()),
      tape('P', 'T', 1500 + 0.5 * noise()),
      tape('Q', 'S', 1500 + 0.5 * noise()),
      tape('S', 'T', 800 + 0.5 * noise()),
      height('S', 100 + 0.5 * noise()),
      height('T', 100 + 0.5 * noise()),
    ];
    const points = [fixed('P', 0, 0, 100), fixed('Q', 0, 800, 100), free('S', ...truth.S), free('T', ...truth.T)];
    const runs = Array.from({ length: 2000 }, () => done({ points, readings: readings(random.normal) }).points[2]!);
    for (const [axis, sd, centre] of [
      ['x', 'sx', 1500],
      ['y', 'sy', 800],
      ['z', 'sz', 100],
    ] as const) {
      const spread = Math.sqrt(runs.reduce((sum, run) => sum + (run[axis] - centre) ** 2, 0) / 2000);
      expect(spread / runs[0]![sd]).toBeGreaterThan(0.94);
      expect(spread / runs[0]![sd]).toBeLessThan(1.06);
    }
  });

  it('states uncertainties that hold: over 200 nets 94 to 97 % of the coordinates lie within two of them', () => {
    let [within, all] = [0, 0];
    for (let seed = 1; seed <= 200; seed++) {
      const net = shellNet(
        { points: 14, distances: 50, hold: (id) => (/P0|P6R/.test(id) ? 'fixed' : undefined) },
        seeded(seed),
      );
      for (const point of done(net.survey).points) {
        if (point.sx === 0) continue;
        const truth = net.truth.get(point.id)!;
        for (const [i, sd] of [point.sx, point.sy, point.sz].entries()) {
          all++;
          if (Math.abs([point.x, point.y, point.z][i]! - truth[i]!) <= 2 * sd) within++;
        }
      }
    }
    expect(within / all).toBeGreaterThan(0.94);
    expect(within / all).toBeLessThan(0.97);
  });
});

describe('what must not depend on where the shell stands', () => {
  const turn = (angle: number, [x, y, z]: Vector): Vector => [
    Math.cos(angle) * x - Math.sin(angle) * y,
    Math.sin(angle) * x + Math.cos(angle) * y,
    z,
  ];
  const moved = (survey: Survey, move: (at: Vector) => Vector, shift: Vector): Survey => ({
    points: survey.points.map((point) => ({ ...point, start: move(point.start) })),
    readings: survey.readings.map((reading) =>
      reading.kind === 'height' ? { ...reading, value: reading.value + shift[2] } : reading,
    ),
  });

  it('changes no residual when the whole net is shifted and turned about the upright', () => {
    const net = shellNet({ points: 10, distances: 36, hold: (id) => (id === 'P0L' ? 0.5 : undefined) }, seeded(5));
    const before = done(net.survey).readings.map((each) => each.residual as number);
    fc.assert(
      fc.property(fc.integer({ min: -180, max: 180 }), fc.integer({ min: -900, max: 900 }), (degrees, amount) => {
        const shift: Vector = [amount, -amount / 3, amount / 7];
        const put = (at: Vector): Vector => {
          const [x, y, z] = turn((degrees * Math.PI) / 180, at);
          return [x + shift[0], y + shift[1], z + shift[2]];
        };
        done(moved(net.survey, put, shift)).readings.forEach((each, i) =>
          expect(each.residual).toBeCloseTo(before[i]!, 5),
        );
      }),
      { numRuns: 20 },
    );
  });

  it('has redundancies, those of holds included, that add up to the degrees of freedom', () => {
    for (let seed = 1; seed <= 10; seed++) {
      const net = shellNet(
        { points: 9, distances: 30, hold: (id) => (id === 'P1L' ? 0.8 : id === 'P0R' ? 'fixed' : undefined) },
        seeded(seed),
      );
      const result = solveNet(net.survey);
      if (!result.ok) throw new Error(result.why);
      const sum = checkObservations(result.solution).reduce((all, check) => all + check.redundancy, 0);
      expect(sum).toBeCloseTo(degreesOfFreedom(result.solution), 6);
    }
  });
});

describe('a net that is not determined', () => {
  const base = [fixed('A', 0, 0, 0), fixed('B', 1000, 0, 0), fixed('C', 0, 900, 0)];

  it('names the point and the least that would fix it', () => {
    expect(
      reason({
        points: [...base, free('R4R', 700, 600, 40)],
        readings: [tape('A', 'R4R', 925), tape('B', 'R4R', 672)],
      }),
    ).toMatch(/^point "R4R" is not determined: add a (height|width) or a third distance$/);
  });

  it('is content with a height in its place', () => {
    const readings = [tape('A', 'R4R', 925), tape('B', 'R4R', 672), height('R4R', 40)];
    expect(reason({ points: [...base, free('R4R', 700, 600, 40)], readings })).toBe('determined');
  });

  it('names every point of a piece that hangs on nothing', () => {
    const text = reason({
      points: [...base, free('D', 300, 300, 200), free('E', 500, 400, 250)],
      readings: [tape('D', 'E', 229)],
    });
    expect(text).toContain('points "D", "E" are not determined');
    expect(text.split('\n')).toHaveLength(1);
  });

  it('solves a net that starts flat but is not: three distances to a point above a plane', () => {
    const at = [400, 300, 500] as const;
    const readings = (['A', 'B', 'C'] as const).map((from, i) =>
      tape(from, 'T', Math.hypot(at[0] - base[i]!.start[0], at[1] - base[i]!.start[1], at[2])),
    );
    const top = done({ points: [...base, free('T', 390, 310, 0)], readings }).points[3]!;
    expect(Math.abs(top.z)).toBeCloseTo(500, 5);
    expect(top.x).toBeCloseTo(400, 5);
  });

  it('says so when there is nothing at all, and takes a net that is held throughout', () => {
    expect(reason({ points: [], readings: [] })).toMatch(/no points/);
    const { degreesOfFreedom: degrees, readings } = done({ points: base, readings: [tape('A', 'B', 1000.4)] });
    expect(degrees).toBe(1);
    expect(readings[0]).toMatchObject({ redundancy: 1, w: expect.closeTo(-0.8, 6) });
  });
});

describe('the robust solution', () => {
  it('finds three gross errors that plain least squares smears, and comes out near the truth', () => {
    for (let seed = 1; seed <= 10; seed++) {
      const net = shellNet(
        { points: 16, distances: 90, hold: (id) => (/P0|P7R/.test(id) ? 'fixed' : undefined) },
        seeded(seed),
      );
      const wrong = ['d5', 'd31', 'd62'];
      const spoiled = {
        ...net.survey,
        readings: net.survey.readings.map((reading) =>
          wrong.includes(reading.id)
            ? ({ ...reading, value: (reading.value as number) + 60 } as SurveyReading)
            : reading,
        ),
      };
      const { downWeighted, points } = done(spoiled, { robust: true });
      expect(downWeighted).toEqual(expect.arrayContaining(wrong));
      expect(downWeighted!.length).toBeLessThan(9);
      for (const point of points)
        expect(Math.abs(point.x - net.truth.get(point.id)![0])).toBeLessThanOrEqual(5 * point.sx);
    }
  });

  it('is the plain one where nothing is wrong', () => {
    const net = shellNet(
      { points: 8, distances: 24, hold: (id) => (/P0|P3R/.test(id) ? 'fixed' : undefined) },
      seeded(2),
    );
    const [plain, robust] = [done(net.survey), done(net.survey, { robust: true })];
    expect(robust.downWeighted).toEqual([]);
    robust.points.forEach((point, i) => expect(point.x).toBeCloseTo(plain.points[i]!.x, 6));
  });
});
