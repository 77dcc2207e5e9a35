import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { listJobs, loadJob } from '@/db/jobs';
import { markOf } from '@/db/journal/mark';
import { openPostgres, type ServerDatabase } from '@/db/postgres';
import { shopRows } from '@/db/shop';
import { openWire } from '@/db/wire';
import { shopHere } from '@/db/shops';
import { importJob } from '@/server/archive/import';
import { addressOf, makeReady, ServerUnusable } from '@/server/server-store';
import { makeShop, newAddress, NotDone, shopsOn } from '@/server/shops/shops';
import { move } from '@/server/move/move';
import { demoArchive } from '../../scripts/demo-archive.mjs';
import { demoRows } from '../support/demo-rows';
import { createDatabase } from '../support/postgres';
import { removeAll } from '../support/remove';

const NOT_ALLOWED = { code: '42501' };
const NOT_ITS_OWN = { code: '42501', message: expect.stringContaining('row-level security') as string };

/** A demo job's archive on the disk; gives its path. */
async function archiveOf(name: string, folder: string): Promise<string> {
  const place = path.join(folder, `${name}.zip`);
  writeFileSync(place, await demoArchive(name));
  return place;
}

/** Two shops on one database; the first has a job, with everything that hangs on it. */
describe('two shops on one database', () => {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'vinkel-shops-'));
  let owners: string;
  let urls: string[] = [];
  let [north, south]: ServerDatabase[] = [];
  const rows = demoRows('kvist');
  const jobId = rows.jobs[0]!.id;
  let archive: string;
  beforeAll(async () => {
    owners = await createDatabase(inject('server'));
    const made = [...(await makeShop(owners, 'North')), ...(await makeShop(owners, 'South'))];
    urls = made.map(({ url }) => url);
    [north, south] = urls.map((url) => openPostgres(url));
    for (const each of [north!, south!]) await makeReady(each, 'here');
    archive = await archiveOf('kvist', folder);
    expect(await importJob({ database: north! }, archive)).toEqual({ ok: true, value: { jobId } });
  });
  afterAll(async () => {
    await south?.close();
    removeAll(folder);
  });

  /** Every table there is, with what whoever asks sees of it. */
  async function counts(database: ServerDatabase): Promise<Map<string, number>> {
    const tables = await database.query<{ name: string }>(
      "select tablename as name from pg_tables where schemaname = 'public' and tablename <> 'migration' order by 1",
    );
    const seen = new Map<string, number>();
    for (const { name } of tables) {
      const [row] = await database.query<{ count: number }>(`select count(*)::int as count from public."${name}"`);
      seen.set(name, row!.count);
    }
    return seen;
  }

  it('have every table behind the same wall, and every key of it is of one shop', async () => {
    const open = await north!.query<{ name: string }>(
      `select relname as name from pg_class where relnamespace = 'public'::regnamespace and relkind in ('r', 'p')
       and not relrowsecurity order by 1`,
    );
    expect(open.map(({ name }) => name)).toEqual(['migration']);
    const without = await north!.query<{ name: string }>(
      `select conname as name from pg_constraint where connamespace = 'public'::regnamespace and contype in ('p', 'u', 'f')
       and conrelid::regclass::text not in ('migration', 'shop', 'tries') and pg_get_constraintdef(oid) not like '%shop_id%'`,
    );
    expect(without).toEqual([]);
  });

  it('see nothing of each other in any table, by whatever is asked', async () => {
    const [here, there] = [await counts(north!), await counts(south!)];
    // What every shop begins with, the same in both, and each its own.
    const own = new Set(['shop', 'journal_mark', 'instrument', 'instrument_version', 'section', 'person']);
    const filled = [...here].filter(([, count]) => count > 0).map(([name]) => name);
    expect(filled.length).toBeGreaterThan(20);
    for (const [name, count] of there) if (!own.has(name)) expect(count, name).toBe(0);
    expect(there.get('shop')).toBe(1);
    expect(await listJobs(south!)).toEqual([]);
    expect(await loadJob(south!, jobId)).toBeUndefined();
    expect((await shopHere(south!))!.name).toBe('South');
    expect((await shopRows(south!)).people).toEqual([]);
  });

  it('change nothing of each other, and put nothing among what is the other’s', async () => {
    const tables = [...(await counts(north!)).keys()].filter((name) => !['shop', 'tries'].includes(name));
    const before = await counts(north!);
    const [{ id: other } = { id: '' }] = await north!.query<{ id: string }>('select shop_here() as id');
    for (const name of tables) {
      // Written off as gone, changed, taken over: no row of the other’s is found by any of it.
      expect(
        await south!.query(`update public."${name}" set shop_id = shop_id where shop_id = $1 returning 1`, [other]),
      ).toEqual([]);
      expect(await south!.query(`delete from public."${name}" where shop_id = $1 returning 1`, [other])).toEqual([]);
    }
    expect(await counts(north!)).toEqual(before);
    await expect(
      south!.query('insert into job_export (job_id, sha256, at, shop_id) values ($1, $2, now(), $3)', [
        jobId,
        'a'.repeat(64),
        other,
      ]),
    ).rejects.toMatchObject(NOT_ITS_OWN);
    // What hangs on a row of the other's hangs on nothing here.
    await expect(
      south!.query(
        'insert into member_line (id, job_id, from_point_id, to_point_id) values (gen_random_uuid(), $1, $2, $3)',
        [jobId, ...rows.points.slice(0, 2).map(({ id }) => id)],
      ),
    ).rejects.toMatchObject({ code: '23503' });
    await expect(south!.query('truncate reading')).rejects.toMatchObject(NOT_ALLOWED);
    await expect(south!.query('alter table job disable row level security')).rejects.toMatchObject(NOT_ALLOWED);
    await expect(south!.query("update shop set role = 'x'")).rejects.toMatchObject(NOT_ALLOWED);
    const [{ role } = { role: '' }] = await north!.query<{ role: string }>('select current_user::text as role');
    await expect(south!.query(`set role ${role}`)).rejects.toMatchObject(NOT_ALLOWED);
  });

  it('may have brought in the same job: each has its own, and one says nothing of the other', async () => {
    expect(await importJob({ database: south! }, archive)).toEqual({ ok: true, value: { jobId } });
    await south!.query("update job set name = 'Another name' where id = $1", [jobId]);
    expect((await loadJob(north!, jobId))!.jobs[0]!.name).toBe(rows.jobs[0]!.name);
    const [markBefore, counted] = [await markOf(north!), await counts(north!)];
    expect(await importJob({ database: south!, replaced: folder }, archive, 'replace')).toMatchObject({ ok: true });
    expect(await markOf(north!)).toBe(markBefore);
    expect(await counts(north!)).toEqual(counted);
  });

  it('write at the same time: neither waits for the other', async () => {
    let release = (): void => undefined;
    const held = new Promise<void>((resolve) => (release = resolve));
    const long = north!.transaction(async (tx) => {
      await tx.query("update job set name = name || '' where id = $1", [jobId]);
      await held;
    });
    await south!.transaction((tx) => tx.query("update job set name = name || '' where id = $1", [jobId]));
    release();
    await long;
  });

  it('hear nothing of what the other’s programs tell each other', async () => {
    const channels = await Promise.all([north!, south!].map(async (each) => (await shopHere(each))!.channel));
    expect(new Set(channels).size).toBe(2);
    const heard: unknown[] = [];
    await new Promise<void>((back) => {
      const wire = openWire(urls[1]!, channels[1]!, { heard: (_, message) => heard.push(message), back: () => back() });
      closing.push(() => wire.close());
    });
    const [told, own] = channels.map((channel, k) =>
      openWire(urls[k]!, channel, { heard: () => undefined, back: () => undefined }),
    );
    closing.push(
      () => told!.close(),
      () => own!.close(),
    );
    await told!.tell('of the north', north!);
    await own!.tell('of the south', south!);
    await expect.poll(() => heard, { timeout: 5000 }).toEqual(['of the south']);
  });
  const closing: (() => Promise<void>)[] = [];
  afterAll(() => Promise.all(closing.map((close) => close())));

  it('are served by their own addresses alone', async () => {
    const said = async (url: string) => {
      const database = openPostgres(url);
      return makeReady(database, addressOf(url))
        .catch((error: Error) => error)
        .finally(() => database.close());
    };
    const refused = await said(owners);
    expect(refused).toBeInstanceOf(ServerUnusable);
    expect((refused as Error).message).toMatch(/is no shop there, or sees those of all shops/);
    await expect(shopsOn(urls[0]!)).rejects.toBeInstanceOf(NotDone);
    await expect(makeShop(urls[0]!, 'Third')).rejects.toBeInstanceOf(NotDone);
    await expect(makeShop(owners, 'South')).rejects.toThrow('There is a shop South already.');
    expect((await shopsOn(owners)).map(({ name }) => name)).toEqual(['North', 'South']);
    const { url } = await newAddress(owners, 'South');
    expect(new URL(url).username).toBe(new URL(urls[1]!).username);
    expect(new URL(url).password).not.toBe(new URL(urls[1]!).password);
    expect(await said(url)).toMatchObject({ name: 'South' });
  });

  it('are moved by themselves: the one goes into a folder, and comes back into a third, while the other stays', async () => {
    const home = path.join(folder, 'home');
    const before = await counts(south!);
    // A program of the other's that runs is nothing to this one's move.
    await Promise.all([north!.close(), ...closing.splice(0).map((close) => close())]);
    await move(urls[0]!, home);
    const [third] = await makeShop(owners, 'Third');
    const sums = await move(home, third!.url);
    expect(sums.find(({ table }) => table === 'reading')!.rows).toBe(rows.readings.length);
    expect(await counts(south!)).toEqual(before);
  });
});

describe('a database that was one shop’s', () => {
  it('keeps it under a name and a role of its own when a second comes', async () => {
    const owners = await createDatabase(inject('server'));
    const database = openPostgres(owners);
    const folder = mkdtempSync(path.join(os.tmpdir(), 'vinkel-first-'));
    try {
      await makeReady(database, 'here');
      const archive = await archiveOf('lodd', folder);
      expect(await importJob({ database }, archive)).toMatchObject({ ok: true });
      await expect(makeShop(owners, 'South')).rejects.toThrow('The program of Workshop is running by this address');
      await database.close();
      const made = await makeShop(owners, 'South');
      expect(made.map(({ name }) => name)).toEqual(['Workshop', 'South']);
      const [first, second] = made.map(({ url }) => openPostgres(url));
      for (const each of [first!, second!]) await makeReady(each, 'here');
      expect((await listJobs(first!)).length).toBe(1);
      expect(await listJobs(second!)).toEqual([]);
      await Promise.all([first!.close(), second!.close()]);
    } finally {
      removeAll(folder);
    }
  });
});
