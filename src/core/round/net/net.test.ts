import { Job } from '../../shell/job/job';
import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../../tests/support/demo-rows';
import type { Reading } from '../../shell/job/entities';
import type { JobRows } from '../../shell/job/job-rows';
import { chooseReferences } from '../../shell/references/chosen';
import { corrections, correctedValue } from '../observe/corrections';
import { judgeRound } from '../judge/judge-round';
import { lengthBetween } from '../judge/judgement';
import { observeRound } from '../observe/observe';
import { solveRound } from './net';
import { knownTo } from './spread';
import { reachablePoints } from '../observe/conditions';
import { chartedTargets, openTargets, walkTargets } from '../../walk/targets';
import { targetOfReading, tyingTargets } from '../../walk/wanted';

const solbris = demoRows('solbris');
const [asFound, braced] = solbris.rounds as [JobRows['rounds'][0], JobRows['rounds'][0]];
const idOf = (code: string) => solbris.points.find((point) => point.code === code)!.id;
const hands = { height: 0.7, distance: (length: number) => 0.6 + 0.0003 * length };
const solve = (rows: JobRows, round = asFound) => solveRound(Job.of(rows), observeRound(Job.of(rows), round));
let count = 0;
const uuid = () => `00000000-0000-4000-8000-${String(++count).padStart(12, '0')}`;

/** The job with some more readings in a round, each like another but for what is given. */
function withReadings(round: JobRows['rounds'][0], ...more: Partial<Reading>[]): JobRows {
  const template = solbris.readings.find((each) => each.quantity === 'height')!;
  const readings = more.map((each): Reading => ({
    ...template,
    id: uuid(),
    lineId: uuid(),
    roundId: round.id,
    sequence: 900 + count,
    ...each,
  }));
  return { ...solbris, readings: [...solbris.readings, ...readings] };
}

describe('a round solved as a net', () => {
  it('finds the two slips of the demo round and names them', () => {
    const { doubts } = solve(solbris);
    const named = doubts.map(({ readingId, cause }) => {
      const reading = solbris.readings.find(({ id }) => id === readingId)!;
      return [reading.raw, cause?.kind];
    });
    expect(named).toEqual([
      [expect.stringMatching(/^S1R S3L/), 'sidesExchanged'],
      [expect.stringMatching(/^F2L R4L/), 'startMark'],
    ]);
  });

  it('accuses no sound reading of a point the chart no longer speaks of', () => {
    const f2l = idOf('F2L');
    const [chart] = solbris.references;
    const earlier = { ...chart!, id: uuid(), inUse: false };
    const rows = {
      ...solbris,
      references: [...solbris.references, earlier],
      referencePoints: solbris.referencePoints.map((row) =>
        row.pointId === f2l && row.referenceId === chart!.id ? { ...row, referenceId: earlier.id } : row,
      ),
    };
    expect(Job.of(rows).references.points.has(f2l)).toBe(false);
    expect(solve(rows).doubts.map(({ readingId }) => readingId)).toEqual(
      solve(solbris).doubts.map(({ readingId }) => readingId),
    );
  });

  it('leaves out the new reading that is far off, not the sound ones it cannot be told apart from', () => {
    const read = {
      quantity: 'distance' as const,
      measure: 'tip' as const,
      pointId: idOf('F2L'),
      toPointId: idOf('F2R'),
    };
    const rows = withReadings(braced, { ...read, value: 860 });
    const { leftOut, doubts } = solve(rows, braced);
    expect(leftOut).toEqual([rows.readings.at(-1)!.id]);
    expect(doubts[0]!.expected!.value).toBeCloseTo(801, -1);
  });

  it('takes a doubtful reading back in when somebody keeps it', () => {
    const doubt = solve(solbris).doubts.at(-1)!;
    const keep = {
      id: uuid(),
      readingId: doubt.readingId,
      at: asFound.startedAt,
      author: 'Alva',
      personId: null,
      reason: 'read twice',
    };
    const kept = solve({ ...solbris, readingKeeps: [keep] });
    expect(kept.doubts.map(({ readingId }) => readingId)).not.toContain(doubt.readingId);
    expect(kept.solution!.survey.readings.map(({ id }) => id)).toContain(doubt.readingId);
  });

  it('locates a point of which only length and height were read, from the lengths taped to it', () => {
    const judgement = judgeRound(Job.of(solbris), asFound);
    const d2r = judgement.points.find(({ point }) => point.code === 'D2R')!;
    expect(d2r.read).toEqual(['x', 'z']);
    expect(d2r.judged).toBeDefined();
  });

  it('knows the length between points that was never read', () => {
    const judgement = judgeRound(Job.of(solbris), asFound);
    const known = lengthBetween(judgement, {
      fromPointId: idOf('A2L'),
      toPointId: idOf('R4R'),
      measure: 'tip',
    })!;
    expect(known.from).toBe('net');
    expect(known.value).toBeGreaterThan(2500);
    expect(known.sd).toBeLessThan(2);
  });

  it('marks repeats that are too far apart, and trusts many repeats no more than their shared bias lets', () => {
    const at = { quantity: 'height', pointId: idOf('S1R') } as const;
    const apart = withReadings(braced, { ...at, value: 449 }, { ...at, value: 455 });
    expect(solve(apart, braced).doubts.map(({ kind }) => kind)).toContain('repeatsDiffer');
    const many = withReadings(
      braced,
      ...Array.from({ length: 10 }, () => ({ quantity: 'height' as const, pointId: idOf('S1L'), value: 449.2 })),
    );
    const { solution } = solve(many, braced);
    const variance = judgeRound(Job.of(many), braced).located.get(idOf('S1L'))!.covariance[8]!;
    expect(solution).toBeDefined();
    expect(Math.sqrt(variance)).toBeGreaterThan(0.35);
  });

  it('sets a value far from the chart aside until the net can judge it', () => {
    const far = withReadings(braced, { quantity: 'height', pointId: idOf('K1'), value: 5000 });
    const doubt = solve(far, braced).doubts.find(({ readingId }) => far.readings.at(-1)!.id === readingId)!;
    expect(doubt.kind).toBe('farFromChart');
  });

  it('takes a fixture head that enters as a position, and one that does not as a finding', () => {
    const head = { quantity: 'fixture', instrumentVersionId: solbris.instrumentVersions[0]!.id, value: 0.5 } as const;
    const rows = withReadings(
      braced,
      ...['S1L', 'S1R', 'S3L', 'S3R', 'K2'].map((code) => ({ ...head, pointId: idOf(code), fit: 'tight' as const })),
      { ...head, pointId: idOf('K4'), fit: 'none' },
    );
    const net = solve(rows, braced);
    expect(net.notEntering).toEqual([idOf('K4')]);
    expect(net.solution!.equations.bodies).toHaveLength(1);
    // One head alone says nothing: the bench may stand anywhere. With four others it locates its point.
    const alone = solve(withReadings(braced, { ...head, pointId: idOf('K2'), fit: 'tight' }), braced);
    expect(alone.solution!.survey.points.map(({ id }) => id)).not.toContain(idOf('K2'));
    expect(net.solution!.survey.points.map(({ id }) => id)).toContain(idOf('K2'));
    expect(net.solution!.survey.points.map(({ id }) => id)).not.toContain(idOf('K4'));
  });

  it('pairs the points of the two sides by their codes', () => {
    const opposite = (code: string) => Job.of(solbris).opposite(idOf(code))?.code;
    expect(opposite('S1L')).toBe('S1R');
    expect(opposite('D2R')).toBe('D2L');
    expect(opposite('K1')).toBeUndefined();
  });
});

describe('what an instrument adds', () => {
  const instrument = { startMark: 100, zeroOffset: 0.8, steel: false };
  it('is its start mark, its zero offset and, unless it is of steel, the growth of a warm shell', () => {
    const reading = { quantity: 'distance', value: 2100 } as const;
    expect(corrections(reading, instrument, 30)).toEqual([
      { kind: 'startMark', amount: -100 },
      { kind: 'zeroOffset', amount: 0.8 },
      { kind: 'temperature', amount: expect.closeTo(-2100 * 11.5e-6 * 10, 9) },
    ]);
    expect(correctedValue(reading, { ...instrument, steel: true }, 30)).toBeCloseTo(2000.8, 9);
    expect(correctedValue(reading, instrument, null)).toBeCloseTo(2000.8, 9);
  });
});

describe('what is wanted next', () => {
  const condition = (code: string, kind: 'buried' | 'worn' | 'clear') => ({
    id: uuid(),
    roundId: braced.id,
    pointId: idOf(code),
    kind,
    at: braced.startedAt,
    author: 'Nils',
    personId: null,
  });

  it('leaves a buried point out of the walk, and takes it in again when it is clear', () => {
    const buried = { ...solbris, pointConditions: [condition('S1L', 'buried')] };
    const walk = walkTargets(Job.of(buried), braced, hands);
    expect(walk.length).toBeGreaterThan(100);
    expect(walk.some(({ codes }) => codes.includes('S1L'))).toBe(false);
    const clear = { ...buried, pointConditions: [...buried.pointConditions, condition('S1L', 'clear')] };
    expect(reachablePoints(Job.of(clear), braced).map(({ code }) => code)).toContain('S1L');
  });

  it('drops what is read, once for each time it is wanted, and puts what was skipped last', () => {
    const charted = chartedTargets(Job.of(solbris), asFound);
    const open = openTargets(Job.of(solbris), asFound, charted, new Set());
    expect(open.length).toBeLessThan(charted.length / 3);
    const fresh = openTargets(Job.of({ ...solbris, readings: [] }), asFound, charted, new Set([charted[0]!.key]));
    expect(fresh).toHaveLength(charted.length);
    expect(fresh.at(-1)!.key).toBe(charted[0]!.key);
  });

  it('trusts a worn hole less', () => {
    const worn = { ...solbris, pointConditions: [{ ...condition('R4L', 'worn'), roundId: asFound.id }] };
    const sd = (rows: JobRows) => Math.sqrt(judgeRound(Job.of(rows), asFound).located.get(idOf('R4L'))!.covariance[4]!);
    expect(sd(worn)).toBeGreaterThan(sd({ ...solbris }) * 1.1);
  });

  it('ties a substitute in by three lengths in different directions and a height', () => {
    const targets = tyingTargets(Job.of(solbris), 'R4LX', 'R4L', judgeRound(Job.of(solbris), asFound));
    expect(targets.map(({ quantity }) => quantity)).toEqual(['distance', 'distance', 'distance', 'height']);
    expect(targets.every(({ codes }) => codes.includes('R4LX'))).toBe(true);
    expect(new Set(targets.map(({ key }) => key)).size).toBe(4);
  });

  it('knows which target a reading answered', () => {
    const reading = solbris.readings.find((each) => each.quantity === 'distance')!;
    const target = targetOfReading(Job.of(solbris), reading)!;
    expect(target.codes).toHaveLength(2);
    expect(target.key.startsWith('distance ')).toBe(true);
  });
});

describe('how well a point is known', () => {
  it('is said by its worst direction', () => {
    expect(knownTo([0.04, 0, 0, 0, 0.25, 0, 0, 0, 0.09])).toMatchObject({ direction: 'sideways' });
    expect(knownTo([0.04, 0, 0, 0, 0.25, 0, 0, 0, 0.09]).sd).toBeCloseTo(0.5, 9);
    expect(knownTo([1, 0.9, 0, 0.9, 1, 0, 0, 0, 0.1]).direction).toBe('aslant');
  });
});

describe('a round measured in axes of its own', () => {
  it('is located though its axes are turned far against the chart’s', () => {
    const [c, t] = [Math.cos(0.6), Math.sin(0.6)];
    const template = solbris.readings.find(({ quantity }) => quantity === 'height')!;
    const chart = chooseReferences(solbris).points;
    const readings = [...chart].flatMap(([pointId, { row }], i) =>
      (
        [
          ['length', c * row.x - t * row.y + 400],
          ['width', t * row.x + c * row.y - 90],
          ['height', row.z + 30],
        ] as const
      ).map(([quantity, value]) => ({
        ...template,
        id: `${quantity}${i}`,
        lineId: `${i}`,
        pointId,
        quantity,
        value,
        raw: `${value}`,
      })),
    );
    const rows = { ...solbris, readings, readingStrikes: [] };
    const { solution, doubts } = solve(rows, asFound);
    expect(doubts).toEqual([]);
    expect(solution!.survey.points).toHaveLength(chart.size);
  });
});

describe('left and right exchanged, and corrected', () => {
  const exchanged = solbris.readings.find(
    ({ roundId, pointId, toPointId }) => roundId === asFound.id && pointId === idOf('S1R') && toPointId === idOf('S3L'),
  )!;
  const struck = (rows: JobRows): JobRows => ({
    ...rows,
    readingStrikes: [
      ...rows.readingStrikes,
      { ...rows.readingStrikes[0]!, id: uuid(), readingId: exchanged.id, replacedByLineId: null },
    ],
  });
  const { id: _id, lineId: _line, sequence: _sequence, ...like } = exchanged;

  it.each([
    ['S1R', 'S3R'],
    ['S1L', 'S3L'],
  ])('as %s – %s leaves a good repeat in peace', (from, to) => {
    const ends = { pointId: idOf(from), toPointId: idOf(to) };
    const rows = struck(
      withReadings(asFound, { ...like, ...ends }, { ...like, ...ends, value: exchanged.value + 0.6 }),
    );
    const doubted = solve(rows).doubts.map(({ readingId }) => rows.readings.find(({ id }) => id === readingId)!);
    expect(
      doubted.filter(({ pointId, toPointId }) => pointId === ends.pointId && toPointId === ends.toPointId),
    ).toEqual([]);
  });
});
