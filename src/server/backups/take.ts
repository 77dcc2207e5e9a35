import { createWriteStream, existsSync } from 'node:fs';
import { link, mkdir, rename, rm, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { theJob, type JobRows } from '@/core/shell/job/job-rows';
import { listJobIds, loadJob } from '@/db/jobs';
import { markOf } from '@/db/journal/mark';
import { shopRows } from '@/db/shop';
import { contentHash, zipOfJob } from '../archive/export';
import { needRoom } from '../room';
import type { FolderStore } from '../store';
import { archiveIn, backupsIn, folderName, MANIFEST, type BackupManifest } from './manifest';

/**
 * Takes a backup: all jobs as they are at one moment, each as its own archive. A job that is as it was in the backup
 * before shares that one's archive. The journal begins a new file with what comes after.
 *
 * @returns its folder
 */
export async function takeBackup(store: FolderStore, now: string): Promise<string> {
  const { database, journal, backups, folder } = store;
  await needRoom(folder);
  const before = (await backupsIn(backups))[0];
  const scratch = path.join(folder, `scratch-backup-${process.pid}`);
  await rm(scratch, { recursive: true, force: true });
  await mkdir(path.join(scratch, 'jobs'), { recursive: true });
  try {
    const changed: JobRows[] = [];
    // While the rows are read nothing else writes: the moment is the same for all, and for the journal.
    const manifest = await database.transaction(async (tx): Promise<BackupManifest> => {
      const number = await markOf(tx);
      const jobs: BackupManifest['jobs'] = [];
      for (const id of await listJobIds(tx)) {
        const rows = (await loadJob(tx, id))!;
        const content = contentHash(rows);
        const same = before?.jobs.some((each) => each.id === id && each.content === content);
        if (!same || !existsSync(archiveIn(before!.path, id))) changed.push(rows);
        jobs.push({ id, name: theJob(rows).name, content, pictures: rows.photographs.map((each) => each.id) });
      }
      const shop = await shopRows(tx);
      await journal.rotate(number + 1);
      return { format: 'vinkel.backup/1', at: now, number, ...shop, jobs };
    });
    for (const rows of changed)
      await pipeline(zipOfJob(database, rows), createWriteStream(archiveIn(scratch, theJob(rows).id)));
    for (const { id } of manifest.jobs)
      if (!existsSync(archiveIn(scratch, id))) await link(archiveIn(before!.path, id), archiveIn(scratch, id));
    await writeFile(path.join(scratch, MANIFEST), JSON.stringify(manifest, undefined, 1), { flush: true });
    await mkdir(backups, { recursive: true });
    const place = path.join(backups, folderName(now));
    await rename(scratch, place);
    return place;
  } catch (error) {
    await rm(scratch, { recursive: true, force: true });
    throw error;
  }
}
