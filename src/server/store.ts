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

/** The open store; the start scripts say where it is through `VINKEL_DATA`. */
export const store = (): Promise<Store> => {
  const folder = process.env.VINKEL_DATA;
  if (!folder) throw new Error('VINKEL_DATA does not say where the data folder is');
  return (shared.vinkelStore ??= openStore(folder));
};
