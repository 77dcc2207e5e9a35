import { cp, mkdtemp, rm, writeFile } from 'node:fs/promises';
import path from 'node:path';
import type { LockedFolder } from '@/db/data-folder';
import type { Database } from '@/db/database';
import { listJobIds, loadJob } from '@/db/jobs';
import { migrate, pendingMigrations } from '@/db/migrate';
import { openPglite } from '@/db/pglite';
import { contentHash } from '../archive/export';
import { needRoom } from '../room';
import { folderName, PROOF } from './manifest';

/**
 * Brings the schema up to date. Where that changes a database that holds something, its files are copied first; the
 * copy is proved by bringing a second copy up to date and finding every job in it as it is in the first.
 *
 * @returns the database, opened
 */
export async function migrateSafely(locked: LockedFolder, open: () => Promise<Database>): Promise<Database> {
  const database = await open();
  const { pending, applied } = await pendingMigrations(database);
  if (pending.length === 0) return database;
  if (applied === 0) {
    await migrate(database);
    return database;
  }
  await database.close();
  await needRoom(locked.path);
  const place = path.join(locked.backupsPath, `${folderName(new Date().toISOString())}-before-${pending[0]}`);
  await cp(locked.databasePath, path.join(place, 'database'), { recursive: true });
  const migrated = await open();
  await migrate(migrated);
  const scratch = await mkdtemp(path.join(locked.path, 'scratch-migration-'));
  try {
    await cp(path.join(place, 'database'), path.join(scratch, 'database'), { recursive: true });
    const copy = await openPglite(path.join(scratch, 'database'));
    await migrate(copy);
    const same = (await contents(copy)) === (await contents(migrated));
    await copy.close();
    if (same) await writeFile(path.join(place, PROOF), JSON.stringify({ at: new Date().toISOString() }));
    else console.error(`The copy in ${place} is not as the database was: keep it, and compare the jobs.`);
  } finally {
    await rm(scratch, { recursive: true, force: true });
  }
  return migrated;
}

async function contents(database: Database): Promise<string> {
  const hashes: string[] = [];
  for (const id of await listJobIds(database)) hashes.push(contentHash((await loadJob(database, id))!));
  return hashes.join();
}
