import { FolderInUse, FolderUnusable } from '@/db/data-folder';
import { scheduleBackups } from './backups/schedule';
import { isDamaged, store } from './store';

/** Opens the store and sees to it that it is closed on a signal; ends the process where it is taken. */
export async function startStore(): Promise<void> {
  try {
    const opened = await store();
    const { faults, restored, rebuiltFrom } = opened.opening;
    for (const { file, line, reason } of faults) console.error(`${file}, line ${line}: ${reason}`);
    if (rebuiltFrom) console.log(`The database was built anew from ${rebuiltFrom}`);
    if (restored > 0) console.log(`${restored} entries were put back from the journal`);
    scheduleBackups(opened);
    let closing = false;
    const close = () => {
      if (closing) return;
      closing = true;
      void opened.close().finally(() => process.exit(0));
    };
    process.once('SIGTERM', close);
    process.once('SIGINT', close);
  } catch (error) {
    // The pages say what is damaged, and what to do.
    if (isDamaged(error)) return console.error(error.message);
    if (!(error instanceof FolderInUse || error instanceof FolderUnusable)) throw error;
    console.error(error.message);
    process.exit(3);
  }
}
