import { journalFiles } from '@/db/journal/journal';
import path from 'node:path';
import { backupFault, backupState } from './backups/schedule';
import { backupsIn, lastProved } from './backups/manifest';
import { hasRoom } from './room';
import { dataFolder, isDamaged, isInFolder, store } from './store';

/** What the page of the kept data shows. */
export async function keptData() {
  const opened = await store();
  if (!isInFolder(opened)) return { server: opened.server!, folder: opened.folder };
  const { provedAt, behind, stale } = await backupState(opened, Date.now());
  const backups = await backupsIn(opened.backups);
  const fault = backupFault();
  return {
    ...{ folder: opened.folder, backupsFolder: opened.backups, behind, stale, opening: opened.opening },
    ...(provedAt ? { provedAt } : {}),
    ...(fault ? { fault } : {}),
    full: !(await hasRoom(opened.folder)),
    backups: backups.map(({ at, provedAt: proved, jobs }) => ({
      ...{ at, proved: proved !== undefined },
      jobs: jobs.map(({ id, name }) => ({ id, name })),
    })),
  };
}

/** Days without a proved backup, and where backups lie, once that is too long ago. */
export async function staleBackup(): Promise<{ readonly folder: string; readonly provedAt?: string } | undefined> {
  const opened = await store();
  if (!isInFolder(opened)) return undefined;
  const { stale, provedAt } = await backupState(opened, Date.now());
  return stale ? { folder: opened.backups, ...(provedAt ? { provedAt } : {}) } : undefined;
}

/** Whether the program answers, and what stands in the way of writing. */
export async function aliveness() {
  try {
    const { folder, server, database } = await store();
    if (server !== undefined) await database.query('select 1');
    return { folder, full: !(await hasRoom(folder)), now: new Date().toISOString() };
  } catch (error) {
    if (isDamaged(error)) return { damaged: error.message };
    throw error;
  }
}

/** What is left of the data where the database is damaged; undefined where it is not. */
export async function damage() {
  try {
    await store();
    return undefined;
  } catch (error) {
    if (!isDamaged(error)) throw error;
    const folder = path.resolve(dataFolder());
    const backup = await lastProved(path.join(folder, 'backups'));
    const journal = await journalFiles(path.join(folder, 'journal'));
    return {
      ...{ message: error.message, folder, hasJournal: journal.length > 0 },
      ...(backup ? { backupAt: backup.at, jobs: backup.jobs.map(({ name }) => name) } : {}),
    };
  }
}
