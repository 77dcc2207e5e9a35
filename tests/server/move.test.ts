import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { buffer } from 'node:stream/consumers';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { newPerson } from '@/core/shell/people';
import { tableSums } from '@/db/carried';
import { listJobIds, loadJob } from '@/db/jobs';
import { setPassphrase, setPin } from '@/db/people';
import { insert } from '@/db/table';
import { contentHash, exportJob } from '@/server/archive/export';
import { importJob } from '@/server/archive/import';
import { move, NotMoved } from '@/server/move/move';
import { FolderMoved } from '@/server/move/moved';
import { openServerStore, openStore, type Store } from '@/server/store';
import { demoArchive } from '../../scripts/demo-archive.mjs';
import { createDatabase } from '../support/postgres';
import { removeAll } from '../support/remove';

const HASH = '$argon2id$v=19$m=19456,t=2,p=1$c2FsdHNhbHQ$aGFzaA';

describe('all data of a shop', () => {
  const scratch = mkdtempSync(path.join(os.tmpdir(), 'vinkel-move-'));
  const folder = (name: string) => path.join(scratch, name);
  const person = crypto.randomUUID();
  let server: string;
  beforeAll(async () => {
    server = await createDatabase(inject('server'));
    const store = await openStore(folder('shop'));
    for (const job of ['solbris', 'lodd']) {
      const zip = path.join(scratch, `${job}.zip`);
      writeFileSync(zip, await demoArchive(job));
      expect((await importJob({ ...store }, zip)).ok).toBe(true);
    }
    // That a job was taken along is not carried: it is taken along once more before it is removed.
    await buffer((await exportJob(store.database, (await listJobIds(store.database))[0]!))!.zip);
    await insert(store.database, 'people', [newPerson(person, 'Saga')]);
    await setPassphrase(store.database, person, HASH, '2026-11-28T08:00:00.000Z');
    await setPin(store.database, person, HASH, '2026-11-28T08:00:00.000Z');
    await store.close();
  });
  afterAll(() => removeAll(scratch));

  const contents = async ({ database }: Store) =>
    Promise.all((await listJobIds(database)).map(async (id) => contentHash((await loadJob(database, id))!)));
  const opened = async <T>(store: Promise<Store>, look: (store: Store) => Promise<T>) => {
    const open = await store;
    return look(open).finally(() => open.close());
  };

  it('goes to a server and back, each table the same on both sides, and its folder is not gone on with by mistake', async () => {
    const before = await opened(openStore(folder('shop')), contents);
    const out = execFileSync(process.execPath, ['scripts/command.mjs', 'move', folder('shop'), server], {
      encoding: 'utf8',
    });
    expect(out).toMatch(/^photograph_part +[1-9]/m);
    expect(out).toMatch(/^credential +1 /m);
    expect(out).toMatch(/\d+ tables, the same on both sides\.\nFrom now on: VINKEL_DATABASE=postgres/);
    await expect(openStore(folder('shop'))).rejects.toBeInstanceOf(FolderMoved);
    await opened(openServerStore(folder('machine'), server), async (store) => {
      expect(await contents(store)).toEqual(before);
      // Nothing goes to a database where something is, nor from one that is being worked at.
      await expect(move(folder('machine'), server)).rejects.toThrow(/There is no database in/);
      await expect(move(server, folder('back'))).rejects.toThrow(
        /The program is running on 127\.0\.0\.1.*stop it there/,
      );
      await store.database.query("update person set name = 'Sága' where id = $1", [person]);
    });
    const back = await move(server, folder('back'));
    expect(back.find(({ table }) => table === 'reading')!.rows).toBeGreaterThan(100);
    await opened(openStore(folder('back')), async (store) => {
      expect((await contents(store)).length).toBe(before.length);
      expect(await store.database.query('select person_id from credential')).toEqual([{ personId: person }]);
      expect(await store.database.query('select name from person where id = $1', [person])).toEqual([{ name: 'Sága' }]);
      // It goes on where it was: the next entry has the next number.
      await store.database.query("update person set name = 'Saga' where id = $1", [person]);
      expect(store.opening.faults).toEqual([]);
    });
    await opened(openStore(folder('back')), async (store) => expect(store.opening.faults).toEqual([]));
    await expect(move(server, folder('back'))).rejects.toThrow(/has data of its own \(database\)/);
    await expect(move(folder('back'), server)).rejects.toThrow(/There is data already where it should go/);
    expect(existsSync(folder('back/moved-to'))).toBe(false);
  });

  it('is known by its checksums: one other figure in one row is seen in its table alone', async () => {
    await opened(openStore(folder('back')), async ({ database }) => {
      const sums = () => database.transaction((tx) => tableSums(tx));
      const before = await sums();
      await database.query("update person set starts = starts + 1 where name = 'Saga'");
      const after = await sums();
      expect(after.filter((each, i) => each.sum !== before[i]!.sum).map(({ table }) => table)).toEqual(['person']);
    });
  });

  it('is asked for by a folder and a server', async () => {
    for (const [from, to] of [
      ['a', 'b'],
      ['postgres://a/b', 'postgres://c/d'],
    ] as const)
      await expect(move(from, to)).rejects.toBeInstanceOf(NotMoved);
  });
});
