import { existsSync } from 'node:fs';
import path from 'node:path';
import { JOB_TABLE_NAMES, isShopTable, SHOP_TABLES } from '@/core/shell/job/job-rows';
import { tableSums, type TableSum } from '@/db/carried';
import { lockFolder } from '@/db/data-folder';
import type { Database, Queryable } from '@/db/database';
import { listJobIds, loadJob } from '@/db/jobs';
import { markOf } from '@/db/journal/mark';
import { addContent, addPart, contentIds, contentOf, previewOf } from '@/db/photographs';
import { addCredential, allCredentials } from '@/db/people';
import { APPLICATION, openPostgres, type ServerDatabase } from '@/db/postgres';
import { shopRows } from '@/db/shop';
import { isNew, isServed } from '@/db/shops';
import { insert, put, removeByKey } from '@/db/table';
import { addressOf, makeReady } from '../server-store';
import { buildAside, openStore } from '../store';
import { markMoved } from './moved';

/** Something stands in the way of a move: nothing was changed. */
export class NotMoved extends Error {}

export const isServer = (place: string): boolean => /^postgres(ql)?:\/\//.test(place);

/**
 * Moves all data of a shop from a folder to a server, or from a server to a folder that has none, and compares every table's
 * count and checksum on both sides before it stands. Where it came from stays as it was; a folder is marked, so that nobody goes
 * on there by mistake. Sessions are not moved: everybody says their passphrase once more.
 *
 * @returns what was moved, table by table
 * @throws NotMoved in words
 */
export async function move(from: string, to: string): Promise<TableSum[]> {
  if (isServer(from) === isServer(to))
    throw new NotMoved('Name a folder and a server, from the one to the other: npm run move -- FOLDER postgres://…');
  return isServer(to) ? toServer(from, to) : toFolder(from, to);
}

async function toServer(folder: string, url: string): Promise<TableSum[]> {
  if (!existsSync(path.join(folder, 'database'))) throw new NotMoved(`There is no database in ${folder}.`);
  const store = await openStore(folder);
  try {
    const moved = await withServer(url, (server) => carry(store.database, server));
    await markMoved(folder, addressOf(url));
    return moved;
  } finally {
    await store.close();
  }
}

async function toFolder(url: string, folder: string): Promise<TableSum[]> {
  const locked = lockFolder(folder);
  try {
    for (const name of ['database', 'journal', 'backups'])
      if (existsSync(path.join(folder, name)))
        throw new NotMoved(`${folder} has data of its own (${name}): name a folder that has none.`);
    return await withServer(url, async (server) => {
      let moved: TableSum[] = [];
      await buildAside(locked, async (database) => {
        moved = await carry(server, database);
      });
      return moved;
    });
  } finally {
    locked.release();
  }
}

async function withServer<T>(url: string, work: (server: ServerDatabase) => Promise<T>): Promise<T> {
  const server = openPostgres(url, `${APPLICATION} move`);
  try {
    await makeReady(server, addressOf(url));
    if (await isServed(server))
      throw new NotMoved(`The program is running on ${addressOf(url)}: stop it there first, on every machine.`);
    return await work(server);
  } finally {
    await server.close();
  }
}

/** Carries everything from one database to an empty one, or nothing. */
async function carry(from: Database, to: Database): Promise<TableSum[]> {
  return from.transaction((source) =>
    to.transaction(async (target) => {
      await target.query("select set_config('vinkel.journal', 'off', true)");
      // The one side waits while the other is at work, however long that takes.
      for (const side of [source, target])
        await side.query("select set_config('idle_in_transaction_session_timeout', '0', true)");
      if (!(await isNew(target)))
        throw new NotMoved('There is data already where it should go: name a database that has none.');
      await carryRows(source, target);
      const [before, after] = [await tableSums(source), await tableSums(target)];
      const differing = before.filter(({ table, sum }) => after.find((each) => each.table === table)?.sum !== sum);
      if (differing.length > 0 || before.length !== after.length)
        throw new NotMoved(`Not the same on both sides: ${differing.map(({ table }) => table).join(', ')}.`);
      return after;
    }),
  );
}

/** The shop's own things: those that every new database has are made as they are here, or let go. */
async function carryShop(source: Queryable, target: Queryable): Promise<void> {
  const [here, there] = [await shopRows(source), await shopRows(target)];
  for (const table of SHOP_TABLES) {
    await put(target, table, here[table] as never[]);
    const ids = new Set(here[table].map(({ id }) => id));
    await removeByKey(
      target,
      table,
      there[table].filter(({ id }) => !ids.has(id)).map(({ id }) => ({ id })),
    );
  }
}

async function carryRows(source: Queryable, target: Queryable): Promise<void> {
  for (const id of await contentIds(source)) {
    await addContent(target, id, (await previewOf(source, id))!);
    let number = 0;
    for await (const part of contentOf(source, id)) await addPart(target, id, number++, part);
  }
  await carryShop(source, target);
  for (const credential of await allCredentials(source)) await addCredential(target, credential);
  for (const id of await listJobIds(source)) {
    const rows = (await loadJob(source, id))!;
    for (const table of JOB_TABLE_NAMES) if (!isShopTable(table)) await insert(target, table, rows[table] as never[]);
  }
  await target.query('update journal_mark set number = $1', [await markOf(source)]);
}
