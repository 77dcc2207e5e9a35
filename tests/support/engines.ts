import { execFileSync, spawn } from 'node:child_process';
import { chownSync, mkdtempSync, readdirSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import pg from 'pg';
import { camelRows, isoTime, TIMESTAMPTZ, type Database, type Queryable } from '@/db/database';
import { openPglite } from '@/db/pglite';
import { removeAll } from './remove';

/** A database engine to run the same tests on. */
export interface Engine {
  readonly name: string;
  open(): Promise<Database>;
}

export const pglite: Engine = { name: 'PGlite', open: () => openPglite(undefined) };

/** Debian's PostgreSQL, started on a temporary folder for as long as the test runs. */
export const postgres: Engine = {
  name: 'PostgreSQL',
  open: async () => {
    const folder = mkdtempSync(path.join(os.tmpdir(), 'vinkel-pg-'));
    const binaries = `/usr/lib/postgresql/${readdirSync('/usr/lib/postgresql').sort().at(-1)}/bin`;
    const identity = serverUser();
    if (identity) chownSync(folder, identity.uid, identity.gid);
    const options = { ...identity, cwd: folder, stdio: 'ignore' as const };
    const data = path.join(folder, 'data');
    execFileSync(
      `${binaries}/initdb`,
      ['-D', data, '-U', 'vinkel', '-A', 'trust', '-E', 'UTF8', '--locale=C'],
      options,
    );
    const server = spawn(
      `${binaries}/postgres`,
      ['-D', data, '-k', folder, '-c', 'listen_addresses=', '-c', 'fsync=off'],
      options,
    );
    const pool = new pg.Pool({ host: folder, user: 'vinkel', database: 'postgres', max: 4, types });
    let closing = false;
    // A connection on its way out may still hear that the server is shut down under it.
    pool.on('error', (error) => {
      if (!closing) throw error;
    });
    for (let tries = 0; ; tries++)
      try {
        await pool.query('select 1');
        break;
      } catch (error) {
        if (tries > 100) throw error;
        await new Promise((resolve) => setTimeout(resolve, 100));
      }
    return behindPool(pool, async () => {
      closing = true;
      await pool.end();
      const ended = new Promise((resolve) => server.once('exit', resolve));
      server.kill('SIGINT');
      await ended;
      removeAll(folder);
    });
  },
};

/** PostgreSQL refuses to run as root: the user that Debian's package made runs it instead. */
function serverUser(): { uid: number; gid: number } | undefined {
  if (process.getuid?.() !== 0) return undefined;
  const id = (flag: string) => Number(execFileSync('id', [flag, 'postgres'], { encoding: 'utf8' }));
  return { uid: id('-u'), gid: id('-g') };
}

const types = {
  getTypeParser: (oid: number, format?: 'text' | 'binary') =>
    oid === TIMESTAMPTZ && format !== 'binary' ? isoTime : pg.types.getTypeParser(oid, format as 'text'),
} as pg.CustomTypesConfig;

function behindPool(pool: pg.Pool, close: () => Promise<void>): Database {
  const queryable = (client: pg.Pool | pg.PoolClient): Queryable => ({
    query: async (sql, parameters = []) =>
      camelRows((await client.query<Record<string, unknown>>(sql, parameters as unknown[])).rows),
  });
  return {
    ...queryable(pool),
    revision: 0,
    transaction: async (work) => {
      const client = await pool.connect();
      try {
        await client.query('begin');
        const result = await work(queryable(client));
        await client.query('commit');
        return result;
      } catch (error) {
        await client.query('rollback');
        throw error;
      } finally {
        client.release();
      }
    },
    script: async (sql) => {
      await pool.query(sql);
    },
    close,
  };
}
