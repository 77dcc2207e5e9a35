import { NEW_BRACE } from '@/core/shell/job/entities';
import { randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdtemp } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { beforeEach, describe, expect, it } from 'vitest';
import { braceState } from '@/core/findings/brace-pull';
import { buildRecord } from '@/core/report/record/record';
import { takenBack } from '@/core/report/taken-back';
import { Job } from '@/core/shell/job/job';
import { loadJob } from '@/db/jobs';
import { replayJournal } from '@/db/journal/replay';
import { migrate } from '@/db/migrate';
import * as chart from '@/server/actions/chart';
import { importChart } from '@/server/actions/import-chart';
import * as jobs from '@/server/actions/jobs';
import { layOut } from '@/server/actions/lay-out';
import * as log from '@/server/actions/log';
import * as steps from '@/server/actions/steps';
import * as work from '@/server/actions/work';
import { exportJob } from '@/server/archive/export';
import { importJob } from '@/server/archive/import';
import type { BringAs } from '@/formats/inputs/jobs';
import { takeTapeEntry } from '@/server/readings';
import { store } from '@/server/store';
import { PERSON } from '../support/request';
import { benchPerTest, faultsOf, valueOf } from '../support/bench';
import { pglite } from '../support/engines';

const bench = benchPerTest();
const job = async () => Job.of(await bench().rows());
type Table = Parameters<typeof work.withdraw>[0]['tableName'];
const take = (tableName: Table, rowId: string, reason = 'pressed by mistake') =>
  work.withdraw({ id: randomUUID(), jobId: bench().jobId, tableName, rowId, kind: 'withdrawn', reason });

describe('a brace', () => {
  let id: string;
  beforeEach(async () => {
    id = randomUUID();
    const [from, to] = [(await bench().point('S1L')).point.id, (await bench().point('S1R')).point.id];
    const { jobId } = bench();
    const brace = { id, jobId, fromPointId: from, toPointId: to, kind: 'weldedTube' as const, ...NEW_BRACE };
    const item = { id, jobId, kind: 'brace' as const, code: 'X1', name: 'X1' };
    const planned = { item, brace, dimensionIds: [] };
    const form = randomUUID();
    // Pressed twice, the second time while the first is still under way.
    const [first, second] = await Promise.all([work.planBrace(planned, form), work.planBrace(planned, form)]);
    valueOf(first);
    valueOf(second);
  });
  const say = (kind: 'fitted' | 'removed') =>
    work.recordItemEvent({ id: randomUUID(), itemId: id, kind, key: '', reason: '', value: null });

  it('said to be fitted twice was fitted once', async () => {
    valueOf(await say('fitted'));
    valueOf(await say('fitted'));
    expect((await job()).braceEvents.map(({ kind }) => kind)).toEqual(['planned', 'fitted']);
  });

  it('said to be fitted by mistake is planned again; the record says so', async () => {
    valueOf(await say('fitted'));
    const fitted = (await job()).braceEvents.at(-1)!;
    valueOf(await take('work_event', fitted.id));
    valueOf(await take('work_event', fitted.id));
    const now = await job();
    expect(braceState(now, now.braces[0]!)).toBe('planned');
    expect(now.rows.withdrawals).toHaveLength(1);
    expect(buildRecord(now, '').takenBack).toMatchObject([
      { what: 'brace X1 fitted', reason: 'pressed by mistake', author: PERSON },
    ]);
    valueOf(await say('fitted'));
    const again = await job();
    expect(braceState(again, again.braces[0]!)).toBe('fitted');
  });

  it('said to be fitted, taken back and said again is not put back besides', async () => {
    valueOf(await say('fitted'));
    const first = (await job()).braceEvents.at(-1)!;
    valueOf(await take('work_event', first.id));
    valueOf(await say('fitted'));
    const back = { jobId: bench().jobId, tableName: 'work_event' as const, rowId: first.id, kind: 'restored' as const };
    const [fault] = faultsOf(await work.withdraw({ id: randomUUID(), ...back, reason: '' }));
    expect(fault!.message).toMatch(/said again since/);
    expect((await job()).braceEvents.map(({ kind }) => kind)).toEqual(['planned', 'fitted']);
  });

  it('is not put back besides where more has happened since it was said again', async () => {
    valueOf(await say('fitted'));
    const first = (await job()).braceEvents.at(-1)!;
    valueOf(await take('work_event', first.id));
    for (const kind of ['fitted', 'removed'] as const) valueOf(await say(kind));
    const back = { jobId: bench().jobId, tableName: 'work_event' as const, rowId: first.id, kind: 'restored' as const };
    expect(faultsOf(await work.withdraw({ id: randomUUID(), ...back, reason: '' }))[0]!.message).toMatch(
      /said again since/,
    );
    expect((await job()).braceEvents.map(({ kind }) => kind)).toEqual(['planned', 'fitted', 'removed']);
  });

  it('is corrected with how it was, who and when; a stale form is told', async () => {
    const { braces, workItems } = await bench().rows();
    const [brace, item] = [braces[0]!, workItems[0]!];
    valueOf(await work.correctBrace({ item, brace: { ...brace, fromEnd: 'skin' }, dimensionIds: [] }));
    expect((await bench().rows()).changes).toMatchObject([
      { tableName: 'brace', before: { fromEnd: 'doubled' }, after: { fromEnd: 'skin' }, author: PERSON },
    ]);
    const [fault] = faultsOf(await work.correctBrace({ item, brace, dimensionIds: [] }));
    expect(fault!.message).toMatch(/somebody else changed this meanwhile/);
  });

  it('is taken back for a reason, and put back', async () => {
    expect(faultsOf(await take('work_item', id, '')).map(({ path: at }) => at)).toEqual(['reason']);
    valueOf(await take('work_item', id));
    expect((await job()).braces).toEqual([]);
    expect(takenBack(await job()).map(({ what }) => what)).toEqual(['brace X1']);
    const back = { jobId: bench().jobId, tableName: 'work_item' as const, rowId: id, kind: 'restored' as const };
    valueOf(await work.withdraw({ id: randomUUID(), ...back, reason: '' }));
    expect((await job()).braces.map(({ code }) => code)).toEqual(['X1']);
  });
});

describe('a step', () => {
  it('is corrected, and said to be done twice is done once', async () => {
    const [step] = (await bench().rows()).steps;
    valueOf(await steps.correctStep({ ...step!, title: 'Walk round with a magnet' }));
    const done = () =>
      steps.recordStepEvent({ id: randomUUID(), stepId: step!.id, kind: 'done', until: null, note: '' });
    valueOf(await done());
    valueOf(await done());
    const rows = await bench().rows();
    expect([rows.steps[0]!.title, rows.stepEvents.length]).toEqual(['Walk round with a magnet', 1]);
  });
});

describe('an entry of the log', () => {
  const write = async (over: object, more: object = {}) => {
    const entry = {
      ...{ id: randomUUID(), jobId: bench().jobId, kind: 'finding', text: 'Old weld at the sill end', reason: '' },
      ...{ roundId: null, supersedes: null, ...over },
    };
    const form = new FormData();
    form.set('entry', JSON.stringify({ entry, subjects: [], ...more }));
    return { id: entry.id, outcome: await log.writeLogEntry(form) };
  };

  it('keeps what its kind says, is written once, corrected and taken back', async () => {
    const finding = { sort: 'oldWeld', grade: 'lyingOnTop', before: null, after: null };
    const first = await write({}, { finding: { ...finding, weight: 'structural', otherSide: true } });
    valueOf(first.outcome);
    valueOf((await write({ id: first.id })).outcome);
    const now = await job();
    expect(now.rows.findingDetails).toMatchObject([{ entryId: first.id, grade: 'lyingOnTop', otherSide: true }]);
    expect(buildRecord(now, '').open).toContainEqual({
      kind: 'otherSide',
      subject: 'Old weld at the sill end',
      reason: '',
    });
    const second = await write({ text: 'Old weld at both sill ends', supersedes: first.id });
    valueOf(second.outcome);
    expect((await job()).logEntries.map(({ id }) => id)).toEqual([second.id]);
    valueOf(await take('log_entry', second.id, 'another car'));
    // What the corrected one corrected stands again.
    expect((await job()).logEntries.map(({ id }) => id)).toEqual([first.id]);
  });

  it('that assumes something says what would overturn it', async () => {
    const bare = await write({ kind: 'assumption', overturnedBy: '' });
    expect(faultsOf(bare.outcome).map(({ path: at }) => at)).toEqual(['overturnedBy']);
    valueOf((await write({ kind: 'assumption', overturnedBy: 'a crease behind the filler' })).outcome);
  });

  it('numbers the tags of parts, once each', async () => {
    const part = {
      id: randomUUID(),
      jobId: bench().jobId,
      part: 'Left door',
      takenFrom: '',
      state: '',
      shelf: 'Rack 2',
    };
    const tag = { ...part, keepUntil: 'the sill is in' };
    expect(valueOf(await log.tagPart(tag)).number).toBe(1);
    expect(valueOf(await log.tagPart(tag)).number).toBe(1);
    expect(valueOf(await log.tagPart({ ...tag, id: randomUUID() })).number).toBe(2);
  });
});

describe('a chart brought in again', () => {
  const bring = (text: string, more: object = {}) =>
    importChart({ jobId: bench().jobId, files: [{ name: 'points.csv', text }], unit: 'mm', ...more });
  const HEAD = 'id;name;side;x;y;z;tolerance\n';
  const REST = `S1L;Sill hole;left;760;-690;150;3
S1R;Sill hole;right;760;690;150;3
R1L;Rear leg hole;left;3240;-420;330;3
R1R;Rear leg hole;right;3240;420;330;3
`;

  it('becomes the next edition: new, changed, gone and same, readings as they were', async () => {
    const before = (await bench().point('F1L')).point;
    const said = `${HEAD}F1L;Front leg hole, large;left;2;-400;540;3\nX9L;Drain hole;left;900;-500;120;3\n${REST}`;
    const counts = valueOf(await bring(said));
    expect(counts).toEqual({ new: 1, changed: 1, gone: 1, same: 4 });
    const { point, reference } = await bench().point('F1L');
    expect([point.id, point.name, reference.x]).toEqual([before.id, 'Front leg hole, large', 2]);
    const rows = await bench().rows();
    const gone = rows.points.find(({ code }) => code === 'F1R')!;
    const inUse = rows.references.find((each) => each.inUse)!;
    expect(inUse.edition).toBe(2);
    const editions = rows.referencePoints.filter(({ pointId }) => pointId === gone.id).map((row) => row.referenceId);
    expect(editions).toEqual([rows.references.find(({ edition }) => edition === 1)!.id]);
    // The dimensions were not spoken of: they are as they were, in both editions.
    expect(rows.referenceDimensions.filter(({ referenceId }) => referenceId === inUse.id)).toHaveLength(2);
    expect(rows.changes).toMatchObject([{ tableName: 'point', after: { name: 'Front leg hole, large' } }]);
  });

  it('that says the same makes no edition', async () => {
    const same = `${HEAD}F1L;Front leg hole;left;0;-400;540;3\nF1R;Front leg hole;right;0;400;540;3\n${REST}`;
    expect(valueOf(await bring(same))).toEqual({ new: 0, changed: 0, gone: 0, same: 6 });
    expect((await bench().rows()).references).toHaveLength(1);
  });

  it('of a size no shell has is asked about', async () => {
    const inches = `${HEAD}A1L;;left;0;-16;20;1\nA1R;;right;0;16;20;1\nB1L;;left;130;-16;20;1\nB1R;;right;130;16;20;1\n`;
    expect(faultsOf(await bring(inches)).map(({ path: at }) => at)).toEqual(['unit']);
    expect((await bench().rows()).references).toHaveLength(1);
    valueOf(await bring(inches, { unit: 'in' }));
    expect((await bench().point('B1L')).reference.x).toBeCloseTo(3302, 6);
  });
});

describe('a whole job', () => {
  const zipOf = async (jobId: string) => {
    const { database } = await store();
    const file = path.join(await mkdtemp(path.join(os.tmpdir(), 'vinkel-zip-')), 'job.zip');
    await pipeline((await exportJob(database, jobId))!.zip, createWriteStream(file));
    return file;
  };
  const bring = async (file: string, as: BringAs) => importJob(await store(), file, as);
  const measured = async () => {
    const roundId = await bench().openRound('As found');
    valueOf(await takeTapeEntry(await bench().height(roundId, 'F1L', 540), randomUUID));
  };

  it('is put away and taken out again, with who did it', async () => {
    const { jobId } = bench();
    for (const away of [true, true, false]) valueOf(await jobs.putAwayJob({ jobId, away }));
    const rows = await bench().rows();
    expect([rows.jobs[0]!.putAwayAt, rows.changes.length]).toEqual([null, 2]);
  });

  it('is removed only as it was exported, for good: the journal does not bring it back', async () => {
    const { jobId } = bench();
    await measured();
    expect(faultsOf(await jobs.removeJob(jobId))[0]!.message).toMatch(/export it first/);
    await zipOf(jobId);
    const [row] = (await bench().rows()).jobs;
    valueOf(await jobs.editJob({ ...row!, owner: 'Alva' }));
    expect(faultsOf(await jobs.removeJob(jobId))[0]!.message).toMatch(/export it first/);
    await zipOf(jobId);
    valueOf(await jobs.removeJob(jobId));
    valueOf(await jobs.removeJob(jobId));
    const { database, folder } = await store();
    expect(await loadJob(database, jobId)).toBeUndefined();
    const fresh = await pglite.open();
    await migrate(fresh);
    await replayJournal(fresh, path.join(folder, 'journal'));
    expect(await loadJob(fresh, jobId)).toBeUndefined();
    await fresh.close();
  });

  it('comes again as a copy beside itself, or as what is missing here', async () => {
    const { jobId } = bench();
    await measured();
    const file = await zipOf(jobId);
    expect(faultsOf(await bring(file, 'new')).map(({ path: at }) => at)).toEqual(['here']);
    const copy = valueOf(await bring(file, 'copy')).jobId;
    expect(copy).not.toBe(jobId);
    const { database } = await store();
    const [own, copied] = [(await loadJob(database, jobId))!, (await loadJob(database, copy))!];
    expect(copied.jobs[0]!.name).toBe('Solbris (copy)');
    expect(copied.readings.map(({ raw }) => raw)).toEqual(own.readings.map(({ raw }) => raw));
    expect(copied.points.some(({ id }) => own.points.some((point) => point.id === id))).toBe(false);
    // Something written since stays; what is lacking is put back.
    const [point] = own.points;
    valueOf(await chart.savePoint({ point: { ...point!, name: 'renamed since' }, reference: null }));
    valueOf(await bring(file, 'missing'));
    const after = (await loadJob(database, jobId))!;
    expect(after.points.find(({ id }) => id === point!.id)!.name).toBe('renamed since');
    expect(after.readings).toHaveLength(own.readings.length);
  });
});

describe('a shell laid out on a picture', () => {
  it('has its points once, and one nobody needs goes again with its lines', async () => {
    const { jobId } = bench();
    const asked = { jobId, body: 'twoDoor' as const, wheelbase: 2350, track: null, height: null };
    const laid = () => layOut({ ...asked, places: ['F2L', 'F4L', 'F4R', 'S1L'] });
    expect(valueOf(await laid()).points).toBe(3);
    expect(valueOf(await laid()).points).toBe(0);
    const before = await bench().rows();
    const { id } = before.points.find(({ code }) => code === 'F4L')!;
    expect(before.memberLines.some(({ fromPointId, toPointId }) => fromPointId === id || toPointId === id)).toBe(true);
    valueOf(await chart.removePoint(id));
    const after = await bench().rows();
    expect(after.points.map(({ code }) => code)).not.toContain('F4L');
    expect(after.jobs[0]).toMatchObject({ body: 'twoDoor', wheelbase: 2350 });
  });
});
