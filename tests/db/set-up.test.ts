import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { setUpPage } from '@/core/report/pages/set-up';
import { madeOf } from '@/core/report/record/made';
import { Job } from '@/core/shell/job/job';
import type { JobRows } from '@/core/shell/job/job-rows';
import { archiveDocuments, readArchiveDocuments } from '@/formats/archive/documents';
import { benchDocument, readBenchFile } from '@/formats/bench';
import { readChecks, readHoles } from '@/formats/gauge-text';
import { readShelf } from '@/formats/shelf-text';
import * as actions from '@/server/actions/set-up';
import { takeTapeEntry } from '@/server/readings';
import { shopBenches } from '@/server/views';
import { benchPerTest, faultsOf, valueOf } from '../support/bench';

const shop = benchPerTest();
const figures = {
  ...{ rails: 4200, pitch: 100, firstHole: 50, span: 1500, beamWidth: 80 },
  ...{ beamTop: 120, beams: 6, reach: 60, footprint: 90, note: '' },
};
const SHELF = 'T200; tower; 200; 4\nT100; tower; 100; 4\nS20; spacer; 20; 6\ncone; head; 55; 6; 24; 2; 9; 24; 400';

function benchInput(name: string, text = SHELF) {
  const [benchId, id] = [randomUUID(), randomUUID()];
  const { items } = readShelf(text, 'mm', id, randomUUID);
  return { bench: { id: benchId, name, kind: 'fixture' as const }, version: { ...figures, id, benchId }, items };
}

/** A bench, and a set-up of the job begun on it. */
async function begun() {
  const bench = benchInput('Rails');
  valueOf(await actions.addBench(bench));
  const id = randomUUID();
  const { jobId } = shop();
  const place = { x: 500, y: 0, z: 300 };
  const weight = { kilograms: null, centreX: null, centreY: null };
  const setUp = { id, jobId, benchVersionId: bench.version.id, suspension: 'off' as const, ...weight, ...place };
  valueOf(
    await actions.startSetUp({ setUp, item: { id, jobId, version: 1, kind: 'setUp', code: 'set-up', name: 'Rails' } }),
  );
  return { bench, setUp };
}

const mountOn = (setUpId: string, pointId: string, ordinal: number) => ({
  ...{ id: randomUUID(), setUpId, ordinal, pointId, name: '', x: null, y: null, z: null },
  ...{ hole: null, floor: null, headId: null, lift: null },
});
/** What the record says that the first mount stands on. */
const made = (rows: JobRows) => madeOf(Job.of(rows)).setUps![0]!.mounts[0]!.on;
const page = async () => setUpPage(Job.of(await shop().rows()));

describe('a set-up', () => {
  it('is planned, built and ticked, and is in the job’s archive with the bench it stands on', async () => {
    const { bench, setUp } = await begun();
    valueOf(await actions.addBench(benchInput('Another, not used')));
    const rows = await shop().rows();
    const corners = ['F1L', 'F1R', 'R1L', 'R1R'].map((code) => rows.points.find((point) => point.code === code)!);
    const mounts = corners.map(({ id }, i) => mountOn(setUp.id, id, i));
    valueOf(await actions.setMounts({ setUpId: setUp.id, mounts, pieces: [] }));
    const tick = { id: randomUUID(), itemId: setUp.id, kind: 'ticked' as const, key: mounts[0]!.id, reason: '' };
    valueOf(await actions.noteSetUp(tick));
    valueOf(await actions.noteSetUp(tick));
    const height = { ...tick, id: randomUUID(), kind: 'checked' as const };
    expect(faultsOf(await actions.noteSetUp(height))).toHaveLength(1);
    valueOf(await actions.noteSetUp({ ...height, value: 512.5 }));
    const { planned } = await page();
    expect(planned!.checked).toEqual(new Map([[mounts[0]!.id, 512.5]]));
    expect(planned!.ticked).toEqual([mounts[0]!.id]);
    expect(planned!.built.mounts.map(({ hole }) => hole)).toEqual([5, 5, 37, 37]);

    const now = await shop().rows();
    const read = readArchiveDocuments(archiveDocuments(now));
    if (!read.ok) throw new Error(JSON.stringify(read.faults));
    expect(read.value.benches.map(({ name }) => name)).toEqual(['Rails']);
    expect(read.value.shelfItems).toHaveLength(bench.items.length);
    for (const table of ['setUps', 'mounts', 'workItems', 'workEvents'] as const)
      expect(read.value[table]).toEqual(now[table]);
  });

  it('keeps what a ticked mount was built of, whatever is planned after, until it is built no more', async () => {
    const { bench, setUp } = await begun();
    const { points } = await shop().rows();
    const mounts = ['F1L', 'F1R', 'R1L'].map((code, i) => {
      const point = points.find((each) => each.code === code)!;
      return mountOn(setUp.id, point.id, i);
    });
    const [first, second] = mounts;
    valueOf(await actions.setMounts({ setUpId: setUp.id, mounts, pieces: [] }));
    const [head, tower] = [bench.items.at(-1)!, bench.items[0]!];
    const event = {
      id: randomUUID(),
      itemId: setUp.id,
      kind: 'ticked' as const,
      key: first!.id,
      reason: '',
      value: null,
    };
    const piece = (ordinal: number, mountId = first!.id) => ({
      ...{ id: randomUUID(), mountId },
      ...{ ordinal, shelfItemId: tower.id },
    });
    const pieces = [piece(0), piece(1)];
    const ticked = { event, headId: head.id, lift: 12.5, pieces };
    valueOf(await actions.tickMount(ticked));
    valueOf(await actions.tickMount(ticked));
    const strange = { ...ticked, event: { ...event, id: randomUUID(), key: randomUUID() }, pieces: [] };
    expect(faultsOf(await actions.tickMount(strange))[0]!.message).toContain('not in the set-up any more');
    expect(faultsOf(await actions.tickMount({ ...ticked, pieces: [piece(0, second!.id)] }))).toHaveLength(1);
    expect(faultsOf(await actions.tickMount({ ...ticked, lift: null }))[0]!.path).toBe('lift');
    const { planned } = await page();
    expect(planned!.ticked).toEqual([first!.id]);
    expect(planned!.built.mounts[0]).toMatchObject({ headId: head.id, pieceIds: [tower.id, tower.id] });
    expect(made(await shop().rows())).toEqual(['T200', 'T200', 'cone']);

    // Another is left out, by a window that had not heard of the tick: what is built stays so.
    const unheard = mounts.filter(({ id }) => id !== second!.id);
    valueOf(await actions.setMounts({ setUpId: setUp.id, mounts: unheard, pieces: [] }));
    expect((await page()).planned!.built.mounts[0]).toMatchObject({ pieceIds: [tower.id, tower.id] });
    // Left out itself and put back by undo it stands as it stood.
    valueOf(await actions.setMounts({ setUpId: setUp.id, mounts: [], pieces: [] }));
    const undone = { ...first!, headId: head.id, lift: 12.5 };
    valueOf(await actions.setMounts({ setUpId: setUp.id, mounts: [undone], pieces }));
    expect((await page()).planned!.built.mounts[0]).toMatchObject({ headId: head.id, pieceIds: [tower.id, tower.id] });
    const unticked = { event: { ...event, id: randomUUID(), kind: 'unticked' as const }, headId: null, lift: null };
    valueOf(await actions.tickMount({ ...unticked, pieces: [] }));
    const open = await shop().rows();
    expect([open.mounts.every(({ headId }) => headId === null), open.mountPieces]).toEqual([true, []]);
  });

  it('puts mounts in place of those before, and keeps how a changed figure was', async () => {
    const { setUp } = await begun();
    const { points } = await shop().rows();
    const first = [mountOn(setUp.id, points[0]!.id, 0), mountOn(setUp.id, points[1]!.id, 1)];
    valueOf(await actions.setMounts({ setUpId: setUp.id, mounts: first, pieces: [] }));
    const second = [first[1]!, mountOn(setUp.id, points[2]!.id, 1)];
    valueOf(await actions.setMounts({ setUpId: setUp.id, mounts: second, pieces: [] }));
    const row = (await shop().rows()).setUps[0]!;
    valueOf(await actions.changeSetUp({ ...row, kilograms: 240 }));
    expect(faultsOf(await actions.changeSetUp({ ...row, kilograms: 250 }))[0]!.message).toContain('somebody else');
    const rows = await shop().rows();
    expect(rows.mounts.map(({ id }) => id).sort()).toEqual(second.map(({ id }) => id).sort());
    expect(rows.changes.filter(({ tableName }) => tableName === 'set_up')).toMatchObject([
      { before: { kilograms: null }, after: { kilograms: 240 } },
    ]);
  });

  it('is what a round opened after it stands on', async () => {
    const before = await shop().openRound('On the floor');
    const { setUp } = await begun();
    const after = await shop().openRound('On the rails');
    const { rounds } = await shop().rows();
    expect(rounds.find(({ id }) => id === before)!.setUpId).toBeNull();
    expect(rounds.find(({ id }) => id === after)!.setUpId).toBe(setUp.id);
  });

  it('refuses a mount on another job’s point, a mount of another set-up, one that stands nowhere', async () => {
    const { setUp } = await begun();
    const strange = mountOn(setUp.id, randomUUID(), 0);
    expect(faultsOf(await actions.setMounts({ setUpId: setUp.id, mounts: [strange], pieces: [] })).length).toBe(1);
    const { points } = await shop().rows();
    const other = mountOn(randomUUID(), points[0]!.id, 0);
    expect(faultsOf(await actions.setMounts({ setUpId: setUp.id, mounts: [other], pieces: [] })).length).toBe(1);
    const nowhere = { ...mountOn(setUp.id, points[0]!.id, 0), pointId: null };
    expect(faultsOf(await actions.setMounts({ setUpId: setUp.id, mounts: [nowhere], pieces: [] })).length).toBe(1);
    expect((await shop().rows()).mounts).toEqual([]);
  });
});

describe('a bench', () => {
  it('changes by versions: a set-up stays on the one it was planned on', async () => {
    const { bench } = await begun();
    const version = { ...bench.version, id: randomUUID(), rails: 5000 };
    valueOf(await actions.reviseBench({ version, items: [] }));
    expect((await page()).planned!.bench.version.rails).toBe(4200);
    const newest = (await shopBenches()).find(({ bench: each }) => each.id === bench.bench.id)!;
    expect(newest.version).toMatchObject({ rails: 5000, number: 2 });
  });

  it('goes out as a file of its own and comes in as a bench of another shop', async () => {
    const own = benchInput('Rails to go out');
    valueOf(await actions.addBench(own));
    const listed = async () => (await shopBenches()).filter(({ bench }) => bench.name === own.bench.name);
    const text = JSON.stringify(benchDocument((await listed())[0]!));
    expect(text).not.toContain(own.bench.id);
    const read = readBenchFile(text, randomUUID);
    if (!read.ok) throw new Error(JSON.stringify(read.faults));
    valueOf(await actions.addBench(read.value));
    const both = (await listed()).map((each) => benchDocument(each));
    expect(both).toHaveLength(2);
    expect(both[0]).toEqual(both[1]);
    expect(readBenchFile('{"format":"vinkel.bench/1","bench":{"name":""}}', randomUUID)).toMatchObject({ ok: false });
  });

  it('refuses a shelf whose lines say nothing that can be built of, each by its line', () => {
    const { items, faults } = readShelf(
      'T100; tower; 0; 4\nX; wheel; 10; 2\nS20; spacer; 20; many\nT5; tower; 5',
      'mm',
      randomUUID(),
      randomUUID,
    );
    expect(items.map(({ code }) => code)).toEqual(['T5']);
    expect(faults.map(({ message }) => message.split(':')[0])).toEqual(['line 1', 'line 2', 'line 3']);
  });
});

describe('a part as a gauge', () => {
  const figures = { code: 'axle', name: 'Axle beam', sd: 0.3, version: 1 };
  const part = () => {
    const id = randomUUID();
    const { holes } = readHoles('1; 0; -410; 20\n2; 0; 410; 20\n3; 300; 0; 20', 'mm', { id, holes: [] }, randomUUID);
    const { checks } = readChecks('1; 2; 820', 'mm', { id, holes }, randomUUID);
    return { part: { ...figures, id, jobId: shop().jobId }, holes, checks };
  };

  it('is written whole, changed by versions, and is in the job’s archive', async () => {
    const axle = part();
    valueOf(await actions.saveGaugePart(axle));
    const less = { ...axle, part: { ...axle.part, name: 'Front axle beam' }, checks: [] };
    valueOf(await actions.saveGaugePart(less));
    expect((await actions.saveGaugePart(axle)).ok).toBe(false);
    const now = await shop().rows();
    expect([now.gaugeParts[0]!.name, now.partHoles.length, now.partChecks.length]).toEqual(['Front axle beam', 3, 0]);
    const read = readArchiveDocuments(archiveDocuments(now));
    if (!read.ok) throw new Error(JSON.stringify(read.faults));
    expect([read.value.gaugeParts, read.value.partHoles]).toEqual([now.gaugeParts, now.partHoles]);
  });

  it('keeps the holes that were read in a round', async () => {
    const axle = part();
    valueOf(await actions.saveGaugePart(axle));
    const roundId = await shop().openRound('As found');
    const entry = await shop().height(roundId, 'F1L', 540);
    const reading = {
      ...entry.readings[0]!,
      quantity: 'fixture' as const,
      partHoleId: axle.holes[2]!.id,
      fit: 'none' as const,
    };
    valueOf(await takeTapeEntry({ ...entry, readings: [reading] }, randomUUID));
    const other = { ...axle.holes[2]!, id: randomUUID(), code: '4' };
    const answer = await actions.saveGaugePart({ ...axle, holes: [...axle.holes.slice(0, 2), other], checks: [] });
    expect(faultsOf(answer)).toEqual([{ path: 'holes', message: expect.stringContaining('hole 3 was read') }]);
  });

  it('refuses holes of another part, and fewer than three', async () => {
    const axle = part();
    expect(faultsOf(await actions.saveGaugePart({ ...axle, holes: axle.holes.slice(0, 2), checks: [] }))).toHaveLength(
      1,
    );
    const holes = axle.holes.map((hole) => ({ ...hole, gaugePartId: randomUUID() }));
    expect(faultsOf(await actions.saveGaugePart({ ...axle, holes }))).toHaveLength(1);
  });
});

describe('what the fourth version wrote', () => {
  it('is read as an archive: no benches and no set-ups, everything else as it was', () => {
    const files = ['job.json', 'rounds/01.json', 'rounds/02.json'];
    const read = readArchiveDocuments(
      files.map((name) => ({ path: name, text: readFileSync(path.join('tests/fixtures/v4/solbris', name), 'utf8') })),
    );
    if (!read.ok) throw new Error(JSON.stringify(read.faults.slice(0, 3)));
    expect([read.value.benches, read.value.setUps, read.value.mounts]).toEqual([[], [], []]);
    expect(read.value.readings.length).toBeGreaterThan(100);
    expect(readArchiveDocuments(archiveDocuments(read.value))).toEqual(read);
  });
});
