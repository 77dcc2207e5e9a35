import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import path from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream as NodeReadableStream } from 'node:stream/web';
import { DiskFull, isFull } from '@/db/journal/journal';
import type { BringAs } from '@/formats/inputs/jobs';
import type { Outcome } from '@/formats/outcome';
import { needRoom } from '../room';
import { store, type Store } from '../store';
import { importJob } from './import';

/** Where jobs that another took the place of lie, as archives. */
export const replacedIn = ({ backups }: Pick<Store, 'backups'>): string => path.join(backups, 'replaced');

/** Writes an upload to the data folder's disk, brings the job in, and tidies up. */
export async function importUpload(
  body: ReadableStream<Uint8Array>,
  bytes: number,
  as: BringAs,
): Promise<Outcome<{ jobId: string }>> {
  const opened = await store();
  // The archive itself, its rows and pictures in the database, and these once more for the journal.
  await needRoom(opened.folder, 3 * bytes);
  const folder = await mkdtemp(path.join(opened.folder, 'import-'));
  try {
    const zipPath = path.join(folder, 'job.zip');
    await pipeline(Readable.fromWeb(body as NodeReadableStream), createWriteStream(zipPath));
    return await importJob({ ...opened, replaced: replacedIn(opened) }, zipPath, as);
  } catch (error) {
    throw isFull(error) ? new DiskFull() : error;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
