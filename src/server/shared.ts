import { listShared, sharedFile } from '@/db/shared';
import type { ListedShared } from '@/core/shell/shared';
import { allJobs, shopBenches } from './views';
import { store } from './store';

/** What the shops of this server share; undefined where the data is in a folder, and there are no other shops. */
export async function sharedHere(): Promise<readonly ListedShared[] | undefined> {
  const { database, server } = await store();
  return server && listShared(database);
}

/** A file another shop shares, or this one. */
export async function openShared(id: string) {
  const { database } = await store();
  return /^[0-9a-f-]{36}$/.test(id) ? sharedFile(database, id) : undefined;
}

/** What this shop could share, by name. */
export async function shareable() {
  const [jobs, benches] = await Promise.all([allJobs(), shopBenches()]);
  return {
    jobs: jobs.map(({ id, name }) => ({ id, name })),
    benches: benches.map(({ bench }) => ({ id: bench.id, name: bench.name })),
  };
}
