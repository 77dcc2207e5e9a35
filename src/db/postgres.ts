import pg from 'pg';
import { camelRows, DatabaseAway, isoTime, planNameOf, TIMESTAMPTZ, type Database, type Queryable } from './database';

/** Under this lock of the server a shop's transactions are one after another; any other first number would do. */
const WRITER = '86845, (select number from shop where id = shop_here())';
/** Under this one the schema is brought up to date: no shop has this number. */
const SCHEMA = '86845, 0';

/** By this name the server shows a process that serves. */
export const APPLICATION = 'vinkel';

/** Connections of one process: reads go on beside the one that writes. */
const MOST_CONNECTIONS = 10;
/** How long a connection is waited for, and another's transaction, ms; then it is told that the server does not answer. */
const CONNECT = 5_000;
const WAIT_FOR_OTHERS = 30_000;
/** A process that stops in the middle of a transaction keeps the others waiting no longer than this, ms. */
const STANDING_STILL = 60_000;

/** Statements over many small tables take longer to be compiled than to be done. */
const NO_COMPILING = '-c jit=off';

export interface ServerDatabase extends Database {
  /** Does something while no other process does it: bringing the schema up to date. */
  alone<T>(work: () => Promise<T>): Promise<T>;
}

/**
 * A PostgreSQL server behind the port; several processes may be at one.
 *
 * @param name by which the server's own tools show this one
 */
export function openPostgres(url: string, name = APPLICATION): ServerDatabase {
  const pool = new pg.Pool({
    ...{ connectionString: url, max: MOST_CONNECTIONS, types, application_name: name },
    ...{ connectionTimeoutMillis: CONNECT, lock_timeout: WAIT_FOR_OTHERS, keepAlive: true },
    ...{ idle_in_transaction_session_timeout: STANDING_STILL, options: NO_COMPILING },
  });
  // A connection nobody has just then was broken off: the next one asks for another.
  pool.on('error', () => undefined);
  // Only one can write at a time: the others of this process wait here, without a connection each.
  let last: Promise<unknown> = Promise.resolve();
  const inTurn = <T>(work: () => Promise<T>): Promise<T> => {
    const turn = last.then(work, work);
    last = turn.catch(() => undefined);
    return turn;
  };
  const through = (client: pg.Pool | pg.PoolClient): Queryable => ({
    query: async (text, parameters = []) => {
      const name = planNameOf(text);
      const statement = { text, values: parameters as unknown[], ...(name === undefined ? {} : { name }) };
      return camelRows((await client.query<Record<string, unknown>>(statement).catch(said)).rows);
    },
  });
  /** A connection for several statements; broken where it could not be put back as it was. */
  const withClient = async <T>(work: (client: pg.PoolClient) => Promise<T>): Promise<T> => {
    const client = await pool.connect().catch(said);
    // What happens to it while it waits for nothing is told by the next statement.
    const hear = () => undefined;
    client.on('error', hear);
    let broken = false;
    try {
      return await work(client);
    } catch (error) {
      await client.query('rollback').catch(() => (broken = true));
      throw error;
    } finally {
      client.off('error', hear);
      client.release(broken);
    }
  };
  return {
    ...through(pool),
    transaction: (work) =>
      inTurn(() =>
        withClient(async (client) => {
          await client
            .query(`begin; set local vinkel.journal = 'on'; select pg_advisory_xact_lock(${WRITER})`)
            .catch(said);
          const result = await work(through(client));
          await client.query('commit').catch(said);
          return result;
        }),
      ),
    script: (sql) => withClient(async (client) => void (await client.query(sql).catch(said))),
    alone: (work) =>
      withClient(async (client) => {
        await client.query(`set lock_timeout = 0; select pg_advisory_lock(${SCHEMA})`).catch(said);
        try {
          return await work();
        } finally {
          await client.query(`select pg_advisory_unlock(${SCHEMA}); set lock_timeout = ${WAIT_FOR_OTHERS}`).catch(said);
        }
      }),
    close: () => pool.end(),
  };
}

const types = {
  getTypeParser: (oid: number, format?: 'text' | 'binary') =>
    oid === TIMESTAMPTZ && format !== 'binary' ? isoTime : pg.types.getTypeParser(oid, format as 'text'),
} as pg.CustomTypesConfig;

/**
 * Codes of the system, and of PostgreSQL (classes 08, 53 and 57; 25P03 and 55P03: it stood still, or waited for another, too
 * long), for what has nothing to do with the statement. A full disk (53100) is said as such.
 */
const AWAY = /^(ECONN|ENOTFOUND|ENOENT$|EAI_|ETIMEDOUT|EHOST|EPIPE|08...$|53[2-4]..$|57P0.$|25P03$|55P03$)/;
/** What the driver says without a code. */
const BROKEN_OFF = /connection (terminated|timeout|error)|timeout exceeded when trying to connect|not queryable/i;
const DISK_FULL = '53100';

/** Throws what a statement failed of, as the program knows it. */
function said(error: unknown): never {
  const { code = '', message } = error as Error & { code?: string };
  if (code === DISK_FULL) throw Object.assign(error as Error, { code: 'ENOSPC' });
  if (AWAY.test(code) || (code === '' && BROKEN_OFF.test(message))) throw new DatabaseAway({ cause: error });
  throw error;
}
