import type { Database } from '@/db/database';
import { openPglite } from '@/db/pglite';
import { openPostgres } from '@/db/postgres';
import { startCluster } from './postgres';

/** A database engine to run the same tests on. */
export interface Engine {
  readonly name: string;
  open(): Promise<Database>;
}

export const pglite: Engine = { name: 'PGlite', open: () => openPglite(undefined) };

/** A server of its own for as long as the test runs. */
export const postgres: Engine = {
  name: 'PostgreSQL',
  open: async () => {
    const cluster = await startCluster();
    const database = openPostgres(await cluster.create());
    return {
      ...database,
      close: async () => {
        await database.close();
        await cluster.remove();
      },
    };
  },
};
