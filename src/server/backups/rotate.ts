import { rm } from 'node:fs/promises';
import path from 'node:path';
import type { FolderStore } from '../store';
import { backupsIn, type Backup } from './manifest';

/** Backups kept: the last of every day for two weeks, and the last of every month for a year. */
const DAYS = 14;
const MONTHS = 12;
/** So many proved backups must hold what the journal forgets. */
const PROVED_BEFORE_FORGETTING = 2;

/** The backups to keep of these, newest first. */
export function kept(backups: readonly Backup[]): Backup[] {
  const lastOf = (period: (at: string) => string, most: number) => {
    const periods = new Map<string, Backup>();
    for (const each of backups) if (!periods.has(period(each.at))) periods.set(period(each.at), each);
    return [...periods.values()].slice(0, most);
  };
  const wanted = new Set([
    ...lastOf((at) => at.slice(0, 10), DAYS),
    ...lastOf((at) => at.slice(0, 7), MONTHS),
    ...backups.filter(({ provedAt }) => provedAt).slice(0, PROVED_BEFORE_FORGETTING),
  ]);
  return backups.filter((each) => wanted.has(each));
}

/** Lets old backups go, and of the journal and its pictures what two proved backups hold. */
export async function rotate({ backups: folder, journal, pictures, folder: data }: FolderStore): Promise<void> {
  const all = await backupsIn(folder);
  const keep = new Set(kept(all));
  for (const each of all) if (!keep.has(each)) await rm(each.path, { recursive: true, force: true });
  const proved = all.filter(({ provedAt }) => provedAt)[PROVED_BEFORE_FORGETTING - 1];
  if (!proved) return;
  await journal.forgetUpTo(proved.number);
  await pictures.forget(proved.jobs.flatMap((job) => job.pictures));
  await rm(path.join(data, 'journal.jsonl'), { force: true });
}
