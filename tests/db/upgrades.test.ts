import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { mkdtemp, writeFile } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { disturbedPoints } from '@/core/round/observe/disturbed';
import { judgeRound } from '@/core/round/judge/judge-round';
import { pullingPage } from '@/core/report/pages/pulling';
import { Job } from '@/core/shell/job/job';
import { ROWS_VERSION, upgradeDocument, versionOfFormat } from '@/core/shell/job/upgrades';
import { recordDocument } from '@/core/shell/record-document';
import { loadJob } from '@/db/jobs';
import { replayFirstFormat } from '@/db/journal/first-format';
import { migrate } from '@/db/migrate';
import { archiveDocuments, readArchiveDocuments } from '@/formats/archive/documents';
import { migrationsBefore } from '../support/before-migration';
import { demoRows } from '../support/demo-rows';
import { pglite } from '../support/engines';

const V1 = 'tests/fixtures/v1';
const text = (name: string) => readFileSync(path.join(V1, name), 'utf8');

/** The estate as it was exported by the first version. */
const archive = ['job.json', 'rounds/01.json', 'rounds/02.json'].map((name) => ({
  path: name,
  text: text(`solbris/${name}`),
}));

describe('what the second version wrote', () => {
  const V2 = 'tests/fixtures/v2';
  const estate = ['job.json', 'rounds/01.json', 'rounds/02.json'].map((name) => ({
    path: name,
    text: readFileSync(path.join(V2, 'solbris', name), 'utf8'),
  }));

  it('is read as an archive, with who closed its rounds left open, as it was', () => {
    const read = readArchiveDocuments(estate);
    if (!read.ok) throw new Error(JSON.stringify(read.faults.slice(0, 3)));
    const { roundEvents, changes, ...rows } = read.value;
    expect([roundEvents, changes]).toEqual([[], []]);
    expect(rows.readings).toHaveLength(
      [1, 2].reduce((sum, i) => sum + JSON.parse(estate[i]!.text).rows.readings.length, 0),
    );
    const again = readArchiveDocuments(archiveDocuments(read.value));
    expect(again).toEqual(read);
  });

  it('is read as a signed record, as it was signed', () => {
    const { rows } = JSON.parse(readFileSync(path.join(V2, 'lodd/job.json'), 'utf8')) as {
      rows: { signedRecords: { snapshot: unknown }[] };
    };
    expect(rows.signedRecords.length).toBeGreaterThan(0);
    for (const { snapshot } of rows.signedRecords) expect(recordDocument.parse(snapshot)).toEqual(snapshot);
  });
});

describe('what the sixth version wrote', () => {
  const files = ['job.json', 'rounds/01.json', 'rounds/02.json'];
  const estate = files.map((name) => ({
    path: name,
    text: readFileSync(path.join('tests/fixtures/v6/solbris', name), 'utf8'),
  }));
  const old = (JSON.parse(estate[0]!.text) as { rows: Record<string, Record<string, unknown>[]> }).rows;

  it('has pulls that are items of work now, with what happened to them and what holds against them', () => {
    const read = readArchiveDocuments(estate);
    if (!read.ok) throw new Error(JSON.stringify(read.faults.slice(0, 3)));
    const job = Job.of(read.value);
    expect(job.pulls.map(({ id, code }) => [id, code])).toEqual(old.pulls!.map(({ id, code }) => [id, code]));
    expect(job.pullEvents.map(({ id, kind, pullId }) => [id, kind, pullId])).toEqual(
      old.pullEvents!.map(({ id, kind, pullId }) => [id, kind, pullId]),
    );
    expect(read.value.holds.map(({ id, itemId, pointId }) => [id, itemId, pointId])).toEqual(
      old.pullHolds!.map(({ id, pullId, pointId }) => [id, pullId, pointId]),
    );
    expect(read.value.strokes).toEqual([]);
    expect(readArchiveDocuments(archiveDocuments(read.value))).toEqual(read);
  });
});

describe('what the seventh version wrote', () => {
  const estate = ['job.json', 'rounds/01.json', 'rounds/02.json'].map((name) => ({
    path: name,
    text: readFileSync(path.join('tests/fixtures/v7/solbris', name), 'utf8'),
  }));

  it('has pulls at one place each, anchored to nothing that is named', () => {
    const read = readArchiveDocuments(estate);
    if (!read.ok) throw new Error(JSON.stringify(read.faults.slice(0, 3)));
    expect(read.value.pulls.map(({ anchor }) => anchor)).toEqual([null]);
    expect(read.value.plates).toEqual([]);
    expect(read.value.holds.length).toBeGreaterThan(0);
    expect(readArchiveDocuments(archiveDocuments(read.value))).toEqual(read);
  });
});

describe('what the eighth version wrote', () => {
  const files = ['job.json', 'rounds/01.json', 'rounds/02.json'];
  const kept = files.map((name) => readFileSync(path.join('tests/fixtures/v8/solbris', name), 'utf8'));

  it('has joints of its panels by the names they were let go under, and fixings of the whole panel', () => {
    const job = JSON.parse(kept[0]!) as { rows: { letGos: unknown[]; hungPanels: { id: string }[] } };
    const hungId = job.rows.hungPanels[0]!.id;
    const test = { hungId, sprung: 0.4, most: 1, at: '2026-11-26T10:00:00.000Z', author: 'Nils' };
    job.rows.letGos = ['foot', 'head', 'foot'].map((place, i) => ({
      ...{ ...test, place, id: `00000000-0000-4000-8000-00000000000${i}` },
    }));
    const texts = [JSON.stringify(job), ...kept.slice(1)];
    const read = readArchiveDocuments(files.map((name, i) => ({ path: name, text: texts[i]! })));
    if (!read.ok) throw new Error(JSON.stringify(read.faults.slice(0, 3)));
    const { panelJoints, letGos, fixings } = read.value;
    expect(panelJoints.map(({ name, edge, jointId }) => [name, edge, jointId])).toEqual([
      ['foot', null, null],
      ['head', null, null],
    ]);
    expect(letGos).toHaveLength(3);
    expect(fixings.map(({ joint }) => joint)).toEqual(fixings.map(() => null));
    expect(readArchiveDocuments(archiveDocuments(read.value))).toEqual(read);
  });
});

describe('what the ninth version wrote', () => {
  const files = ['job.json', 'rounds/01.json', 'rounds/02.json'];

  it('has seams that are laid by themselves, and nothing of what came after', () => {
    const read = readArchiveDocuments(
      files.map((name) => ({ path: name, text: readFileSync(path.join('tests/fixtures/v9/solbris', name), 'utf8') })),
    );
    if (!read.ok) throw new Error(JSON.stringify(read.faults.slice(0, 3)));
    const { weldSeams, weldMarks, cracks, stiffeners, axleReadings } = read.value;
    expect(weldSeams.map(({ inTurnWithId }) => inTurnWithId)).toEqual([null, null, null]);
    expect([weldMarks, cracks, stiffeners, axleReadings]).toEqual([[], [], [], []]);
    expect(readArchiveDocuments(archiveDocuments(read.value))).toEqual(read);
  });
});

describe('what the tenth version wrote', () => {
  it('says nothing of whom its authors are or what its people may do, and nothing is guessed', () => {
    const read = readArchiveDocuments(
      ['job.json', 'rounds/01.json', 'rounds/02.json'].map((name) => ({
        path: name,
        text: readFileSync(path.join('tests/fixtures/v10/solbris', name), 'utf8'),
      })),
    );
    if (!read.ok) throw new Error(JSON.stringify(read.faults.slice(0, 3)));
    const { people, readings, signedRecords, workEvents } = read.value;
    expect(people.map(({ name, roles, owner }) => ({ name, roles, owner })).slice(0, 1)).toEqual([
      { name: 'Alva', roles: [], owner: false },
    ]);
    expect(new Set([...readings, ...workEvents].map(({ personId }) => personId))).toEqual(new Set([null]));
    expect(signedRecords.every(({ hash }) => hash === null)).toBe(true);
    expect(readArchiveDocuments(archiveDocuments(read.value))).toEqual(read);
  });

  it('becomes people in a database that was there: every name once, known by what it wrote', async () => {
    const database = await pglite.open();
    await migrate(database, migrationsBefore('0019'));
    const job = randomUUID();
    const at = '2026-11-20T08:00:00Z';
    await database.query(
      `insert into job (id, name, shell, identity_number, owner, shop, bench, driver_side, note, started_at, version)
       values ($1, 'Old', '', '', '', '', '', 'left', '', $2, 1)`,
      [job, at],
    );
    const entry = (author: string) =>
      database.query(
        `insert into log_entry (id, job_id, kind, text, reason, author, at) values ($1, $2, 'finding', 'seen', '', $3, $4)`,
        [randomUUID(), job, author, at],
      );
    for (const author of ['Nils', 'nils ', 'Ronja']) await entry(author);
    await migrate(database);
    const people = await database.query<{ id: string; name: string; roles: string[]; owner: boolean }>(
      'select id, name, roles, owner from person order by lower(name)',
    );
    expect(people.map(({ name }) => name.toLowerCase())).toEqual(['nils', 'ronja']);
    expect(people[0]).toMatchObject({ roles: ['measure', 'plan', 'sign'], owner: false });
    const entries = await database.query<{ author: string; personId: string }>(
      'select author, person_id from log_entry order by author',
    );
    expect(entries.map(({ personId }) => personId).toSorted()).toEqual(
      [people[0]!.id, people[0]!.id, people[1]!.id].toSorted(),
    );
    // What is written stays as it is written.
    await expect(database.query(`update log_entry set text = 'x'`)).rejects.toThrow(/append-only/);
    await database.close();
  });
});

describe('what the eleventh version wrote', () => {
  it('has points of the shell, braces that are no parts or props, and stages whose panels come out by name', () => {
    const read = readArchiveDocuments(
      ['job.json', 'rounds/01.json', 'rounds/02.json'].map((name) => ({
        path: name,
        text: readFileSync(path.join('tests/fixtures/v11/solbris', name), 'utf8'),
      })),
    );
    if (!read.ok) throw new Error(JSON.stringify(read.faults.slice(0, 3)));
    const { points, braces, panels } = read.value;
    expect(new Set(points.map(({ kind }) => kind))).toEqual(new Set(['shell']));
    expect(braces.length).toBeGreaterThan(0);
    for (const brace of braces) expect(brace).toMatchObject({ stiffness: null, force: null });
    expect(new Set(panels.map(({ ordinal }) => ordinal))).toEqual(new Set([0]));
    expect(readArchiveDocuments(archiveDocuments(read.value))).toEqual(read);
  });
});

describe('what the third version wrote', () => {
  const V3 = 'tests/fixtures/v3';

  it('is read as an archive; the step that signing does is known by more than its title', () => {
    const files = ['job.json', 'rounds/01.json', 'rounds/02.json'];
    const read = readArchiveDocuments(
      files.map((name) => ({ path: name, text: readFileSync(path.join(V3, 'solbris', name), 'utf8') })),
    );
    if (!read.ok) throw new Error(JSON.stringify(read.faults.slice(0, 3)));
    const { steps, withdrawals, partTags, jobs } = read.value;
    expect(steps.filter(({ doneBy }) => doneBy === 'signing').map(({ title }) => title)).toEqual(['Sign the record']);
    expect([withdrawals, partTags, jobs[0]!.putAwayAt]).toEqual([[], [], null]);
    expect(readArchiveDocuments(archiveDocuments(read.value))).toEqual(read);
  });

  it('is read as a signed record, as it was signed', () => {
    const { rows } = JSON.parse(readFileSync(path.join(V3, 'lodd/job.json'), 'utf8')) as {
      rows: { signedRecords: { snapshot: unknown }[] };
    };
    for (const { snapshot } of rows.signedRecords) expect(recordDocument.parse(snapshot)).toEqual(snapshot);
  });
});

describe('what the first version wrote', () => {
  it('is read as an archive: every row it had, and no more', () => {
    const read = readArchiveDocuments(archive);
    if (!read.ok) throw new Error(JSON.stringify(read.faults.slice(0, 3)));
    const now = demoRows('solbris');
    expect(read.value.braces.map(({ id }) => id)).toEqual(now.braces.map(({ id }) => id));
    // What its points are of nobody had said.
    expect(read.value.points).toEqual(now.points.map((point) => ({ ...point, kind: 'shell' })));
    for (const table of ['readings', 'readingStrikes'] as const) expect(read.value[table]).toEqual(now[table]);
    const words = (rows: typeof now) => rows.steps.map(({ id, rung, title, needs }) => [id, rung, title, needs]);
    expect(words(now)).toEqual(expect.arrayContaining(words(read.value)));
    // Nobody said how long they take; each needs the one before it.
    expect(new Set(read.value.steps.map(({ minutes }) => minutes))).toEqual(new Set([null]));
    expect(read.value.stepNeeds).toHaveLength(read.value.steps.length - 1);
    const aims = (rows: typeof now) => rows.pulls.map(({ id, aimX, aimY, aimZ }) => [id, aimX, aimY, aimZ]);
    expect(aims(read.value)).toEqual(aims(now));
    // The demo's log went on since.
    expect(now.logEntries.slice(0, read.value.logEntries.length)).toEqual(read.value.logEntries);
    const [asFound] = read.value.rounds;
    expect(judgeRound(Job.of(read.value), asFound!).points.map(({ judged }) => judged?.verdict)).toEqual(
      judgeRound(Job.of(now), now.rounds[0]!).points.map(({ judged }) => judged?.verdict),
    );
  });

  it('keeps what holds a pull in words: offered as rows, never taken for them', () => {
    const read = readArchiveDocuments(archive);
    if (!read.ok) throw new Error('not read');
    const job = Job.of(read.value);
    const [pull] = pullingPage(job).pulls;
    expect([pull!.holds, pull!.offered.map(({ code }) => code)]).toEqual([[], ['C1L', 'C1R']]);
    const disturbed = [...disturbedPoints(job, read.value.rounds[1]!)];
    expect(disturbed).toEqual([pull!.pull.pointId]);
  });

  it('is written again in this version, and read again the same', () => {
    const read = readArchiveDocuments(archive);
    if (!read.ok) throw new Error('not read');
    const documents = archiveDocuments(read.value);
    expect(JSON.parse(documents[0]!.text).format).toBe(`vinkel.job/${ROWS_VERSION}`);
    const again = readArchiveDocuments(documents);
    expect(again.ok && again.value.readings).toEqual(read.value.readings);
  });

  it('is replayed from a journal', async () => {
    const database = await pglite.open();
    await migrate(database);
    const folder = await mkdtemp(path.join(os.tmpdir(), 'journal-'));
    const file = path.join(folder, 'journal.jsonl');
    await writeFile(file, text('journal.jsonl'));
    const { restored, faults } = await replayFirstFormat(database, file);
    expect(faults).toEqual([]);
    const rows = await loadJob(database, demoRows('solbris').jobs[0]!.id);
    const byId = (a: { id: string }, b: { id: string }) => a.id.localeCompare(b.id);
    expect(rows!.readings.toSorted(byId)).toEqual(demoRows('solbris').readings.toSorted(byId));
    expect(restored).toBe(rows!.readings.length + rows!.readingStrikes.length);
    await database.close();
  });

  it('is read as a signed record, as it was signed', () => {
    const { rows } = JSON.parse(text('lodd/job.json')) as { rows: { signedRecords: { snapshot: unknown }[] } };
    expect(rows.signedRecords.length).toBeGreaterThan(0);
    for (const { snapshot } of rows.signedRecords) expect(recordDocument.parse(snapshot)).toEqual(snapshot);
  });
});

describe('a document of another version', () => {
  it('is brought up one step a version, and left alone where its version is none', () => {
    expect(versionOfFormat('vinkel.job/1', 'vinkel.job')).toBe(1);
    for (const format of ['vinkel.job/0', `vinkel.job/${ROWS_VERSION + 1}`, 'vinkel.round/1', 'vinkel.job/x', 7])
      expect(versionOfFormat(format, 'vinkel.job')).toBeUndefined();
    const later = { format: 'vinkel.job/99', rows: {} };
    expect(upgradeDocument(later, 'vinkel.job')).toBe(later);
    expect(upgradeDocument(null, 'vinkel.job')).toBeNull();
    const read = readArchiveDocuments([{ path: 'job.json', text: JSON.stringify(later) }]);
    expect(read.ok ? '' : read.faults[0]!.path).toBe('job.json format');
  });
});
