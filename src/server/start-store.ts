import { FolderInUse, FolderUnusable } from '@/db/data-folder';
import { scheduleBackups } from './backups/schedule';
import { FolderMoved } from './move/moved';
import { ServerUnusable } from './server-store';
import { isDamaged, isInFolder, store, type Store } from './store';

/** Opens the store and keeps it going; ends the process where it cannot be had. */
export async function startStore(): Promise<void> {
  try {
    const opened = await store();
    const { faults, restored, rebuiltFrom } = opened.opening;
    for (const { file, line, reason } of faults) console.error(`${file}, line ${line}: ${reason}`);
    if (rebuiltFrom) console.log(`The database was built anew from ${rebuiltFrom}`);
    if (restored > 0) console.log(`${restored} entries were put back from the journal`);
    keepGoing(opened);
  } catch (error) {
    // The pages say what is damaged, and what to do.
    if (isDamaged(error)) return console.error(error.message);
    if (![FolderInUse, FolderUnusable, FolderMoved, ServerUnusable].some((kind) => error instanceof kind)) throw error;
    console.error((error as Error).message);
    process.exit(3);
  }
}

/** What an open store needs as long as the program runs: its backups, and that it is closed on a signal. */
export function keepGoing(opened: Store): void {
  if (isInFolder(opened)) scheduleBackups(opened);
  let closing = false;
  const close = () => {
    if (closing) return;
    closing = true;
    void opened.close().finally(() => process.exit(0));
  };
  process.once('SIGTERM', close);
  process.once('SIGINT', close);
}
