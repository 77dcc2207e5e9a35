import { FolderInUse } from '@/db/data-folder';
import { scheduleBackups } from './backups/schedule';
import { FolderDamaged, store } from './store';

/** What stands in the way of a folder, as the system says it, in words. */
const IN_WORDS: Readonly<Record<string, string>> = {
  EACCES: 'the program has no right to write there',
  EPERM: 'the program has no right to write there',
  EROFS: 'it lies on a disk that can only be read',
  ENOSPC: 'the disk is full',
  ENOTDIR: 'a part of its path is a file',
};

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
    if (error instanceof FolderDamaged) return console.error(error.message);
    const why = IN_WORDS[(error as NodeJS.ErrnoException).code ?? ''];
    if (!why && !(error instanceof FolderInUse)) throw error;
    const folder = process.env.VINKEL_DATA;
    console.error(
      why
        ? `The data folder ${folder} cannot be used: ${why}. Choose another with VINKEL_DATA=… npm start.`
        : (error as Error).message,
    );
    process.exit(3);
  }
}
