import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { NEW_SEAM } from '@/core/shell/job/entities';
import { chartOf, chooseReferences, formerPosition } from '@/core/shell/references/chosen';
import * as chart from '@/server/actions/chart';
import { importChart } from '@/server/actions/import-chart';
import * as instruments from '@/server/actions/instruments';
import * as jobs from '@/server/actions/jobs';
import * as steps from '@/server/actions/steps';
import { takeTapeEntry } from '@/server/readings';
import { PERSON } from '../support/request';
import { Bench, benchPerTest, faultsOf, valueOf } from '../support/bench';

const bench = benchPerTest();

describe('a job', () => {
  it('begins with an empty tape, a chart and the steps every job has', async () => {
    const rows = await bench().rows();
    expect(rows.rounds).toEqual([]);
    expect(rows.references.map(({ kind, edition, inUse }) => [kind, edition, inUse])).toEqual([['chart', 1, true]]);
    expect(rows.steps.length).toBeGreaterThan(8);
    expect(new Set(rows.steps.map(({ ordinal }) => ordinal)).size).toBe(rows.steps.length);
  });

  it('without a name is refused at the name', async () => {
    const faults = faultsOf(await jobs.createJob({ ...bench().fields(), id: randomUUID(), name: '  ' }));
    expect(faults.map((fault) => fault.path)).toEqual(['name']);
  });

  it('edited in two windows tells the later one what the earlier wrote', async () => {
    const [job] = (await bench().rows()).jobs;
    valueOf(await jobs.editJob({ ...job!, owner: 'Lighthouse society' }));
    const later = await jobs.editJob({ ...job!, owner: 'Harbour museum' });
    expect(later).toMatchObject({ ok: false, current: { owner: 'Lighthouse society' } });
    expect((await bench().rows()).jobs[0]!.owner).toBe('Lighthouse society');
  });

  it('takes steps behind those it has, and what happens to them', async () => {
    const before = (await bench().rows()).steps;
    const id = randomUUID();
    const step = {
      id,
      jobId: bench().jobId,
      rung: 'weld' as const,
      title: 'Plug welds along the sill',
      note: '',
      needs: '',
    };
    valueOf(await steps.addStep(step));
    const event = { id: randomUUID(), stepId: id, kind: 'done' as const, until: null, note: '' };
    valueOf(await steps.recordStepEvent(event));
    const rows = await bench().rows();
    expect(rows.steps.find((each) => each.id === id)!.ordinal).toBe(Math.max(...before.map((s) => s.ordinal)) + 1);
    expect(rows.stepEvents.find((each) => each.stepId === id)).toMatchObject({ kind: 'done', author: PERSON });
  });

  it('keeps every version of an instrument it was measured with', async () => {
    const id = randomUUID();
    const version = {
      ...{ instrumentId: id, sdConstant: 0.8, sdPerMetre: 0.2, zeroOffset: 0, startMark: 0, steel: true },
      ...{ pointers: '', checkedAt: null, note: '' },
    };
    const instrument = { id, name: 'Long tape', kind: 'tape' as const };
    valueOf(await instruments.addInstrument({ instrument, version: { ...version, id: randomUUID() } }));
    valueOf(await instruments.reviseInstrument({ ...version, id: randomUUID(), startMark: 100 }));
    const versions = (await bench().rows()).instrumentVersions.filter((each) => each.instrumentId === id);
    expect(versions.map(({ number, startMark }) => [number, startMark])).toEqual([
      [1, 0],
      [2, 100],
    ]);
  });
});

describe('the chart', () => {
  it('is taken whole or not at all', async () => {
    const text = 'id;name;side;x;y;z\nQ1L;Hole;left;100;-300;200\nQ1R;Hole;right;100;;200\n';
    const faults = faultsOf(
      await importChart({ jobId: bench().jobId, files: [{ name: 'points.csv', text }], unit: 'mm' }),
    );
    expect(faults).toMatchObject([{ path: 'points.csv line 3', message: expect.stringContaining('y is missing') }]);
    expect((await bench().rows()).points.map(({ code }) => code)).not.toContain('Q1L');
  });

  it('refuses a code that stands in it already', async () => {
    const { point, reference } = await bench().point('F1L');
    const twin = { ...point, id: randomUUID() };
    const outcome = await chart.addPoint({
      point: twin,
      reference: { ...reference, id: randomUUID(), pointId: twin.id },
    });
    expect(faultsOf(outcome)).toMatchObject([
      { path: 'code', message: expect.stringContaining('stands here already') },
    ]);
  });

  it('edited in two windows keeps the earlier and hands the later one both rows', async () => {
    const read = await bench().point('S1L');
    valueOf(await chart.savePoint({ ...read, reference: { ...read.reference, z: 151 } }));
    const later = await chart.savePoint({ ...read, point: { ...read.point, name: 'Jacking hole' } });
    expect(later).toMatchObject({ ok: false, current: { thing: { name: 'Sill hole' }, reference: { z: 151 } } });
    expect((await bench().point('S1L')).point.name).toBe('Sill hole');
  });

  it('that a closed round was judged by is never changed: an edit makes the next edition', async () => {
    const roundId = await bench().openRound('As found');
    await bench().closeRound(roundId);
    const read = await bench().point('S1L');
    valueOf(await chart.savePoint({ ...read, reference: { ...read.reference, z: 152 } }));
    const rows = await bench().rows();
    expect(rows.references.map(({ edition, inUse }) => [edition, inUse]).sort()).toEqual([
      [1, false],
      [2, true],
    ]);
    const heights = rows.referencePoints.filter((row) => row.pointId === read.point.id).map((row) => row.z);
    expect(heights.sort()).toEqual([150, 152]);
    // A window still on the first edition comes second, and is told so.
    expect(await chart.savePoint({ ...read, reference: { ...read.reference, z: 153 } })).toMatchObject({
      ok: false,
      current: { reference: { z: 152 } },
    });
  });

  it('lets a dimension go that nothing rests on, and keeps it in the edition a round was judged by', async () => {
    const [front, sills] = [await bench().dimension('F1L'), await bench().dimension('S1L')];
    valueOf(await chart.removeDimension(front.dimension.id));
    expect((await bench().rows()).dimensions.map(({ id }) => id)).toEqual([sills.dimension.id]);
    await bench().closeRound(await bench().openRound('As found'));
    valueOf(await chart.removeDimension(sills.dimension.id));
    const rows = await bench().rows();
    expect(rows.referenceDimensions.map(({ referenceId }) => referenceId)).toEqual([sills.reference.referenceId]);
    expect(chooseReferences(rows).dimensions.has(sills.dimension.id)).toBe(false);
    // Once more, from another window: it is gone, as wanted.
    expect(await chart.removeDimension(front.dimension.id)).toEqual({ ok: true, value: null });
  });

  it('retires a point that was read from the next edition, and brings it back with one button', async () => {
    const roundId = await bench().openRound('As found');
    valueOf(await takeTapeEntry(await bench().height(roundId, 'S1L', 151), randomUUID));
    const { point, reference } = await bench().point('S1L');
    expect(valueOf(await chart.pointUses(point.id))).toMatchObject({
      readings: 1,
      rounds: ['As found'],
      dimensions: ['D2'],
    });
    valueOf(await chart.removePoint(point.id));
    valueOf(await chart.removePoint(point.id));
    const retired = await bench().rows();
    expect(retired.points.map(({ id }) => id)).toContain(point.id);
    expect(chooseReferences(retired).points.has(point.id)).toBe(false);
    expect(retired.references.map(({ edition }) => edition).sort()).toEqual([1, 2]);
    expect(formerPosition(retired, point.id)).toEqual([reference.x, reference.y, reference.z]);
    valueOf(await chart.restorePoint(point.id));
    valueOf(await chart.restorePoint(point.id));
    const back = await bench().rows();
    expect(chooseReferences(back).points.get(point.id)!.row).toMatchObject({ x: reference.x, z: reference.z });
    expect(back.referencePoints.filter(({ pointId }) => pointId === point.id)).toHaveLength(2);
  });

  it('lets a point go that nothing rests on', async () => {
    const { point } = await bench().point('R1L');
    expect(valueOf(await chart.pointUses(point.id))).toMatchObject({ readings: 0, dimensions: [] });
    valueOf(await chart.removePoint(point.id));
    expect((await bench().rows()).points.map(({ id }) => id)).not.toContain(point.id);
  });

  it('takes a seam with its targets on the edition that may be written', async () => {
    await bench().closeRound(await bench().openRound('As found'));
    const seam = { id: randomUUID(), jobId: bench().jobId, code: 'DL', name: 'Door, rear edge' };
    const station = { id: randomUUID(), seamId: seam.id, number: 1, name: 'top' };
    const target = { id: randomUUID(), stationId: station.id, value: 5, tolerance: 1, version: 1 };
    valueOf(
      await chart.addSeam({
        seam: { ...seam, ...NEW_SEAM, side: 'left', pairing: 'door', version: 1 },
        stations: [station],
        targets: [{ ...target, quantity: 'gap' }],
      }),
    );
    const rows = await bench().rows();
    expect(rows.referenceStations.map(({ referenceId }) => referenceId)).toEqual([chartOf(rows)!.id]);
    expect(chartOf(rows)!.edition).toBe(2);
  });
});

describe('the tape', () => {
  it('takes the same entry twice as once', async () => {
    const roundId = await bench().openRound('As found');
    const entry = await bench().height(roundId, 'S1L', 151);
    expect(valueOf(await takeTapeEntry(entry, randomUUID)).readings).toHaveLength(1);
    expect(valueOf(await takeTapeEntry(entry, randomUUID)).readings).toHaveLength(0);
    expect((await bench().rows()).readings).toHaveLength(1);
  });

  it('strikes a line with its reason and keeps it', async () => {
    const roundId = await bench().openRound('As found');
    const first = await bench().height(roundId, 'S1L', 115);
    valueOf(await takeTapeEntry(first, randomUUID));
    const strike = { lineId: first.readings[0]!.lineId, reason: 'two digits exchanged', author: 'Ronja' };
    const again = { ...(await bench().height(roundId, 'S1L', 151)), strike };
    const { strikes } = valueOf(await takeTapeEntry(again, randomUUID));
    expect(strikes).toMatchObject([
      { readingId: first.readings[0]!.id, reason: strike.reason, replacedByLineId: again.readings[0]!.lineId },
    ]);
    const rows = await bench().rows();
    expect(rows.readings.map(({ value, sequence }) => [value, sequence])).toEqual([
      [115, 1],
      [151, 2],
    ]);
    // Struck twice, it was struck once.
    expect(valueOf(await takeTapeEntry({ roundId, readings: [], strike }, randomUUID)).strikes).toEqual([]);
  });

  it('refuses points, marks and readings that belong elsewhere', async () => {
    const other = await Bench.withChart();
    const roundId = await bench().openRound('As found');
    const foreign = { ...(await other.height(randomUUID(), 'S1L', 151)), roundId };
    expect(faultsOf(await takeTapeEntry(foreign, randomUUID))[0]!.message).toMatch(/is another job’s/);
    const otherRound = await other.openRound('As found');
    const { point } = await bench().point('S1L');
    const condition = {
      ...{ id: randomUUID(), roundId: otherRound, pointId: point.id, kind: 'worn' },
      ...{ at: new Date().toISOString(), author: 'Ronja' },
    };
    const mark = { roundId, readings: [], strike: null, conditions: [condition] };
    expect(faultsOf(await takeTapeEntry(mark, randomUUID))[0]!.message).toMatch(/mark of another round/);
    const nowhere = await bench().height(randomUUID(), 'S1L', 151);
    expect(faultsOf(await takeTapeEntry(nowhere, randomUUID))[0]!.message).toMatch(/not here any more/);
    expect((await bench().rows()).readings).toEqual([]);
  });

  it('refuses nonsense before it reaches the database', async () => {
    const roundId = await bench().openRound('As found');
    const entry = await bench().height(roundId, 'S1L', Number.NaN);
    const [fault] = faultsOf(await takeTapeEntry(entry, randomUUID));
    expect(fault!.path).toBe('readings[0].value');
  });
});
