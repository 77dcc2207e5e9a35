import { PGlite, type Transaction } from '@electric-sql/pglite';
import { camelRows, isoTime, TIMESTAMPTZ, type Database, type Queryable } from './database';

/** PGlite behind the port: PostgreSQL inside this process, its files in `folder`. It has one connection, for one after another. */
export async function openPglite(folder: string | undefined): Promise<Database> {
  const pglite = await PGlite.create({
    ...(folder === undefined ? {} : { dataDir: folder }),
    parsers: { [TIMESTAMPTZ]: isoTime },
  });
  const queryable = (engine: PGlite | Transaction): Queryable => ({
    query: async (sql, parameters = []) => {
      const { rows } = await engine.query<Record<string, unknown>>(sql, [...parameters]);
      return camelRows(rows);
    },
  });
  return {
    ...queryable(pglite),
    transaction: (work) => pglite.transaction((tx) => work(queryable(tx))),
    script: async (sql) => {
      await pglite.exec(sql);
    },
    close: () => pglite.close(),
  };
}
