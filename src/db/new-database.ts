import { createHash } from 'node:crypto';
import { cp, mkdir, mkdtemp, readdir, readFile, rename, rm, stat } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import type { Database } from './database';
import { migrate, MIGRATIONS } from './migrate';
import { openPglite } from './pglite';
import { shopRows, type ShopRows } from './shop';

const CACHES = path.join(process.cwd(), 'node_modules/.cache/vinkel');
const ENGINE = path.join(process.cwd(), 'node_modules/@electric-sql/pglite/package.json');

/**
 * Makes a database of today's schema, empty, in a folder that holds none. Making one from nothing takes the engine
 * seconds: the files of the first are kept among the caches of the packages, for this engine and this schema, and
 * copied from then on. Where they cannot be kept it is made from nothing every time.
 *
 * @param folder does not exist yet, or is empty
 */
export async function makeDatabase(folder: string): Promise<Database> {
  const kept = await keptFiles().catch(() => undefined);
  if (kept) await cp(kept, folder, { recursive: true });
  const database = await openPglite(folder);
  await migrate(database);
  return database;
}

/** What a shop begins with: the rows that every new database has. */
export async function firstRows(): Promise<ShopRows> {
  const folder = await mkdtemp(path.join(os.tmpdir(), 'vinkel-first-'));
  try {
    const database = await makeDatabase(path.join(folder, 'database'));
    return await shopRows(database).finally(() => database.close());
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** The folder with the files of an empty database. It is made aside, and there only when it is whole. */
async function keptFiles(): Promise<string> {
  const kept = path.join(CACHES, `database-${await versionHash()}`);
  if (await stat(/* turbopackIgnore: true */ kept).catch(() => undefined)) return kept;
  await mkdir(CACHES, { recursive: true });
  const scratch = await mkdtemp(path.join(CACHES, 'scratch-'));
  try {
    const database = await openPglite(path.join(scratch, 'database'));
    await migrate(database).finally(() => database.close());
    // Another process may have been quicker: its files are as good.
    await rename(path.join(scratch, 'database'), kept).catch(() => stat(/* turbopackIgnore: true */ kept));
    return kept;
  } finally {
    await rm(scratch, { recursive: true, force: true });
  }
}

async function versionHash(): Promise<string> {
  const hash = createHash('sha256').update(await readFile(/* turbopackIgnore: true */ ENGINE));
  for (const name of (await readdir(/* turbopackIgnore: true */ MIGRATIONS)).sort())
    hash.update(name).update(await readFile(/* turbopackIgnore: true */ `${MIGRATIONS}/${name}`));
  return hash.digest('hex').slice(0, 16);
}
