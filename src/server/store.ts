import os from 'node:os';
import path from 'node:path';
import { lockFolder } from '@/db/data-folder';
import type { Database } from '@/db/database';
import { openJournal, replayJournal, type Journal, type Replay } from '@/db/journal';
import { migrate } from '@/db/migrate';
import { openPglite } from '@/db/pglite';
import { removeOrphanedContent } from '@/db/photographs';

/** The open data folder: its database and its journal. */
export interface Store {
  readonly database: Database;
  readonly journal: Journal;
  readonly replay: Replay;
  readonly folder: string;
  close(): Promise<void>;
}

/** Where a user's data are kept unless `VINKEL_DATA` says otherwise. */
export function defaultDataFolder(): string {
  const home = os.homedir();
  if (process.platform === 'win32')
    return path.join(process.env.LOCALAPPDATA ?? path.join(home, 'AppData', 'Local'), 'Vinkel');
  if (process.platform === 'darwin') return path.join(home, 'Library', 'Application Support', 'Vinkel');
  return path.join(process.env.XDG_DATA_HOME ?? path.join(home, '.local', 'share'), 'vinkel');
}

/**
 * Opens a data folder for this process alone, brings its schema up to date and puts back from the
 * journal what the database lacks.
 *
 * @throws FolderInUse when another process has it
 */
export async function openStore(folder: string): Promise<Store> {
  const locked = lockFolder(folder);
  try {
    const database = await openPglite(locked.databasePath);
    await migrate(database);
    const replay = await replayJournal(database, locked.journalPath);
    await removeOrphanedContent(database);
    const journal = await openJournal(locked.journalPath);
    return {
      database,
      journal,
      replay,
      folder: locked.path,
      close: async () => {
        await database.close();
        await journal.close();
        locked.release();
      },
    };
  } catch (error) {
    locked.release();
    throw error;
  }
}

/** One store a process, shared by all bundles of the server: module state would be one each. */
const shared = globalThis as typeof globalThis & { vinkelStore?: Promise<Store> };

export const store = (): Promise<Store> =>
  (shared.vinkelStore ??= openStore(process.env.VINKEL_DATA ?? defaultDataFolder()));
