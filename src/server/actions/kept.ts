'use server';

import { rename } from 'node:fs/promises';
import path from 'node:path';
import * as input from '@/formats/inputs/kept';
import { done, failed, type Outcome } from '@/formats/outcome';
import { importJob } from '../archive/import';
import { replacedIn } from '../archive/upload';
import { archiveIn, backupsIn } from '../backups/manifest';
import { backUp } from '../backups/schedule';
import { keepGoing } from '../start-store';
import { dataFolder, isDamaged, isInFolder, openAgain, store } from '../store';
import { measuringCase, ownersCase } from '../use-case';

/** Takes a backup now and proves it. */
export const takeBackupNow = measuringCase(input.nothing, async () => {
  // Not the whole context: nobody signs here, and asking for the actor would.
  const opened = await store();
  if (!isInFolder(opened))
    return failed('backup', `the database is on ${opened.server!.address}, and its backups are that server’s own`);
  try {
    await backUp(opened);
    return done(null);
  } catch (error) {
    return failed('backup', (error as Error).message);
  }
});

/** Brings a job back from a backup. */
export const bringBack = ownersCase(input.bringBack, async ({ backupAt, jobId, as }, context) => {
  const backup = (await backupsIn(context.backups)).find(({ at }) => at === backupAt);
  if (!backup?.jobs.some(({ id }) => id === jobId)) return failed('backup', 'this backup is not here any more');
  // Not the whole context: nobody signs here, and asking for the actor would.
  const { database, pictures } = context;
  return importJob(
    { database, ...(pictures ? { pictures } : {}), replaced: replacedIn(context) },
    archiveIn(backup.path, jobId),
    as,
  );
});

/** Puts a damaged database aside, whole, and builds it anew from the last proved backup and the journal. */
export async function rebuildData(): Promise<Outcome> {
  const damaged = await store().then(
    () => undefined,
    (error: unknown) => error,
  );
  if (damaged === undefined) return done(null);
  if (!isDamaged(damaged)) throw damaged;
  const folder = path.resolve(dataFolder());
  const aside = path.join(folder, `database-damaged-${new Date().toISOString().replace(/[:.]/g, '-')}`);
  await rename(path.join(folder, 'database'), aside).catch((error: NodeJS.ErrnoException) => {
    // Gone altogether: there is nothing to put aside.
    if (error.code !== 'ENOENT') throw error;
  });
  openAgain();
  try {
    keepGoing(await store());
    return done(null);
  } catch (error) {
    return failed('data', `it could not be built anew: ${(error as Error).message}; the damaged one lies in ${aside}`);
  }
}
