import { FolderInUse } from '@/db/data-folder';
import { store } from './store';

/** Opens the store and sees to it that it is closed on a signal; ends the process where it is taken. */
export async function startStore(): Promise<void> {
  try {
    const opened = await store();
    for (const fault of opened.replay.faults)
      console.error(`journal line ${fault.line} could not be replayed: ${fault.reason}`);
    if (opened.replay.restored > 0) console.log(`${opened.replay.restored} readings were put back from the journal`);
    let closing = false;
    const close = () => {
      if (closing) return;
      closing = true;
      void opened.close().finally(() => process.exit(0));
    };
    process.once('SIGTERM', close);
    process.once('SIGINT', close);
  } catch (error) {
    if (!(error instanceof FolderInUse)) throw error;
    console.error(error.message);
    process.exit(3);
  }
}
