import { Job } from '../../shell/job/job';
import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../../tests/support/demo-rows';
import type { PointCondition } from '../../shell/job/entities';
import type { JobRows } from '../../shell/job/job-rows';
import { decisionsAbout, readingsBehind } from './behind';
import { disturbedPoints } from '../observe/disturbed';
import { instrumentsInHand, spreadOf } from '../../shell/instruments';
import { judgeRound } from './judge-round';
import { placeNear, stationText } from '../../findings/place-names';
import { pointsNamedIn, pullingPage } from '../../report/pages/pulling';
import { lengthsThroughTime } from '../../findings/through-time';

const solbris = demoRows('solbris');
const lodd = demoRows('lodd');
const [asFound, braced] = solbris.rounds;
const idOf = (code: string) => solbris.points.find((point) => point.code === code)!.id;

describe('what stands behind a figure', () => {
  const judgement = judgeRound(Job.of(solbris), asFound!);

  it('are the readings that touch its points, those between them first, the doubted ones marked', () => {
    const behind = readingsBehind(Job.of(solbris), judgement, [idOf('C1L'), idOf('R4L')]);
    expect(behind[0]!.reading).toMatchObject({ quantity: 'distance' });
    expect([behind[0]!.reading.pointId, behind[0]!.reading.toPointId].sort()).toEqual(
      [idOf('C1L'), idOf('R4L')].sort(),
    );
    expect(Math.max(...behind.map(({ weight = 0 }) => weight))).toBeCloseTo(1, 12);
    for (const { checked } of behind) if (checked !== undefined) expect(checked).toBeLessThanOrEqual(1 + 1e-9);
    const all = readingsBehind(
      Job.of(solbris),
      judgement,
      solbris.points.map(({ id }) => id),
    );
    expect(
      all
        .filter(({ leftOut }) => leftOut)
        .map(({ reading }) => reading.id)
        .sort(),
    ).toEqual([...judgement.net.leftOut].sort());
  });

  it('are the findings and decisions about it, and the references chosen for it', () => {
    const choice = {
      id: crypto.randomUUID(),
      jobId: solbris.jobs[0]!.id,
      pointId: idOf('R4L'),
      dimensionId: null,
      referenceId: solbris.references[0]!.id,
      at: '2026-12-01T08:00:00.000Z',
      author: 'Ronja',
      personId: null,
      reason: 'as good as the eye wants',
    };
    const steps = decisionsAbout(Job.of({ ...solbris, referenceChoices: [choice] }), {
      kind: 'point',
      id: idOf('R4L'),
    });
    expect(steps[0]!.text).toContain('filled over');
    expect(steps.at(-1)).toMatchObject({ author: 'Ronja', reason: 'as good as the eye wants' });
    expect(steps.at(-1)!.text).toContain('Judged by Maker’s dimension chart');
  });

  it('names a station by the lowest charted point near it', () => {
    const words = { name: (text: string) => text, station: String };
    const told = (station: number) => stationText(station, placeNear(Job.of(solbris), judgement, station), words);
    expect(told(2100)).toBe('the rear seat crossmember hole (C1, station 2100)');
    expect(told(9000)).toBe('station 9000');
  });

  it('counts among the instruments in hand those this job was read with, and what somebody has just taken up', () => {
    const kinds = (hands: ReturnType<typeof instrumentsInHand>) => hands.map(({ instrument }) => instrument.kind);
    const hands = instrumentsInHand(Job.of(solbris));
    expect(kinds(hands)).toEqual(expect.arrayContaining(['tape', 'tram', 'heightStick', 'plumb']));
    const [fine] = solbris.instrumentVersions;
    const finer = { ...fine!, id: 'v', instrumentId: 'i', sdConstant: 0.05 };
    const more = {
      ...solbris,
      instruments: [...solbris.instruments, { id: 'i', name: 'Arm', kind: 'other' as const }],
      instrumentVersions: [...solbris.instrumentVersions, finer],
    };
    expect(kinds(instrumentsInHand(Job.of(more)))).not.toContain('other');
    expect(kinds(instrumentsInHand(Job.of(more), ['v']))).toContain('other');
    expect(spreadOf(finer, 1000)).toBeCloseTo(0.05 + finer.sdPerMetre, 12);
  });
});

describe('a point that was pulled on or clamped', () => {
  it('is no control point until it is read again', () => {
    const pull = solbris.pulls[0]!;
    const loaded = Job.of(solbris).pullEvents.find(({ kind }) => kind === 'loaded')!;
    const disturbed = disturbedPoints(Job.of(solbris), braced!);
    expect(disturbed.has(pull.pointId)).toBe(true);
    expect(disturbed.has(idOf('C1L'))).toBe(true);
    expect(disturbed.has(idOf('F2L'))).toBe(false);
    const template = solbris.readings.find(
      ({ quantity, roundId, pullId }) => quantity === 'height' && roundId === braced!.id && pullId === null,
    )!;
    const again = {
      ...template,
      id: crypto.randomUUID(),
      pointId: idOf('C1L'),
      takenAt: new Date(Date.parse(loaded.at) + 3_600_000).toISOString(),
    };
    const reread = { ...solbris, readings: [...solbris.readings, again] };
    expect(disturbedPoints(Job.of(reread), braced!).has(idOf('C1L'))).toBe(false);
    expect(disturbedPoints(Job.of(solbris), asFound!).size).toBe(0);
  });

  it('is set aside from the alignment and named', () => {
    const control = [...solbris.roundControls, { roundId: braced!.id, pointId: idOf('C1L') }];
    const { alignment } = judgeRound(Job.of({ ...solbris, roundControls: control }), braced!);
    expect(alignment).toMatchObject({ ok: true, setAside: [idOf('C1L')] });
    if (alignment.ok) expect(alignment.controlIds).not.toContain(idOf('C1L'));
  });
});

describe('what holds a pull', () => {
  const braced_ = { ...solbris, holds: [] };

  it('is rows, never the words of a note: "not at F2L" holds nothing', () => {
    const pulls = solbris.pulls.map((pull) => ({ ...pull, heldAt: 'Clamped at C1L and C1R, not at F2L' }));
    const disturbed = disturbedPoints(Job.of({ ...braced_, pulls }), braced!);
    expect([...disturbed]).toEqual([solbris.pulls[0]!.pointId]);
  });

  it('is offered where an older note names points, and only while nothing is said', () => {
    expect(pointsNamedIn(Job.of(solbris), 'Clamped at c1l, C1R and both sills').map(({ code }) => code)).toEqual([
      'C1L',
      'C1R',
    ]);
    expect(pullingPage(Job.of(braced_)).pulls[0]!.offered).toHaveLength(2);
    const [pull] = pullingPage(Job.of(solbris)).pulls;
    expect([pull!.offered, pull!.holds.map(({ code }) => code)]).toEqual([[], ['C1L', 'C1R']]);
  });
});

describe('a doubtful point', () => {
  it('has a wider ± the more doubtful it is', () => {
    const marked = (kind: PointCondition['kind']): JobRows => ({
      ...solbris,
      pointConditions: [
        {
          id: crypto.randomUUID(),
          roundId: asFound!.id,
          pointId: idOf('S2L'),
          kind,
          at: '2026-11-10T09:00:00.000Z',
          author: 'Nils',
          personId: null,
        },
      ],
    });
    const spread = (rows: JobRows) =>
      judgeRound(Job.of(rows), asFound!).points.find(({ point }) => point.code === 'S2L')!.judged!.sd[1]!;
    const [sound, oval, rusty, rebuilt] = [
      spread(solbris),
      spread(marked('oval')),
      spread(marked('rusty')),
      spread(marked('rebuilt')),
    ];
    expect(oval).toBeGreaterThan(sound!);
    expect(rusty).toBeGreaterThan(oval!);
    expect(rebuilt).toBeGreaterThan(rusty!);
  });
});

describe('lengths through time', () => {
  it('put the ones that changed most first, with what was done in between', () => {
    const { rounds, series, events } = lengthsThroughTime(Job.of(lodd));
    expect(rounds.map(({ number }) => number)).toEqual([1, 2, 3]);
    expect(series.slice(0, 4).map(({ dimension }) => dimension.code)).toContain('ND1');
    expect(series[0]!.telling).toBeGreaterThan(series.at(-1)!.telling);
    expect(series[0]).toMatchObject({ reference: expect.any(Number), limit: expect.any(Number) });
    expect(events.map(({ kind }) => kind)).toEqual(expect.arrayContaining(['braced', 'cut', 'welded']));
  });

  it('leave out rounds of other shells', () => {
    const rows = { ...lodd, rounds: lodd.rounds.map((round, i) => (i === 1 ? { ...round, shell: 'sister' } : round)) };
    expect(lengthsThroughTime(Job.of(rows)).rounds.map(({ number }) => number)).toEqual([1, 3]);
  });
});
