import { loadJob } from '@/db/jobs';
import { SHOP_TABLES } from '@/core/shell/job/job-rows';
import type { Database } from '@/db/database';
import { insert } from '@/db/table';
import { contentHash } from '../archive/export';
import { importJob } from '../archive/import';
import { archiveIn, readBackup } from './manifest';

/**
 * Fills an empty database from a backup; what the journal has since then comes on top.
 *
 * @throws in words where an archive of it cannot be taken in
 */
export async function restoreBackup(database: Database, folder: string): Promise<void> {
  const backup = await readBackup(folder);
  if (!backup) throw new Error(`${folder} holds no whole backup`);
  for (const table of SHOP_TABLES) await insert(database, table, backup[table] as never[], { skipExisting: true });
  for (const { id, name } of backup.jobs) {
    const outcome = await importJob({ database }, archiveIn(folder, id));
    if (!outcome.ok)
      throw new Error(`${name}: ${outcome.faults.map((fault) => `${fault.path} ${fault.message}`).join('; ')}`);
  }
  await database.query('update journal_mark set number = $1', [backup.number]);
}

/** Whether a database holds just what a backup says, job for job. */
export async function differences(database: Database, folder: string): Promise<string[]> {
  const backup = (await readBackup(folder))!;
  const differing: string[] = [];
  for (const { id, name, content } of backup.jobs) {
    const rows = await loadJob(database, id);
    if (!rows || contentHash(rows) !== content) differing.push(name);
  }
  return differing;
}
