import { cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, renameSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Database } from '@/db/database';
import { openPglite } from '@/db/pglite';
import { openPostgres } from '@/db/postgres';
import { startCluster } from './postgres';
import { removeAll } from './remove';

/** A database engine to run the same tests on. */
export interface Engine {
  readonly name: string;
  open(): Promise<Database>;
}

const CACHES = 'node_modules/.cache/vinkel';

/** The files of a database with nothing in it: the engine takes seconds to make them, so that they are made once and copied. */
async function bareFiles(): Promise<string> {
  const { version } = JSON.parse(readFileSync('node_modules/@electric-sql/pglite/package.json', 'utf8')) as {
    version: string;
  };
  const kept = path.join(CACHES, `bare-${version}`);
  if (existsSync(kept)) return kept;
  mkdirSync(CACHES, { recursive: true });
  const scratch = mkdtempSync(path.join(CACHES, 'scratch-'));
  await (await openPglite(path.join(scratch, 'bare'))).close();
  // Another test may have been quicker: its files are as good.
  try {
    renameSync(path.join(scratch, 'bare'), kept);
  } catch (error) {
    if (!existsSync(kept)) throw error;
  }
  removeAll(scratch);
  return kept;
}

/** In a folder that is gone when it is closed. */
export const pglite: Engine = {
  name: 'PGlite',
  open: async () => {
    const folder = mkdtempSync(path.join(os.tmpdir(), 'vinkel-bare-'));
    cpSync(await bareFiles(), folder, { recursive: true });
    const database = await openPglite(folder);
    return {
      ...database,
      close: async () => {
        await database.close();
        removeAll(folder);
      },
    };
  },
};

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
