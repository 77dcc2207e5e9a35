import { markOf } from '@/db/journal/mark';
import { inThread } from '../thread';
import type { FolderStore } from '../store';
import { lastProved } from './manifest';
import { proveBackup } from './prove';
import { rotate } from './rotate';
import { takeBackup } from './take';

const HOUR = 3_600_000;
/** A backup is due so long after the last one that was proved, and stale after this. */
const DUE = 20 * HOUR;
const STALE = 72 * HOUR;
/** How often it is looked whether one is due, and how long after the start first. */
const LOOK_EVERY = HOUR / 6;
const FIRST_LOOK = HOUR / 30;

/** One at a time, whoever asks for it. */
const shared = globalThis as typeof globalThis & { vinkelBackup?: Promise<void>; vinkelBackupFault?: string };

/** Takes a backup, proves it and lets old ones go. Whoever asks while one is taken gets that one. */
export const backUp = (store: FolderStore): Promise<void> =>
  (shared.vinkelBackup ??= take(store).finally(() => {
    shared.vinkelBackup = undefined;
  }));

async function take(store: FolderStore): Promise<void> {
  try {
    const backup = await takeBackup(store, new Date().toISOString());
    await inThread('proof-thread', { backup, scratchIn: store.folder }, proveBackup);
    await rotate(store);
    shared.vinkelBackupFault = undefined;
  } catch (error) {
    shared.vinkelBackupFault = error instanceof Error ? error.message : String(error);
    throw error;
  }
}

/** Why the last backup did not come about, where it did not. */
export const backupFault = (): string | undefined => shared.vinkelBackupFault;

export interface BackupState {
  /** When the last one that was proved was taken. */
  readonly provedAt?: string;
  /** Something was written since. */
  readonly behind: boolean;
  /** It is so long ago, with something written since, that somebody should look. */
  readonly stale: boolean;
}

export async function backupState({ database, backups }: FolderStore, now: number): Promise<BackupState> {
  const proved = await lastProved(backups);
  const behind = (await markOf(database)) > (proved?.number ?? 0);
  const old = proved ? now - Date.parse(proved.at) > STALE : backupFault() !== undefined;
  return { behind, stale: behind && old, ...(proved ? { provedAt: proved.at } : {}) };
}

/** Takes a backup whenever one is due, as long as the program runs. */
export function scheduleBackups(store: FolderStore): void {
  const look = async () => {
    const { provedAt, behind } = await backupState(store, Date.now());
    const due = behind && (provedAt === undefined || Date.now() - Date.parse(provedAt) > DUE);
    if (due) await backUp(store);
  };
  const quietly = () => void look().catch((error: unknown) => console.error(`backup: ${String(error)}`));
  setTimeout(quietly, FIRST_LOOK).unref();
  setInterval(quietly, LOOK_EVERY).unref();
}
