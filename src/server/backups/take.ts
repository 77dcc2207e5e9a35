import { createWriteStream, existsSync } from 'node:fs';
import { link, mkdir, rename, rm, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { theJob, type JobRows } from '@/core/shell/job/job-rows';
import type { Queryable } from '@/db/database';
import { listJobIds, loadJob } from '@/db/jobs';
import { markOf } from '@/db/journal/mark';
import { shopRows } from '@/db/shop';
import { contentHash, zipOfJob } from '../archive/export';
import { live } from '../live';
import { needRoom } from '../room';
import type { FolderStore } from '../store';
import { archiveIn, backupsIn, folderName, MANIFEST, type Backup, type BackupManifest } from './manifest';

/**
 * Takes a backup: all jobs as they are at one moment, each as its own archive. A job that is as it was in the backup
 * before shares that one's archive. The journal begins a new file with what comes after. Nobody waits while the jobs are
 * read, but for those that are written to meanwhile.
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
  const written = writtenMeanwhile();
  try {
    const reads = new Map<string, JobRead>();
    const read = async (from: Queryable, id: string) => {
      const rows = await loadJob(from, id);
      if (rows) reads.set(id, asListed(rows, before));
    };
    const begun = await markOf(database);
    for (const id of await listJobIds(database)) await read(database, id);
    // While the rest is read nothing else writes: the moment is the same for all, and for the journal.
    const manifest = await database.transaction(async (tx): Promise<BackupManifest> => {
      const number = await markOf(tx);
      const ids = await listJobIds(tx);
      for (const id of ids) if (!reads.has(id) || written.mayBeOf(id, number - begun)) await read(tx, id);
      const shop = await shopRows(tx);
      await journal.rotate(number + 1);
      return { format: 'vinkel.backup/1', at: now, number, ...shop, jobs: ids.map((id) => reads.get(id)!.listed) };
    });
    for (const { id } of manifest.jobs) {
      const { rows } = reads.get(id)!;
      if (rows) await pipeline(zipOfJob(database, rows), createWriteStream(archiveIn(scratch, id)));
    }
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
  } finally {
    written.stop();
  }
}

/** A job as a backup lists it, with its rows where the backup before has no such archive. */
interface JobRead {
  readonly listed: BackupManifest['jobs'][number];
  readonly rows?: JobRows;
}

function asListed(rows: JobRows, before: Backup | undefined): JobRead {
  const { id, name } = theJob(rows);
  const content = contentHash(rows);
  const same = before?.jobs.some((each) => each.id === id && each.content === content);
  const isThere = same && existsSync(archiveIn(before!.path, id));
  const pictures = rows.photographs.map((photograph) => photograph.id);
  return { listed: { id, name, content, pictures }, ...(isThere ? {} : { rows }) };
}

/** Hears which jobs are written to while they are read one after another, so that only these are read again. */
function writtenMeanwhile() {
  const jobs = new Set<string>();
  let heard = 0;
  let all = false;
  const stop = live().watch((change) => {
    heard += 1;
    if (change.jobs === 'all') all = true;
    else for (const id of change.jobs) jobs.add(id);
  });
  /** @param changes how many the journal has had meanwhile: one that was not heard of may be of any job */
  const mayBeOf = (id: string, changes: number) => all || heard !== changes || jobs.has(id);
  return { stop, mayBeOf };
}
