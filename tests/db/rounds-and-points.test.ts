import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import * as chart from '@/server/actions/chart';
import { importChart } from '@/server/actions/import-chart';
import * as jobs from '@/server/actions/jobs';
import * as rounds from '@/server/actions/rounds';
import { takeTapeEntry } from '@/server/readings';
import { PERSON } from '../support/request';
import { benchPerTest, faultsOf, valueOf } from '../support/bench';

const bench = benchPerTest();
const take = (entry: unknown) => takeTapeEntry(entry, randomUUID);
const said = (roundId: string, kind: 'closed' | 'opened', reason = '') =>
  rounds.recordRoundEvent({ id: randomUUID(), roundId, kind, reason });

describe('a closed round', () => {
  const CLOSED = [{ path: 'round', message: 'the round is closed: open it again to go on' }];

  it('takes no line, strikes none and keeps none, from whichever window', async () => {
    const roundId = await bench().openRound('As found');
    const entry = await bench().height(roundId, 'F1L', 540);
    valueOf(await take(entry));
    valueOf(await said(roundId, 'closed'));
    expect(faultsOf(await take(await bench().height(roundId, 'F1R', 541)))).toEqual(CLOSED);
    const { lineId, id } = entry.readings[0]!;
    const strike = { lineId, reason: 'misread', author: PERSON };
    expect(faultsOf(await take({ roundId, readings: [], strike }))).toEqual(CLOSED);
    const keep = { id: randomUUID(), readingId: id, at: new Date().toISOString(), author: PERSON, reason: 'seen' };
    expect(faultsOf(await take({ roundId, readings: [], strike: null, keeps: [keep] }))).toEqual(CLOSED);
    const rows = await bench().rows();
    expect([rows.readings.length, rows.readingStrikes.length, rows.readingKeeps.length]).toEqual([1, 0, 0]);
  });

  it('still takes what was typed before it was closed and came late', async () => {
    const roundId = await bench().openRound('As found');
    const late = await bench().height(roundId, 'F1L', 540);
    await new Promise((resolve) => setTimeout(resolve, 5));
    valueOf(await said(roundId, 'closed'));
    valueOf(await take(late));
    expect((await bench().rows()).readings).toHaveLength(1);
  });

  it('stays closed when it is closed twice, and opens for a reason that is kept', async () => {
    const roundId = await bench().openRound('As found');
    valueOf(await said(roundId, 'closed', '2 readings are doubtful and left out.'));
    const [closed] = (await bench().rows()).rounds;
    valueOf(await said(roundId, 'closed'));
    expect((await bench().rows()).rounds).toEqual([closed]);
    expect(faultsOf(await said(roundId, 'opened')).map(({ path }) => path)).toEqual(['reason']);
    valueOf(await said(roundId, 'opened', 'the sill was read with the wrong tape'));
    const rows = await bench().rows();
    expect(rows.rounds[0]!.closedAt).toBeNull();
    expect(rows.roundEvents).toMatchObject([
      { kind: 'closed', author: PERSON, reason: '2 readings are doubtful and left out.' },
      { kind: 'opened', author: PERSON, reason: 'the sill was read with the wrong tape' },
    ]);
  });

  it('says before it is closed what is open in it', async () => {
    const roundId = await bench().openRound('As found');
    const open = valueOf(await rounds.openInRound(roundId));
    expect(open).toMatchObject({ doubtful: 0, unmeasured: ['D1', 'D2'] });
  });
});

describe('an empty round', () => {
  it('is dropped with what was written down for it alone; one with a reading is not', async () => {
    const [empty, read] = [await bench().openRound('By mistake'), await bench().openRound('As found')];
    valueOf(await take(await bench().height(read, 'F1L', 540)));
    valueOf(await rounds.dropRound(empty));
    valueOf(await rounds.dropRound(empty));
    expect(faultsOf(await rounds.dropRound(read)).map(({ path }) => path)).toEqual(['round']);
    const rows = await bench().rows();
    expect(rows.rounds.map(({ id }) => id)).toEqual([read]);
    expect([rows.shellStates.length, rows.supports.length]).toEqual([1, 1]);
  });
});

describe('a point', () => {
  it('is there once it is named, with no coordinates at all', async () => {
    const { point } = await bench().point('F1L');
    const bare = { ...point, id: randomUUID(), code: 'X1L', name: '' };
    valueOf(await chart.addPoint({ point: bare, reference: null }));
    const file = { name: 'points.csv', text: 'id,name,side,x,y,z\nX2L,Tunnel,,,,\nX3R,,,,,\n' };
    const taken = valueOf(await importChart({ jobId: bench().jobId, files: [file], unit: 'mm' }));
    expect(taken).toMatchObject({ new: 2, changed: 0, gone: 0 });
    const rows = await bench().rows();
    const named = rows.points.filter(({ code }) => code.startsWith('X'));
    expect(named.map(({ code, side }) => [code, side])).toEqual([
      ['X1L', 'left'],
      ['X2L', 'left'],
      ['X3R', 'right'],
    ]);
    expect(rows.referencePoints.some(({ pointId }) => named.some(({ id }) => id === pointId))).toBe(false);
  });

  it('gets its coordinates when they are known, and is renamed without them', async () => {
    const { point, reference } = await bench().point('F1L');
    const bare = { ...point, id: randomUUID(), code: 'X1L', name: '' };
    valueOf(await chart.addPoint({ point: bare, reference: null }));
    valueOf(await chart.savePoint({ point: { ...bare, name: 'Punch mark' }, reference: null }));
    const figure = { ...reference, id: randomUUID(), pointId: bare.id, x: 500 };
    valueOf(await chart.savePoint({ point: { ...bare, name: 'Punch mark', version: 2 }, reference: figure }));
    expect((await bench().point('X1L')).reference).toMatchObject({ x: 500 });
  });

  it('is made by the line that names it; made twice under one code it is refused in words', async () => {
    const roundId = await bench().openRound('As found');
    const { point } = await bench().point('F1L');
    const make = async () => {
      const made = { ...point, id: randomUUID(), code: 'FL' };
      const entry = await bench().height(roundId, 'F1L', 540, 'FL h 540');
      return { ...entry, readings: entry.readings.map((each) => ({ ...each, pointId: made.id })), points: [made] };
    };
    const first = await make();
    valueOf(await take(first));
    valueOf(await take(first));
    expect(faultsOf(await take(await make()))).toEqual([
      { path: 'points', message: 'FL was made in another window meanwhile: type the line again, it is known now' },
    ]);
    const rows = await bench().rows();
    expect([rows.readings.length, rows.points.filter(({ code }) => code === 'FL').length]).toEqual([1, 1]);
  });
});

describe('the job itself', () => {
  it('keeps how it was when its data are changed, with who and when', async () => {
    const [job] = (await bench().rows()).jobs;
    valueOf(await jobs.editJob({ ...job!, owner: 'Lighthouse society', identityNumber: '1200-77' }));
    const { changes } = await bench().rows();
    expect(changes).toMatchObject([
      {
        ...{ tableName: 'job', rowId: bench().jobId, author: PERSON },
        ...{ before: { owner: '' }, after: { owner: 'Lighthouse society', identityNumber: '1200-77' } },
      },
    ]);
    valueOf(await jobs.editJob({ ...job!, owner: 'Lighthouse society', identityNumber: '1200-77', version: 2 }));
    expect((await bench().rows()).changes).toHaveLength(1);
  });
});
