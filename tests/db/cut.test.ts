import { randomUUID } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { cuttingPage } from '@/core/report/pages/cutting';
import { NEW_BRACE, NEW_PANEL } from '@/core/shell/job/entities';
import { Job } from '@/core/shell/job/job';
import { upgradeRows } from '@/core/shell/job/upgrades';
import { migrate } from '@/db/migrate';
import { archiveDocuments, readArchiveDocuments } from '@/formats/archive/documents';
import { structureDocument } from '@/formats/structure-file';
import { cutModel } from '@/core/plan/cut/cut-model';
import { savePoint } from '@/server/actions/chart';
import * as actions from '@/server/actions/cut';
import { planBrace, recordItemEvent, withdraw } from '@/server/actions/work';
import { migrationsBefore } from '../support/before-migration';
import { benchPerTest, faultsOf, valueOf } from '../support/bench';
import { pglite } from '../support/engines';

const shop = benchPerTest();
const job = async () => Job.of(await shop().rows());
const page = async () => cuttingPage(await job());

/** A panel of a stage begun with it. */
async function sill(more: Partial<Parameters<typeof actions.savePanel>[0]> = {}) {
  const { jobId } = shop();
  const [id, stageId] = [randomUUID(), randomUUID()];
  const { point } = await shop().point('S1L');
  return {
    item: { id, jobId, kind: 'panel' as const, code: 'panel-1', name: 'Left sill', version: 1 },
    panel: { ...NEW_PANEL, id, jobId, part: 'Left sill', side: 'left' as const, stageId },
    points: [{ panelId: id, pointId: point.id, fate: 'goes' as const }],
    parts: [{ panelId: id, code: 'S1L-S2L', share: 1 }],
    lines: [
      { id: randomUUID(), panelId: id, label: 'A', edge: 'post', distance: 42, readBack: null, kerf: null, gap: null },
    ],
    joints: [],
    stage: {
      item: { id: stageId, jobId, kind: 'stage' as const, code: 'stage-1', name: 'Sill out', version: 1 },
      stage: { id: stageId, jobId, ordinal: 0, version: 1 },
    },
    ...more,
  };
}

const NOTHING = { members: [], sheets: [], without: [], added: [] };
const keep = (changes: Partial<Parameters<typeof actions.keepStructure>[0]>) =>
  actions.keepStructure({ id: randomUUID(), jobId: shop().jobId, ...NOTHING, ...changes });

describe('a panel that is to be cut', () => {
  it('is written whole with its stage, is corrected, and what is not there any more is taken away', async () => {
    const planned = await sill();
    valueOf(await actions.savePanel(planned));
    const [view] = (await page()).panels;
    expect(view).toMatchObject({ codes: ['S1L'], lines: [{ label: 'A' }], parts: [{ code: 'S1L-S2L' }] });
    expect((await page()).stages).toMatchObject([{ name: 'Sill out', state: 'planned', panels: ['Left sill'] }]);
    const { stage: _, ...again } = planned;
    const choice = { ...planned.panel, choice: 'remade' as const, reason: 'nobody makes it' };
    valueOf(await actions.savePanel({ ...again, panel: choice, points: [], lines: [] }));
    const [now] = (await page()).panels;
    expect(now).toMatchObject({ codes: [], lines: [], panel: { choice: 'remade', version: 2 } });
    expect((await shop().rows()).changes.map(({ tableName }) => tableName)).toEqual(['panel']);
    const [fault] = faultsOf(await actions.savePanel({ ...again, panel: choice }));
    expect(fault!.message).toMatch(/somebody else changed this meanwhile/);
  });

  it('refuses what belongs to another panel, and a stage that is none', async () => {
    const planned = await sill();
    const strange = planned.points.map((point) => ({ ...point, panelId: randomUUID() }));
    expect(faultsOf(await actions.savePanel({ ...planned, points: strange }))).toHaveLength(1);
    const stage = { ...planned.stage, item: { ...planned.stage.item, id: randomUUID() } };
    expect(faultsOf(await actions.savePanel({ ...planned, stage }))).toHaveLength(1);
    expect((await shop().rows()).panels).toEqual([]);
  });

  it('is taken back with its reason, and sets nothing loose any more', async () => {
    const planned = await sill();
    valueOf(await actions.savePanel(planned));
    const row = { jobId: shop().jobId, tableName: 'work_item' as const, rowId: planned.item.id };
    valueOf(await withdraw({ id: randomUUID(), ...row, kind: 'withdrawn', reason: 'it stays after all' }));
    expect((await job()).panels).toEqual([]);
    expect((await page()).stages[0]).toMatchObject({ panels: [] });
  });
});

describe('the panels of a stage', () => {
  it('come out in the order they are put in, and somebody who has an older order is told', async () => {
    const first = await sill();
    valueOf(await actions.savePanel(first));
    const { stage: _, ...second } = await sill();
    const panel = { ...second.panel, part: 'Left floor', stageId: first.panel.stageId };
    valueOf(
      await actions.savePanel({ ...second, panel, item: { ...second.item, code: 'panel-2', name: 'Left floor' } }),
    );
    const order = (...ids: readonly string[]) => ({
      jobId: shop().jobId,
      panels: ids.map((id) => ({ id, version: 1 })),
    });
    expect((await page()).panels.map((each) => each.panel.part)).toEqual(['Left floor', 'Left sill']);
    valueOf(await actions.orderPanels(order(first.panel.id, second.panel.id)));
    expect((await page()).panels.map((each) => each.panel.part)).toEqual(['Left sill', 'Left floor']);
    // The floor has a newer version since.
    expect(faultsOf(await actions.orderPanels(order(second.panel.id, first.panel.id)))[0]!.message).toMatch(
      /somebody else changed this meanwhile/,
    );
    const strange = await actions.orderPanels(order(first.panel.id, randomUUID()));
    expect(faultsOf(strange)).toMatchObject([{ path: 'panels', message: 'one of these panels is not here any more' }]);
  });
});

describe('blasting', () => {
  it('is planned, its drawn marks are punched, and it is done', async () => {
    const { jobId } = shop();
    const { point, reference } = await shop().point('S1L');
    const other = await shop().point('S1R');
    valueOf(await savePoint({ point: { ...point, kind: 'drawn' }, reference }));
    const item = { id: randomUUID(), jobId, kind: 'blasting' as const, code: 'blasting-1', name: 'floor' };
    valueOf(await actions.planBlasting(item));
    expect(faultsOf(await actions.planBlasting({ ...item, id: randomUUID(), kind: 'panel' }))).toHaveLength(1);
    expect((await page()).blastings).toMatchObject([{ item: { name: 'floor' }, drawn: [{ code: 'S1L' }] }]);
    valueOf(await actions.punchPoints({ jobId, pointIds: [point.id, other.point.id] }));
    const { points, changes } = await shop().rows();
    expect(points.map(({ id, kind }) => [id === point.id, kind]).filter(([, kind]) => kind !== 'shell')).toEqual([
      [true, 'punch'],
    ]);
    expect(changes.at(-1)).toMatchObject({ tableName: 'point', rowId: point.id });
    const event = { id: randomUUID(), itemId: item.id, key: '', reason: '', value: null };
    valueOf(await recordItemEvent({ ...event, kind: 'done' }));
    expect((await page()).blastings).toMatchObject([{ drawn: [], doneAt: expect.any(String) as unknown, found: 0 }]);
  });
});

describe('a structure', () => {
  it('begins with a body’s picture; each change is an edition, and the ones before stay', async () => {
    valueOf(await keep({ body: 'estate' }));
    const [part] = (await page()).worked!.parts.filter(({ kind }) => kind === 'member');
    const { code, width, height, wall } = part!;
    valueOf(await keep({ members: [{ code, width: width!, height: height!, wall, condition: 0.4 }] }));
    const { worked } = await page();
    expect(worked).toMatchObject({ template: 'estate', edition: 2 });
    expect(worked!.parts.find((each) => each.code === code)!.condition).toBe(0.4);
    valueOf(await keep({ without: [code] }));
    expect((await page()).worked!.parts.some((each) => each.code === code)).toBe(false);
    expect((await shop().rows()).structures.map(({ edition }) => edition)).toEqual([1, 2, 3]);
  });

  it('refuses a member to nowhere, at its place', async () => {
    valueOf(await keep({ body: 'estate' }));
    const added = [{ name: '', from: 'S1L', to: 'nowhere', width: 40, height: 40, wall: 1, condition: 1 }];
    expect(faultsOf(await keep({ added }))).toMatchObject([{ path: 'added.0.to', message: 'no node “nowhere”' }]);
    const itself = [{ ...added[0]!, to: 'S1L' }];
    expect(faultsOf(await keep({ added: itself }))).toMatchObject([{ message: 'a member has two ends' }]);
    expect((await shop().rows()).structures).toHaveLength(1);
  });

  it('comes back from a file, and a file that is none is refused by its place', async () => {
    valueOf(await keep({ body: 'estate' }));
    const cut = cutModel(await job())!;
    const document = JSON.stringify(structureDocument(cut.structure.model, cut.stands.supports));
    const { jobId } = shop();
    valueOf(await actions.importStructure({ id: randomUUID(), jobId, document }));
    expect((await page()).worked).toMatchObject({ template: 'file', edition: 2 });
    const faults = faultsOf(await actions.importStructure({ id: randomUUID(), jobId, document: '{"format":1}' }));
    expect(faults.length).toBeGreaterThan(0);
    expect((await shop().rows()).structures).toHaveLength(2);
  });
});

describe('a gate', () => {
  it('is ticked on its stage, once however often it is said, and each by itself', async () => {
    const planned = await sill();
    valueOf(await actions.savePanel(planned));
    valueOf(await keep({ body: 'estate' }));
    const tick = (key: string, kind: 'ticked' | 'unticked' | 'removed') =>
      recordItemEvent({ id: randomUUID(), itemId: planned.stage.stage.id, kind, key, reason: '', value: null });
    valueOf(await tick('tank', 'ticked'));
    valueOf(await tick('glass', 'ticked'));
    valueOf(await tick('tank', 'ticked'));
    const state = async (key: string) => (await page()).worked!.gates.find((gate) => gate.key === key)!.state;
    expect([await state('tank'), await state('glass'), await state('struts')]).toEqual(['done', 'done', 'open']);
    expect((await shop().rows()).workEvents).toHaveLength(2);
    valueOf(await tick('tank', 'unticked'));
    expect(await state('tank')).toBe('open');
    valueOf(await tick('', 'removed'));
    expect((await page()).stages[0]).toMatchObject({ state: 'out' });
  });
});

describe('what was decided and read', () => {
  it('is kept: a proposal declined, allowed again; a press test; a room kept free and not any more', async () => {
    valueOf(await keep({ body: 'estate' }));
    const { jobId } = shop();
    const base = { jobId, kind: 'brace' as const, key: 'S1L S1R', basis: 'template', shown: '' };
    expect(
      faultsOf(await actions.decideAdvice({ id: randomUUID(), ...base, choice: 'declined', reason: '' })),
    ).toMatchObject([{ path: 'reason', message: 'say why not' }]);
    valueOf(await actions.decideAdvice({ id: randomUUID(), ...base, choice: 'declined', reason: 'my arms' }));
    expect((await page()).worked!.declined.map(({ key }) => key)).toEqual(['S1L S1R']);
    valueOf(await actions.decideAdvice({ id: randomUUID(), ...base, choice: 'allowed', reason: '' }));
    expect((await page()).worked!.declined).toEqual([]);
    const room = { minX: 0, minY: 0, minZ: 0, maxX: 1, maxY: 1, maxZ: 1, moveX: 0, moveY: 0, moveZ: 0 };
    const id = randomUUID();
    valueOf(await actions.saveKeepOut({ id, jobId, name: 'door', panelId: null, ...room }));
    expect((await page()).keepOuts).toHaveLength(1);
    valueOf(await actions.removeKeepOut({ id }));
    expect((await page()).keepOuts).toEqual([]);
  });

  it('a check after the cut is written once with its readings, and needs one of them or the door', async () => {
    const planned = await sill();
    valueOf(await actions.savePanel(planned));
    const { jobId } = shop();
    const id = randomUUID();
    const check = {
      id,
      jobId,
      after: 'cut' as const,
      stageId: planned.panel.stageId,
      door: null,
      frontGap: null,
      rearGap: null,
    };
    expect(faultsOf(await actions.addCheck({ check, readings: [] }))).toMatchObject([{ path: 'readings' }]);
    const [a, b] = [(await shop().point('S1L')).point.id, (await shop().point('S1R')).point.id];
    const instrumentVersionId = '00000000-0000-4000-8000-000000000201';
    const reading = { id: randomUUID(), checkId: id, fromPointId: a, toPointId: b, value: 1380.5, instrumentVersionId };
    valueOf(await actions.addCheck({ check, readings: [reading] }));
    const rows = await shop().rows();
    expect(rows.removalReadings).toEqual([reading]);
    const read = readArchiveDocuments(archiveDocuments(rows));
    expect(read.ok && read.value.removalChecks).toEqual(rows.removalChecks);
  });

  it('a brace is turned so far in all; said twice it was turned once', async () => {
    const { jobId } = shop();
    const [from, to] = [(await shop().point('S1L')).point.id, (await shop().point('S1R')).point.id];
    const id = randomUUID();
    const item = { id, jobId, kind: 'brace' as const, code: 'X1', name: 'X1' };
    const brace = {
      id,
      jobId,
      fromPointId: from,
      toPointId: to,
      kind: 'adjustable' as const,
      ...NEW_BRACE,
      threadPitch: 1.5,
    };
    valueOf(await planBrace({ item, brace, dimensionIds: [] }));
    const turn = { id: randomUUID(), itemId: id, kind: 'turned' as const, key: '', reason: '', value: 1 };
    valueOf(await recordItemEvent(turn));
    valueOf(await recordItemEvent({ ...turn, id: randomUUID() }));
    valueOf(await recordItemEvent({ ...turn, id: randomUUID(), value: 2 }));
    expect((await shop().rows()).workEvents.flatMap(({ value }) => value ?? [])).toEqual([1, 2]);
    expect(faultsOf(await recordItemEvent({ ...turn, id: randomUUID(), value: null }))).toHaveLength(1);
  });
});

describe('braces of the fifth version', () => {
  it('are items of work when its archive is read, what was told of their tubes kept in words', () => {
    const folder = 'tests/fixtures/v5/solbris';
    const files = ['job.json', ...readdirSync(path.join(folder, 'rounds')).map((name) => `rounds/${name}`)];
    const read = readArchiveDocuments(
      files.map((name) => ({ path: name, text: readFileSync(path.join(folder, name), 'utf8') })),
    );
    if (!read.ok) throw new Error(JSON.stringify(read.faults.slice(0, 3)));
    const now = Job.of(read.value);
    expect(now.braces.map(({ code, section }) => `${code} ${section}`)).toEqual([
      'X1 square tube 25×25×2',
      'X2 square tube 25×25×2',
      'X3 square tube 40×40×3',
      'X4 square tube 25×25×2',
    ]);
    expect(now.braceEvents.map(({ kind }) => kind).sort()).toEqual([
      ...['fitted', 'fitted', 'fitted', 'planned', 'planned', 'planned', 'planned'],
    ]);
    expect(now.panels.length).toBe(1);
    expect(readArchiveDocuments(archiveDocuments(read.value))).toEqual(read);
  });

  it('are the same in a database that was there, and of a line of its journal', async () => {
    const before = migrationsBefore('0010');
    const database = await pglite.open();
    await migrate(database, before);
    const [jobId, a, b, x, event] = Array.from({ length: 5 }, randomUUID);
    await database.query(
      `insert into job (id, name, shell, identity_number, owner, shop, driver_side, bench, note, started_at, version)
       values ($1, 'Old', '', '', '', '', 'left', '', '', now(), 1)`,
      [jobId],
    );
    for (const [id, code] of [
      [a, 'A'],
      [b, 'B'],
    ])
      await database.query(
        `insert into point (id, job_id, code, name, side, mirrored, version) values ($1, $2, $3, '', 'left', true, 1)`,
        [id, jobId, code],
      );
    const old = { id: x, jobId, code: 'X1', fromPointId: a, toPointId: b, kind: 'weldedTube', section: '25×25×2' };
    await database.query(
      `insert into brace (id, job_id, code, from_point_id, to_point_id, kind, section, round_id, note, version)
       values ($1, $2, 'X1', $3, $4, 'weldedTube', '25×25×2', null, 'at the post', 1)`,
      [x, jobId, a, b],
    );
    await database.query(
      `insert into brace_event (id, brace_id, kind, at, author, note) values ($1, $2, 'fitted', now(), 'Nils', '')`,
      [event, x],
    );
    await migrate(database);
    const [row] = await database.query<{ note: string; code: string; kind: string }>(
      `select brace.note, work_item.code, work_event.kind
       from brace join work_item using (id) join work_event on work_event.item_id = brace.id`,
    );
    expect(row).toEqual({ note: '25×25×2; at the post', code: 'X1', kind: 'fitted' });
    const upgraded = upgradeRows({ braces: [{ ...old, roundId: null, note: 'at the post', version: 1 }] }, 5);
    expect(upgraded).toMatchObject({
      workItems: [{ id: x, kind: 'brace', code: 'X1' }],
      braces: [{ id: x, note: '25×25×2; at the post', fromEnd: 'doubled' }],
    });
    await database.close();
  });
});
