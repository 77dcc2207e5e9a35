import type { LockedFolder } from '@/db/data-folder';
import { journalled } from '@/db/journal/journalled';
import { markOf } from '@/db/journal/mark';
import { migrate } from '@/db/migrate';
import { openPostgres } from '@/db/postgres';
import { openWire } from '@/db/wire';
import { live } from './live';
import type { Store } from './store';

/** How often a process says which of its windows are open, ms. */
const STILL_HERE = 20_000;

/**
 * Opens the database of a server, where other processes may be too. What is acknowledged is in the server's own log; what
 * was changed is told to the other processes as it is committed.
 *
 * @throws DatabaseAway where it does not answer
 */
export async function openOnServer(locked: LockedFolder, url: string): Promise<Store> {
  const raw = openPostgres(url);
  try {
    await raw.alone(() => migrate(raw));
  } catch (error) {
    await raw.close();
    throw error;
  }
  const hub = live();
  const wire = openWire(url, {
    heard: (from, message) => hub.hear(from, message),
    back: () => {
      hub.join((message) => void wire.tell(message, raw).catch(() => undefined));
      void markOf(raw).then(
        (revision) => hub.catchUp(revision),
        () => undefined,
      );
    },
  });
  const beat = setInterval(() => hub.sayAll(), STILL_HERE);
  beat.unref();
  const database = journalled(raw, {
    keep: ({ number }, jobs, tx) => {
      const source = hub.writing();
      const told = jobs === 'all' ? jobs : [...jobs];
      return wire.tell({ kind: 'changed', jobs: told, revision: number, ...(source ? { source } : {}) }, tx);
    },
    changed: (change) => hub.changed(change),
  });
  return {
    ...{ database, server: addressOf(url), folder: locked.path, backups: locked.backupsPath },
    opening: { restored: 0, faults: [] },
    close: async () => {
      clearInterval(beat);
      await wire.close();
      await database.close();
      locked.release();
    },
  };
}

/** Where a database is, as it may be shown: without who opens it, and with what. */
export function addressOf(url: string): string {
  const { hostname, port, pathname, searchParams } = new URL(url);
  const host = searchParams.get('host') ?? hostname;
  return `${host}${port ? `:${port}` : ''}${pathname}`;
}
