import { mkdir, open, readdir, readFile, rm } from 'node:fs/promises';
import path from 'node:path';
import type { Database } from '@/db/database';
import { DiskFull, isFull } from '@/db/journal/journal';
import { contentIds } from '@/db/photographs';
import { makePreview, storeContent } from './photographs';

/**
 * The bytes of pictures beside the journal: a line of it names a picture, the bytes stand here until backups that were
 * proved hold them.
 */
export interface PictureKeeper {
  /** Writes the bytes of a picture through to the disk. @throws DiskFull where they do not fit */
  keep(id: string, content: Uint8Array): Promise<void>;
  read(id: string): Promise<Buffer | undefined>;
  /** Those that are kept. */
  all(): Promise<readonly string[]>;
  forget(ids: readonly string[]): Promise<void>;
}

export function pictureKeeper(dataFolder: string): PictureKeeper {
  const folder = path.join(dataFolder, 'journal', 'pictures');
  const place = (id: string) => path.join(folder, id);
  return {
    keep: async (id, content) => {
      await mkdir(folder, { recursive: true });
      const file = await open(place(id), 'w');
      try {
        await file.writeFile(content);
        await file.datasync();
      } catch (error) {
        await rm(place(id), { force: true });
        throw isFull(error) ? new DiskFull() : error;
      } finally {
        await file.close();
      }
    },
    read: (id) => readFile(place(id)).catch(() => undefined),
    all: () => readdir(folder).catch(() => []),
    forget: async (ids) => {
      for (const id of ids) await rm(place(id), { force: true });
    },
  };
}

/** Puts back the kept pictures that a database lacks, before the journal brings the rows that name them. */
export async function restorePictures(database: Database, pictures: PictureKeeper): Promise<void> {
  const there = await contentIds(database);
  for (const id of await pictures.all()) {
    if (there.has(id)) continue;
    const content = await pictures.read(id);
    const preview = content && (await makePreview(content).catch(() => undefined));
    if (preview) await database.transaction((tx) => storeContent(tx, id, preview, content));
  }
}
