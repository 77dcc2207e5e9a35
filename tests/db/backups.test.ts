import {
  appendFileSync,
  copyFileSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { describe, expect, it } from 'vitest';
import { theJob } from '@/core/shell/job/job-rows';
import { loadJob, removeJob } from '@/db/jobs';
import { journalFiles } from '@/db/journal/journal';
import { MIGRATIONS, migrate, pendingMigrations } from '@/db/migrate';
import { makeDatabase } from '@/db/new-database';
import { openPglite } from '@/db/pglite';
import { insert, update } from '@/db/table';
import { contentHash } from '@/server/archive/export';
import { importJob } from '@/server/archive/import';
import { archiveIn, backupsIn, type Backup } from '@/server/backups/manifest';
import { proveBackup } from '@/server/backups/prove';
import { kept } from '@/server/backups/rotate';
import { backUp, backupState } from '@/server/backups/schedule';
import { takeBackup } from '@/server/backups/take';
import { FolderDamaged, openStore, type Store } from '@/server/store';
import { demoArchive } from '../../scripts/demo-archive.mjs';
import { demoRows } from '../support/demo-rows';
import { EmptyFolders } from '../support/empty-folder';

const data = new EmptyFolders();
const idOf = (name: 'kvist' | 'lodd') => theJob(demoRows(name)).id;

async function bring(store: Store, name: string): Promise<void> {
  const zip = data.in(`${name}.zip`);
  writeFileSync(zip, await demoArchive(name));
  const outcome = await importJob(store, zip);
  if (!outcome.ok) throw new Error(JSON.stringify(outcome.faults));
  rmSync(zip);
}

async function typeReading(store: Store, raw: string): Promise<void> {
  const reading = { ...demoRows('kvist').readings[0]!, id: crypto.randomUUID(), raw };
  await store.database.transaction((tx) => insert(tx, 'readings', [reading]));
}

const hash = async (store: Store, id: string) => contentHash((await loadJob(store.database, id))!);
const DAY = 24 * 3_600_000;

describe('a backup', () => {
  it('is proved by restoring it, and with the journal since brings everything back when the database is gone', async () => {
    const first = await openStore(data.folder);
    await bring(first, 'kvist');
    await bring(first, 'lodd');
    await backUp(first);
    await typeReading(first, 'after the backup');
    await backUp(first);
    await typeReading(first, 'after the second');
    const before = [await hash(first, idOf('kvist')), await hash(first, idOf('lodd'))];
    const state = await backupState(first, Date.now());
    const taken = await backupsIn(first.backups);
    expect(state).toMatchObject({ behind: true, stale: false, provedAt: taken[0]!.at });
    expect(taken.map(({ provedAt }) => provedAt !== undefined)).toEqual([true, true]);
    expect((await backupState(first, Date.now() + 4 * DAY)).stale).toBe(true);
    // What two proved backups hold is not in the journal any more.
    expect((await journalFiles(data.in('journal'))).map(({ first: number }) => number)).toEqual([3, 4]);
    // The job nobody touched shares its archive with the backup before.
    const [newer, older] = taken;
    const inode = (backup: Backup, id: string) => statSync(archiveIn(backup.path, id)).ino;
    expect(inode(newer!, idOf('lodd'))).toBe(inode(older!, idOf('lodd')));
    expect(inode(newer!, idOf('kvist'))).not.toBe(inode(older!, idOf('kvist')));
    await first.close();
    rmSync(data.in('database'), { recursive: true });
    const second = await openStore(data.folder);
    expect(second.opening).toMatchObject({ rebuiltFrom: newer!.path, restored: 1, faults: [] });
    expect([await hash(second, idOf('kvist')), await hash(second, idOf('lodd'))]).toEqual(before);
    await typeReading(second, 'and on');
    await second.close();
    const third = await openStore(data.folder);
    expect(third.opening).toEqual({ restored: 0, faults: [] });
    await third.close();
  });

  it('is of one moment, whatever is typed while it is taken', async () => {
    const first = await openStore(data.folder);
    await bring(first, 'kvist');
    await bring(first, 'lodd');
    const typing = async () => {
      for (let i = 0; i < 12; i++) await typeReading(first, `meanwhile ${i}`);
    };
    const [place] = await Promise.all([takeBackup(first, new Date().toISOString()), typing()]);
    const before = [await hash(first, idOf('kvist')), await hash(first, idOf('lodd'))];
    const [{ jobs }] = (await backupsIn(first.backups)) as [Backup];
    expect(jobs.map(({ id }) => id).sort()).toEqual([idOf('kvist'), idOf('lodd')].sort());
    await proveBackup({ backup: place, scratchIn: first.folder });
    await first.close();
    rmSync(data.in('database'), { recursive: true });
    const second = await openStore(data.folder);
    expect(second.opening).toMatchObject({ rebuiltFrom: place, faults: [] });
    expect([await hash(second, idOf('kvist')), await hash(second, idOf('lodd'))]).toEqual(before);
    await second.close();
  });

  it('that cannot be restored any more gives way to the one before; half a database never stands', async () => {
    const first = await openStore(data.folder);
    await bring(first, 'kvist');
    await backUp(first);
    await typeReading(first, 'between');
    await backUp(first);
    const before = await hash(first, idOf('kvist'));
    const [newer, older] = await backupsIn(first.backups);
    await first.close();
    rmSync(data.in('database'), { recursive: true });
    const zips = [newer!, older!].map((backup) => archiveIn(backup.path, idOf('kvist')));
    writeFileSync(zips[0]!, readFileSync(zips[0]!).subarray(0, 500));
    const second = await openStore(data.folder);
    expect(second.opening).toMatchObject({ rebuiltFrom: older!.path, faults: [] });
    expect(await hash(second, idOf('kvist'))).toBe(before);
    await second.close();
    rmSync(data.in('database'), { recursive: true });
    writeFileSync(zips[1]!, '');
    await expect(openStore(data.folder)).rejects.toBeInstanceOf(FolderDamaged);
    expect(readdirSync(data.folder).filter((name) => /^(database|scratch)/.test(name))).toEqual([]);
  });

  it('that is not what was backed up is not proved', async () => {
    const store = await openStore(data.folder);
    await bring(store, 'kvist');
    const backup = await takeBackup(store, '2026-11-24T08:00:00.000Z');
    const manifest = JSON.parse(readFileSync(`${backup}/backup.json`, 'utf8')) as { jobs: { content: string }[] };
    manifest.jobs[0]!.content = 'something else';
    writeFileSync(`${backup}/backup.json`, JSON.stringify(manifest));
    await expect(proveBackup({ backup, scratchIn: data.folder })).rejects.toThrow(/not the same after restoring/);
    const zip = archiveIn(backup, idOf('kvist'));
    const bytes = readFileSync(zip);
    writeFileSync(zip, bytes.fill(0, 100, 400));
    await expect(proveBackup({ backup, scratchIn: data.folder })).rejects.toThrow(/zip/);
    expect((await backupsIn(store.backups))[0]!.provedAt).toBeUndefined();
    expect(readdirSync(data.folder).filter((name) => name.startsWith('scratch'))).toEqual([]);
    await store.close();
  });

  it('brings one job back: its gaps, beside the one here, or in its place, the present one put aside first', async () => {
    const store = await openStore(data.folder);
    await bring(store, 'kvist');
    const before = await hash(store, idOf('kvist'));
    await backUp(store);
    const [backup] = await backupsIn(store.backups);
    const zip = archiveIn(backup!.path, idOf('kvist'));
    const point = (await loadJob(store.database, idOf('kvist')))!.points[0]!;
    await store.database.transaction((tx) => update(tx, 'points', { ...point, name: 'spoilt' }));
    expect(await importJob(store, zip)).toMatchObject({ ok: false, faults: [{ path: 'here' }] });
    const replaced = data.in('backups', 'replaced');
    expect(await importJob({ ...store, replaced }, zip, 'replace')).toMatchObject({ ok: true });
    expect(await hash(store, idOf('kvist'))).toBe(before);
    expect(readdirSync(replaced)).toHaveLength(1);
    await store.database.transaction((tx) => removeJob(tx, idOf('kvist')));
    expect(await importJob(store, zip, 'missing')).toMatchObject({ ok: true });
    expect(await hash(store, idOf('kvist'))).toBe(before);
    await store.close();
    // The journal tells the same story.
    data.startDatabase();
    const again = await openStore(data.folder);
    expect(again.opening.faults).toEqual([]);
    expect(await hash(again, idOf('kvist'))).toBe(before);
    await again.close();
  });

  it('is kept for every day of two weeks, every month of a year, and the last two proved', () => {
    const backups = Array.from({ length: 400 }, (_, i): Backup => {
      const at = new Date(Date.UTC(2026, 10, 24, 20) - i * (DAY / 2)).toISOString();
      return {
        ...{
          format: 'vinkel.backup/1',
          at,
          number: 1,
          instruments: [],
          instrumentVersions: [],
          benches: [],
          benchVersions: [],
          shelfItems: [],
          sections: [],
          people: [],
          closedDays: [],
          jobs: [],
        },
        ...{ path: at, ...(i > 300 ? { provedAt: at } : {}) },
      };
    });
    const left = kept(backups);
    expect(left.slice(0, 14).map(({ at }) => at.slice(0, 10))).toEqual([
      ...new Set(backups.slice(0, 28).map(({ at }) => at.slice(0, 10))),
    ]);
    expect(new Set(left.map(({ at }) => at.slice(0, 7))).size).toBe(7);
    expect(left.filter(({ provedAt }) => provedAt).length).toBeGreaterThanOrEqual(2);
    expect(left.length).toBeLessThan(24);
  });
});

describe('a database folder', () => {
  it.each(['PG_VERSION', 'global/pg_control'])(
    'without %s is said to be damaged, and nothing is written there',
    async (name) => {
      const store = await openStore(data.folder);
      await bring(store, 'kvist');
      await store.close();
      rmSync(data.in('database', name));
      const before = readdirSync(data.in('database')).sort();
      await expect(openStore(data.folder)).rejects.toBeInstanceOf(FolderDamaged);
      expect(readdirSync(data.in('database')).sort()).toEqual(before);
      // Put aside, it is built anew from the journal.
      renameSync(data.in('database'), data.in('aside'));
      const again = await openStore(data.folder);
      expect((await loadJob(again.database, idOf('kvist')))!.readings.length).toBeGreaterThan(0);
      await again.close();
    },
  );

  it('the engine cannot open is damaged too', async () => {
    const store = await openStore(data.folder);
    await store.close();
    writeFileSync(data.in('database', 'global/pg_control'), Buffer.alloc(8192, 7));
    await expect(openStore(data.folder)).rejects.toBeInstanceOf(FolderDamaged);
  });

  it('is made of kept files, and each is its own', async () => {
    const [one, other] = [await makeDatabase(data.in('one')), await makeDatabase(data.in('other'))];
    expect((await pendingMigrations(one)).pending).toEqual([]);
    await one.query(`update journal_mark set number = 7`);
    expect(await other.query('select number from journal_mark')).toEqual([{ number: 0 }]);
    await Promise.all([one.close(), other.close()]);
    const again = await makeDatabase(data.in('again'));
    expect(await again.query('select number from journal_mark')).toEqual([{ number: 0 }]);
    await again.close();
  });

  it('is copied before its schema changes, and the copy proved', async () => {
    // As the version before left it: without the last migration.
    const migrations = readdirSync(MIGRATIONS).sort();
    const last = migrations.at(-1)!;
    const earlier = data.in('migrations');
    mkdirSync(earlier);
    for (const file of migrations) if (file !== last) copyFileSync(`${MIGRATIONS}/${file}`, `${earlier}/${file}`);
    rmSync(data.in('database'), { recursive: true });
    const old = await openPglite(data.in('database'));
    await migrate(old, earlier);
    const id = crypto.randomUUID();
    await old.query(
      `insert into job (id, name, shell, identity_number, owner, shop, driver_side, bench, note, started_at, version)
       values ($1, 'Old', '', '', '', '', 'left', '', '', now(), 1)`,
      [id],
    );
    await old.close();
    const again = await openStore(data.folder);
    expect(theJob((await loadJob(again.database, id))!).name).toBe('Old');
    const [copy] = readdirSync(data.in('backups'));
    expect(copy!.endsWith(`-before-${last}`)).toBe(true);
    expect(existsSync(data.in('backups', copy!, 'proved.json'))).toBe(true);
    await again.close();
  });

  it('is tidied of what a killed program left behind', async () => {
    mkdirSync(data.in('import-abc'));
    appendFileSync(data.in('import-abc', 'job.zip'), 'x');
    mkdirSync(data.in('scratch-proof-1'));
    const store = await openStore(data.folder);
    expect(readdirSync(data.folder).filter((name) => /^(import|scratch)/.test(name))).toEqual([]);
    await store.close();
  });
});
