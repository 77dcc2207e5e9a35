import { mkdtemp, readdir, rename, rm } from 'node:fs/promises';
import path from 'node:path';
import { lockFolder, type LockedFolder } from '@/db/data-folder';
import type { Database } from '@/db/database';
import { replayFirstFormat } from '@/db/journal/first-format';
import { openJournal } from '@/db/journal/journal';
import { journalled } from '@/db/journal/journalled';
import { replayJournal } from '@/db/journal/replay';
import { makeDatabase } from '@/db/new-database';
import { openPglite } from '@/db/pglite';
import { removeOrphanedContent } from '@/db/photographs';
import { lockAll } from '@/db/sessions';
import { stateOf } from '@/db/state';
import { migrateSafely } from './backups/before-migration';
import { backupsIn } from './backups/manifest';
import { restoreBackup } from './backups/restore';
import { pictureKeeper, restorePictures } from './kept-pictures';
import { live } from './live';
import { movedTo } from './move/moved';
import type { Store } from './opened';
import { needRoom } from './room';
import { openOnServer } from './server-store';

export type { Store } from './opened';

/** One whose database is in its folder. */
export type FolderStore = Store & Required<Pick<Store, 'journal' | 'pictures'>>;

export const isInFolder = (store: Store): store is FolderStore => store.server === undefined;

/** The database of a folder is damaged: nothing is written there until somebody has decided what to do. */
export class FolderDamaged extends Error {
  constructor(
    readonly folder: string,
    readonly why: string,
  ) {
    super(`The database in ${folder} is damaged: ${why}. Nothing was written there.`);
    this.name = 'FolderDamaged';
  }
}

/** Whether opening the folder failed for that; by name, since each bundle of the server has a class of its own. */
export const isDamaged = (error: unknown): error is FolderDamaged => (error as Error)?.name === 'FolderDamaged';

/**
 * Opens a data folder for this process alone, brings its schema up to date and does again from the journal what the
 * database lacks. Where there is no database but a backup, it is built from that first.
 *
 * @throws FolderInUse when another process has it
 * @throws FolderMoved when its database was moved to a server
 * @throws FolderDamaged when its database cannot be opened or is not whole
 */
export const openStore = (folder: string): Promise<FolderStore> => taking(folder, openLocked);

/**
 * Opens the database of a server, which other processes may have too; the folder holds what is this process's alone: its
 * certificates, its devices and what was replaced.
 *
 * @param server `postgres://…`
 * @throws FolderInUse when another process has the folder
 * @throws ServerUnusable when it cannot be opened
 */
export const openServerStore = (folder: string, server: string): Promise<Store> =>
  taking(folder, (locked) => openOnServer(locked, server));

async function taking<S>(folder: string, open: (locked: LockedFolder) => Promise<S>): Promise<S> {
  const locked = lockFolder(folder);
  try {
    return await open(locked);
  } catch (error) {
    locked.release();
    throw error;
  }
}

async function openLocked(locked: LockedFolder): Promise<FolderStore> {
  const moved = await movedTo(locked.path);
  if (moved) throw moved;
  await tidy(locked.path);
  const state = await stateOf(locked.databasePath);
  if (state.kind === 'damaged') throw new FolderDamaged(locked.path, state.why);
  const backup = state.kind === 'none' ? await build(locked) : undefined;
  const raw = await migrateSafely(locked, () =>
    openPglite(locked.databasePath).catch((error: unknown) => {
      throw new FolderDamaged(locked.path, `the engine cannot open it (${String(error)})`);
    }),
  );
  try {
    const pictures = pictureKeeper(locked.path);
    await restorePictures(raw, pictures);
    const first = await replayFirstFormat(raw, locked.firstJournalPath);
    const replay = await replayJournal(raw, locked.journalPath);
    await removeOrphanedContent(raw);
    // The program was away: nobody knows who is at the tablets now.
    await lockAll(raw);
    const journal = await openJournal(locked.journalPath, replay.last + 1);
    await raw.query("select set_config('vinkel.journal', 'on', false)");
    const database = journalled(raw, {
      hasRoom: () => needRoom(locked.path),
      keep: (line) => journal.append(line),
      changed: (change) => live().changed(change),
    });
    return {
      ...{ database, journal, pictures, folder: locked.path, backups: locked.backupsPath },
      opening: {
        restored: first.restored + replay.restored,
        faults: [...first.faults, ...replay.faults],
        ...(backup ? { rebuiltFrom: backup } : {}),
      },
      close: async () => {
        await database.close();
        await journal.close();
        locked.release();
      },
    };
  } catch (error) {
    await raw.close().catch(() => undefined);
    throw error;
  }
}

/**
 * Makes the database of a folder that has none, of the newest proved backup that can be restored. It is made aside and
 * stands in its place only when it is whole: killed half way, it is begun again.
 *
 * @returns the backup, where there is one
 * @throws FolderDamaged where there are backups and none of them can be restored
 */
async function build(locked: LockedFolder): Promise<string | undefined> {
  const proved = (await backupsIn(locked.backupsPath)).filter(({ provedAt }) => provedAt);
  const [first] = proved;
  if (!first) {
    await buildAside(locked, async () => undefined);
    return undefined;
  }
  const faults: string[] = [];
  for (const { path: backup } of proved)
    try {
      await buildAside(locked, (database) => restoreBackup(database, backup));
      return backup;
    } catch (error) {
      faults.push(`${backup}: ${(error as Error).message}`);
    }
  throw new FolderDamaged(locked.path, `it is gone, and no backup can be restored (${faults.join('; ')})`);
}

/** Makes a database aside, fills it, and puts it in its place when it is whole. */
export async function buildAside(
  { path: folder, databasePath }: Pick<LockedFolder, 'path' | 'databasePath'>,
  fill: (database: Database) => Promise<void>,
): Promise<void> {
  const scratch = await mkdtemp(path.join(folder, 'scratch-build-'));
  try {
    const database = await makeDatabase(path.join(scratch, 'database'));
    try {
      await fill(database);
    } finally {
      await database.close();
    }
    await rm(databasePath, { recursive: true, force: true });
    await rename(path.join(scratch, 'database'), databasePath);
  } finally {
    await rm(scratch, { recursive: true, force: true });
  }
}

/** Folders a program that was killed left behind in the middle of something. */
const LEFT_BEHIND = /^(import|scratch)-/;

async function tidy(folder: string): Promise<void> {
  for (const name of await readdir(folder))
    if (LEFT_BEHIND.test(name)) await rm(path.join(folder, name), { recursive: true, force: true });
}

/** One store a process, shared by all bundles of the server: module state would be one each. */
const shared = globalThis as typeof globalThis & { vinkelStore?: Promise<Store> };

/** The open store; the start scripts say where it is through `VINKEL_DATA`, and `VINKEL_DATABASE` where it is on a server. */
export const store = (): Promise<Store> => (shared.vinkelStore ??= openNamed());

function openNamed(): Promise<Store> {
  const server = process.env.VINKEL_DATABASE;
  return server ? openServerStore(dataFolder(), server) : openStore(dataFolder());
}

export function dataFolder(): string {
  const folder = process.env.VINKEL_DATA;
  if (!folder) throw new Error('VINKEL_DATA does not say where the data folder is');
  return folder;
}

/** Lets the next one who asks open the folder again: it was mended. */
export const openAgain = (): void => void delete shared.vinkelStore;
