import { PGlite, type Transaction } from '@electric-sql/pglite';
import { camelRows, isoTime, isWrite, TIMESTAMPTZ, type Database, type Queryable } from './database';

/** PGlite behind the port: PostgreSQL inside this process, its files in `folder`. */
export async function openPglite(folder: string | undefined): Promise<Database> {
  const pglite = await PGlite.create({
    ...(folder === undefined ? {} : { dataDir: folder }),
    parsers: { [TIMESTAMPTZ]: isoTime },
  });
  let revision = 0;
  const queryable = (engine: PGlite | Transaction, wrote: () => void): Queryable => ({
    query: async (sql, parameters = []) => {
      const { rows } = await engine.query<Record<string, unknown>>(sql, [...parameters]);
      if (isWrite(sql)) wrote();
      return camelRows(rows);
    },
  });
  const raise = () => void revision++;
  return {
    ...queryable(pglite, raise),
    get revision() {
      return revision;
    },
    transaction: async (work) => {
      let written = false;
      const result = await pglite.transaction((tx) => work(queryable(tx, () => (written = true))));
      if (written) raise();
      return result;
    },
    script: async (sql) => {
      await pglite.exec(sql);
      raise();
    },
    close: () => pglite.close(),
  };
}
