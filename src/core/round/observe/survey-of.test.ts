import { Job } from '../../shell/job/job';
import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../../tests/support/demo-rows';
import type { Point, Reading } from '../../shell/job/entities';
import type { JobRows } from '../../shell/job/job-rows';
import { chooseReferences } from '../../shell/references/chosen';
import { alignRound } from '../align/align-round';
import { judgeRound } from '../judge/judge-round';
import { startingPoints } from './starting-points';
import { observeRound } from './observe';
import { surveyOf } from './survey-of';

const rows = demoRows('solbris');
const [round] = rows.rounds as readonly [(typeof rows.rounds)[number]];
const references = chooseReferences(rows);
const byCode = (code: string) => rows.points.find((point) => point.code === code)!;
const own = rows.readings.filter((reading) => reading.roundId === round.id);
const length = own.find(({ quantity }) => quantity === 'distance')!;
const height = own.find(({ quantity }) => quantity === 'height')!;

/** The round with these readings and no others. */
const only = (...readings: Reading[]): JobRows => ({ ...rows, readings, readingStrikes: [] });
const netOf = (some: JobRows) => surveyOf(Job.of(some), observeRound(Job.of(some), round));
/** The instrument a reading was taken with, its figures changed. */
const withInstrument = (some: JobRows, reading: Reading, figures: object): JobRows => ({
  ...some,
  instrumentVersions: some.instrumentVersions.map((version) =>
    version.id === reading.instrumentVersionId ? { ...version, ...figures } : version,
  ),
});

describe('a round as a net', () => {
  it('takes the start mark off and puts a worn hook on, and keeps the raw value', () => {
    const some = withInstrument(only(length), length, { startMark: 100, zeroOffset: 1.5, steel: true });
    expect(netOf(some).survey.readings[0]!.value).toBeCloseTo(length.value - 98.5, 9);
    expect(some.readings[0]!.value).toBe(length.value);
  });

  it('trusts a reading by its instrument, less the longer it is', () => {
    const some = withInstrument(only(length), length, { sdConstant: 0.5, sdPerMetre: 0.4 });
    expect(netOf(some).survey.readings[0]!.sigma).toBeCloseTo(0.5 + 0.0004 * length.value, 9);
  });

  it('ties repeats with one instrument by a bias they share, and not those with another', () => {
    const again = { ...length, id: 'again', lineId: 'again', value: length.value + 0.6 };
    const { readings } = netOf(only(length, again)).survey;
    expect(readings.map(({ bias }) => bias?.group)).toEqual([length.id, length.id]);
    const [first] = readings as unknown as readonly [{ sigma: number; bias: { sigma: number } }];
    const whole = netOf(only(length)).survey.readings[0]! as { sigma: number };
    expect(Math.hypot(first.sigma, first.bias.sigma)).toBeCloseTo(whole.sigma, 9);
    const other = rows.instrumentVersions.find(({ id }) => id !== length.instrumentVersionId)!;
    const apart = netOf(only(length, { ...again, instrumentVersionId: other.id })).survey.readings;
    expect(apart.every(({ bias }) => bias === undefined)).toBe(true);
  });

  it('reads the same length from either end as one subject', () => {
    const turned = { ...length, id: 'turned', pointId: length.toPointId, toPointId: length.pointId };
    expect(netOf(only(length, turned)).survey.readings[1]!.bias?.group).toBe(length.id);
  });

  it('takes a head that enters for a position, and one that does not for a finding', () => {
    const code = 'F2L';
    const head = { ...height, id: 'head', quantity: 'fixture', pointId: byCode(code).id, value: 1.2 } as const;
    const at = references.points.get(byCode(code).id)!.row;
    const free = netOf(only({ ...head, fit: 'free' }));
    expect(free.survey.readings).toMatchObject([
      { kind: 'position', point: byCode(code).id, value: [at.x, at.y, at.z] },
    ]);
    const sigmas = (fit: 'free' | 'tight') =>
      (netOf(only({ ...head, fit })).survey.readings[0] as unknown as { sigma: number[] }).sigma;
    expect(sigmas('free')[0]).toBeCloseTo(1.2 / Math.sqrt(3), 9);
    expect(sigmas('tight')[0]).toBeCloseTo(1.2 / Math.sqrt(12), 9);
    const none = netOf(only({ ...head, fit: 'none' }));
    expect([none.survey.readings, none.notEntering]).toEqual([[], [byCode(code).id]]);
  });

  it('leaves out what was struck and what a pull was measured by', () => {
    const strike = {
      id: 's',
      readingId: length.id,
      struckAt: '',
      author: '',
      personId: null,
      reason: '',
      replacedByLineId: null,
    };
    expect(netOf({ ...only(length, height), readingStrikes: [strike] }).survey.readings).toHaveLength(1);
    expect(netOf(only({ ...length, pullId: 'pull' })).survey.readings).toEqual([]);
  });
});

describe('where a net is looked for', () => {
  const positions = [
    [0, -400, 540],
    [760, -690, 150],
    [3240, 420, 330],
    [1500, 300, 200],
  ].map((at, i) => ({
    point: { ...byCode('F1L'), id: `${i}`, code: `P${i}` },
    at: at as unknown as [number, number, number],
  }));
  const charted = {
    ...references,
    points: new Map(
      positions.map(({ point, at: [x, y, z] }) => [point.id, { row: { x, y, z } }] as const),
    ) as unknown as typeof references.points,
  };
  const starting = (points: readonly Point[], readings: Parameters<typeof startingPoints>[2]) =>
    startingPoints(points, charted, readings);
  const points = positions.map(({ point }) => point);
  const read = (place: (at: readonly number[]) => readonly number[]) =>
    positions.flatMap(({ point, at }) =>
      (['station', 'offset', 'height'] as const).map((kind, axis) => ({
        ...{ id: `${point.code}${kind}`, kind, point: point.id, sigma: 1 },
        value: place(at)[axis]!,
      })),
    );

  it('is the chart, shifted to where the middle reading puts it: one wrong one does no harm', () => {
    const readings = read(([x, y, z]) => [x! + 25, y!, z! - 60]);
    const wrong = readings.map((each, i) => (i === 2 ? { ...each, value: each.value + 1000 } : each));
    expect(starting(points, wrong)[1]!.start).toEqual([785, -690, 90]);
  });

  it('is the chart turned, where the round’s axes are', () => {
    const readings = read(([x, y, z]) => [y! + 10, -x!, z!]);
    starting(points, readings).forEach(({ start }, i) => {
      const [x, y, z] = positions[i]!.at;
      [y + 10, -x, z].forEach((value, axis) => expect(start[axis]).toBeCloseTo(value, 6));
    });
  });

  it('puts a substitute beside its point and a point nobody charted in the middle', () => {
    const substitute = { ...points[1]!, id: 's', code: 'P1-s', substituteForId: '1' };
    const stranger = { ...points[1]!, id: 'x', code: 'X', substituteForId: null };
    const starts = starting([...points, substitute, stranger], []);
    expect(starts[4]!.start).toEqual([780, -680, 150]);
    expect(starts[5]!.start).toEqual([1375, -92.5, 305]);
  });
});

describe('an alignment that cannot be made', () => {
  const judgement = judgeRound(Job.of(rows), round);
  const align = (codes: readonly string[], some = rows) => {
    const ids = codes.map((code) => byCode(code).id);
    const result = alignRound(Job.of(some), round, ids, judgement.located);
    return result.ok ? result : result.reason;
  };

  it('says that no control points are chosen, and how many are needed', () => {
    expect(align([])).toMatch(/no control points are chosen: choose at least three/);
  });

  it('says how many more it takes, and which of those chosen are of no use', () => {
    expect(align(['F1L', 'F1R', 'R2L'])).toMatch(
      /needs at least three points, 2 chosen: add 1 more \(R2L: not located/,
    );
  });

  it('says where no reference covers anything that was measured', () => {
    expect(align(['F1L', 'F1R', 'S1L'], { ...rows, referencePoints: [] })).toMatch(
      /no reference in use covers any located point/,
    );
  });
});
