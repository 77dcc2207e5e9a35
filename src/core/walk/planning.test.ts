import { describe, expect, it } from 'vitest';
import { distance, position } from '../maths/geometry/vector';
import { seeded } from '../maths/random/seeded';
import { shellNet, shellPoints } from '../practice/shell-net';
import { adjust } from '../survey/adjust';
import { solveDetermined } from '../survey/determined';
import { addReading, grownBy, removeReading } from '../survey/extend';
import { PRACTICALLY_UNCHECKED, uncheckedPoints } from '../survey/reliability';
import { proposeNext, type Wanted } from './propose';
import { checkObservations } from '../survey/reliability';
import { roughStart, type SideOf } from '../survey/rough-start';
import { solveNet, type NetSolution } from '../survey/solve';
import { pointsOf, type SurveyReading } from '../survey/survey';
import { planWalk } from './walk';
import type { WalkPoint } from './walk-step';

const sideOf: SideOf = (id) => (id.endsWith('L') ? 'left' : id.endsWith('R') ? 'right' : 'centre');
const solved = (survey: Parameters<typeof solveNet>[0]): NetSolution => {
  const result = solveNet(survey);
  if (!result.ok) throw new Error(result.why);
  return result.solution;
};

describe('a round that is still growing', () => {
  const net = shellNet({ points: 12, distances: 66 }, seeded(6));

  it('solves what is determined and says what each loose point is short of', () => {
    const readings = net.survey.readings.filter(
      (reading) => !pointsOf(reading).includes('P5R') || /^h-/.test(reading.id),
    );
    const one = net.survey.readings.find((r) => r.kind === 'distance' && pointsOf(r).includes('P5R'))!;
    const { pieces, loose, unread } = solveDetermined({ ...net.survey, readings: [...readings, one] });
    expect(pieces).toHaveLength(1);
    expect(pieces[0]!.survey.points).toHaveLength(11);
    expect(loose).toMatchObject([{ id: 'P5R', advice: expect.stringMatching(/a second distance/) }]);
    expect(unread).toEqual([]);
  });

  it('solves two parts that nothing ties together, each by itself', () => {
    const front = (id: string) => Number(id[1]) < 3;
    const readings = net.survey.readings.filter(
      (reading) => reading.kind === 'distance' && new Set(pointsOf(reading).map(front)).size === 1,
    );
    const { pieces, loose } = solveDetermined({ ...net.survey, readings });
    expect(pieces.map((piece) => piece.survey.points.length)).toEqual([6, 6]);
    expect(loose.map(({ id }) => front(id)).every((each) => each === loose.map(({ id }) => front(id))[0])).toBe(true);
  });

  it('has nothing to solve at first, and lists the points nobody has read', () => {
    const first = solveDetermined({ ...net.survey, readings: [] });
    expect(first.pieces).toEqual([]);
    expect(first.unread).toHaveLength(12);
    const second = solveDetermined({ ...net.survey, readings: net.survey.readings.slice(12, 13) });
    expect(second.pieces).toEqual([]);
    expect(second.loose).toHaveLength(2);
  });
});

describe('what to measure next', () => {
  const hold = (id: string) => (/P0/.test(id) ? ('fixed' as const) : undefined);
  const net = shellNet({ points: 14, distances: 40, hold }, seeded(12));
  const solution = solved(net.survey);
  const ids = net.survey.points.map(({ id }) => id);
  const candidates: SurveyReading[] = ids.flatMap((from, i) =>
    ids
      .slice(i + 1)
      .map((to): SurveyReading => ({ id: `${from}-${to}`, kind: 'distance', from, to, value: 1, sigma: 0.8 })),
  );
  const wanted: Wanted[] = ids.map((point) => ({ kind: 'point', point }));

  it('foretells the ± that comes out once the reading is taken', () => {
    const [first] = proposeNext(solution, candidates, wanted, 1);
    const { from, to } = first!.reading as Extract<SurveyReading, { from: string }>;
    const value = distance(net.truth.get(from)!, net.truth.get(to)!);
    const after = adjust({
      ...net.survey,
      readings: [...net.survey.readings, { ...first!.reading, value } as SurveyReading],
    });
    if (!after.ok) throw new Error(after.reason);
    const worst = Math.max(...after.adjustment.points.flatMap(({ sx, sy, sz }) => [sx, sy, sz]));
    expect(2 * worst).toBeCloseTo(first!.after, 1);
    expect(first!.after).toBeLessThan(first!.before);
  });

  it('never makes a plan in which the worst ± grows, and looks after the points nothing checks', () => {
    const plan = proposeNext(solution, candidates, wanted, 12);
    plan.slice(1).forEach((each, i) => expect(each.after).toBeLessThanOrEqual(plan[i]!.after + 1e-9));
    const thin = {
      ...net.survey,
      readings: net.survey.readings.filter((r) => !pointsOf(r).includes('P6R') || r.kind === 'height'),
    };
    const two = net.survey.readings.filter((r) => r.kind === 'distance' && pointsOf(r).includes('P6R')).slice(0, 2);
    const lean = solved({ ...thin, readings: [...thin.readings, ...two] });
    expect(uncheckedPoints(lean)).toContain('P6R');
    expect(proposeNext(lean, candidates, wanted, 3).flatMap((each) => each.checks)).toContain('P6R');
  });
});

describe('the walk from nothing', () => {
  const positions = shellPoints(40, seeded(3));
  const points = [...positions].map(([id, position]): WalkPoint => ({
    id,
    side: sideOf(id) as 'left',
    position,
    opposite: id.replace(/.$/, (s) => (s === 'L' ? 'R' : 'L')),
  }));
  const instruments = { distance: (length: number) => 0.6 + 0.0003 * length, height: 0.7, longest: 4500 };
  const walk = planWalk(points, instruments);

  it('determines every point with every reading checked, in four and a half readings a point', () => {
    const readings = walk.map(({ reading }) => reading);
    const survey = {
      points: points.map(({ id, position }) => ({ id, start: position })),
      readings,
    };
    const checks = checkObservations(solved(survey));
    expect(Math.min(...checks.map((check) => check.redundancy))).toBeGreaterThanOrEqual(PRACTICALLY_UNCHECKED);
    expect(readings.length).toBeLessThan(4.6 * points.length);
  });

  it('begins on the floor of the centre section with both diagonals, and leaves the ends for last', () => {
    expect(walk.slice(0, 2).map(({ why }) => why)).toEqual(['diagonal', 'diagonal']);
    const once = walk.filter(({ why }) => why !== 'again').map(({ section }) => section);
    expect(once.lastIndexOf('centre')).toBeLessThan(once.indexOf('front'));
    expect(once.lastIndexOf('front')).toBeLessThan(once.indexOf('rear'));
  });

  it('asks for no pair twice but where it says so', () => {
    const keys = walk
      .filter(({ why }) => why !== 'again')
      .map(({ reading }) => [reading.kind, ...[...pointsOf(reading)].sort()].join());
    expect(new Set(keys).size).toBe(keys.length);
  });
});

describe('rough coordinates where there is no chart', () => {
  it('lead to the shell as it is, the right way round', () => {
    for (const seed of [2, 5, 9]) {
      const net = shellNet({ points: 16, distances: 100 }, seeded(seed));
      const rough = roughStart(
        net.survey.points.map(({ id }) => id),
        net.survey.readings,
        sideOf,
      );
      expect(rough.unplaced).toEqual([]);
      expect(rough.handedness).toBe('known');
      const solution = solved({
        ...net.survey,
        points: net.survey.points.map(({ id }) => ({ id, start: rough.positions.get(id)! })),
      });
      const at = (i: number) => position<'round'>(solution.x.subarray(3 * i, 3 * i + 3));
      const ids = net.survey.points.map(({ id }) => id);
      const apart = (i: number, j: number) => distance(at(i), at(j));
      const true_ = (i: number, j: number) => distance(net.truth.get(ids[i]!)!, net.truth.get(ids[j]!)!);
      for (const [i, j] of [
        [0, 15],
        [1, 14],
        [3, 8],
      ] as const)
        expect(Math.abs(apart(i, j) - true_(i, j))).toBeLessThan(3);
      const y = (id: string) => at(ids.indexOf(id))[1];
      expect(y('P3L')).toBeLessThan(y('P3R'));
      expect(at(ids.indexOf('P0L'))[0]).toBeLessThan(at(ids.indexOf('P7L'))[0]);
    }
  });

  it('says when nothing tells the net from its mirror image, and what cannot be placed', () => {
    const net = shellNet({ points: 6, distances: 15 }, seeded(4));
    const ids = [...net.survey.points.map(({ id }) => id), 'LOST'];
    const rough = roughStart(ids, net.survey.readings, () => undefined);
    expect(rough.handedness).toBe('unknown');
    expect(rough.unplaced).toEqual(['LOST']);
  });
});

describe('one reading more or less', () => {
  const net = shellNet({ points: 12, distances: 50 }, seeded(14));
  const { readings } = net.survey;
  const agree = (after: ReturnType<typeof addReading>, whole: NetSolution) => {
    if (!after.ok) throw new Error(after.why);
    whole.x.forEach((value, i) => expect(after.solution.x[i]).toBeCloseTo(value, 3));
    whole.covariance.forEach((value, i) => expect(after.solution.covariance[i]).toBeCloseTo(value, 2));
  };

  it('more gives what a new solution of the whole net gives', () => {
    const before = solved({ ...net.survey, readings: readings.slice(0, -1) });
    agree(addReading(before, readings.at(-1)!), solved(net.survey));
  });

  it('is all that is done to a net that grew by one, wherever the reading stands in it', () => {
    const before = solved({ ...net.survey, readings: readings.filter((_, i) => i !== 7) });
    const after = grownBy(before, net.survey);
    agree(after!, solved(net.survey));
    expect(after).toMatchObject({ solution: { updates: 1 } });
    expect(solveDetermined(net.survey, before).pieces[0]).toMatchObject({ updates: 1 });
  });

  it('is not taken for that where another reading changed, or where a point starts elsewhere', () => {
    const before = solved({ ...net.survey, readings: readings.slice(0, -1) });
    const [first, ...others] = readings;
    const changed = { ...first!, sigma: 2 } as SurveyReading;
    expect(grownBy(before, { ...net.survey, readings: [changed, ...others] })).toBeUndefined();
    const [point, ...rest] = net.survey.points;
    const moved = { ...point!, start: [1, 2, 3] as const };
    expect(grownBy(before, { points: [moved, ...rest], readings })).toBeUndefined();
    expect(grownBy(before, before.survey)).toEqual({ ok: true, solution: before });
  });

  it('is all that is done where readings are repeated, which share a bias from then on', () => {
    const at = 7;
    const one = readings[at] as SurveyReading & { kind: 'distance' };
    const bias = { group: one.id, sigma: one.sigma * Math.SQRT1_2 };
    const shared = (id: string, off: number) => ({
      ...{ ...one, id, bias },
      ...{ value: one.value + off, sigma: one.sigma * Math.SQRT1_2 },
    });
    const repeatedBy = (...repeats: SurveyReading[]) => ({
      ...net.survey,
      readings: [...readings.slice(0, at), shared(one.id, 0), ...repeats, ...readings.slice(at + 1)],
    });
    const first = repeatedBy(shared('once more', 0.3));
    const second = repeatedBy(shared('once more', 0.3), shared('and again', -0.1));
    const grown = grownBy(solved(net.survey), first);
    agree(grown!, solved(first));
    expect(grown).toMatchObject({ solution: { updates: 1 } });
    if (!grown?.ok) throw new Error('loose');
    const again = grownBy(grown.solution, second);
    agree(again!, solved(second));
    expect(again).toMatchObject({ solution: { updates: 2 } });
  });

  it('solves the whole anew after so many, so that rounding does not pile up', () => {
    let solution = solved(net.survey);
    const again = readings.slice(0, 25).map((reading) => ({ ...reading, id: `${reading.id} again` }));
    const updates = again.map((reading) => {
      const next = addReading(solution, reading);
      if (next.ok) solution = next.solution;
      return solution.updates ?? 0;
    });
    expect(Math.max(...updates)).toBe(20);
    expect(updates).toContain(0);
    agree({ ok: true, solution }, solved({ ...net.survey, readings: [...readings, ...again] }));
  });

  it('less gives it too, also where others repeat the reading with the same bias', () => {
    const tied = readings.map((reading, i) =>
      i % 6 === 0 ? { ...reading, bias: { group: `b${i % 12}`, sigma: 0.4 } } : reading,
    );
    const survey = { ...net.survey, readings: tied };
    const whole = solved(survey);
    // The last of its group, one whose group goes on without it, and one of no group.
    for (const r of [tied.length - 1, 24, 31])
      agree(removeReading(whole, r), solved({ ...survey, readings: tied.filter((_, i) => i !== r) }));
  });

  it('less says that a point is loose once nothing else holds it', () => {
    const few = readings.filter((reading) => !pointsOf(reading).includes('P5R'));
    const ties = readings.filter((reading) => pointsOf(reading).includes('P5R')).slice(0, 3);
    const result = solveNet({ ...net.survey, readings: [...few, ...ties] });
    if (!result.ok) throw new Error(result.why);
    expect(removeReading(result.solution, few.length)).toMatchObject({ ok: false, why: 'loose' });
  });
});
