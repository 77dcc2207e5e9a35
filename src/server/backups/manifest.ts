import { readdir, readFile } from 'node:fs/promises';
import path from 'node:path';
import { z } from 'zod';
import {
  bench,
  benchVersion,
  closedDay,
  instrument,
  instrumentVersion,
  person,
  section,
  shelfItem,
} from '@/core/shell/job/entities';

/** What a backup holds: every job as its own archive, the shop's instruments and benches, and where the journal stood. */
export const backupManifest = z.strictObject({
  format: z.literal('vinkel.backup/1'),
  at: z.iso.datetime(),
  /** The journal's last line that is in it. */
  number: z.int().min(0),
  instruments: z.array(instrument),
  instrumentVersions: z.array(instrumentVersion),
  benches: z.array(bench).default([]),
  benchVersions: z.array(benchVersion).default([]),
  shelfItems: z.array(shelfItem).default([]),
  sections: z.array(section).default([]),
  people: z.array(person).default([]),
  closedDays: z.array(closedDay).default([]),
  jobs: z.array(
    z.strictObject({
      id: z.uuid(),
      name: z.string(),
      /** Of the archive's documents: the same for the same rows. */
      content: z.string(),
      pictures: z.array(z.uuid()),
    }),
  ),
});
export type BackupManifest = z.infer<typeof backupManifest>;

/** That a backup was restored into an empty folder and taken out of it again, equal. */
const proof = z.strictObject({ at: z.iso.datetime() });

export const MANIFEST = 'backup.json';
export const PROOF = 'proved.json';
export const archiveIn = (backup: string, jobId: string): string => path.join(backup, 'jobs', `${jobId}.zip`);

export interface Backup extends BackupManifest {
  readonly path: string;
  readonly provedAt?: string;
}

/** The folder of a backup taken at a time: `2026-11-26T10-00-00-000Z`. */
export const folderName = (at: string): string => at.replace(/[:.]/g, '-');

/** The folders of backups, named by their times, the newest first. */
async function foldersIn(folder: string): Promise<string[]> {
  const names = await readdir(folder).catch(() => []);
  return names
    .filter((name) => /^\d{4}-\d\d-\d\dT[\d-]+Z$/.test(name))
    .sort()
    .reverse()
    .map((name) => path.join(folder, name));
}

/** All backups in a folder, the newest first; what is no whole backup is passed over. */
export async function backupsIn(folder: string): Promise<Backup[]> {
  const found = await Promise.all((await foldersIn(folder)).map(readBackup));
  return found.filter((each) => each !== undefined);
}

/** The newest backup of a folder that was proved; undefined where none was. */
export async function lastProved(folder: string): Promise<Backup | undefined> {
  for (const each of await foldersIn(folder)) {
    const backup = await readBackup(each);
    if (backup?.provedAt) return backup;
  }
  return undefined;
}

export async function readBackup(folder: string): Promise<Backup | undefined> {
  const manifest = backupManifest.safeParse(await json(path.join(folder, MANIFEST)));
  if (!manifest.success) return undefined;
  const proved = proof.safeParse(await json(path.join(folder, PROOF)));
  return { ...manifest.data, path: folder, ...(proved.success ? { provedAt: proved.data.at } : {}) };
}

const json = async (file: string): Promise<unknown> => {
  try {
    return JSON.parse(await readFile(file, 'utf8'));
  } catch {
    return undefined;
  }
};
