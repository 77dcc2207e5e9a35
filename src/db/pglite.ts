import { PGlite, type Transaction } from '@electric-sql/pglite';
import { camelRows, isoTime, planNameOf, TIMESTAMPTZ, type Database, type Queryable } from './database';

/** PGlite behind the port: PostgreSQL inside this process, its files in `folder`. It has one connection, for one after another. */
export async function openPglite(folder: string | undefined): Promise<Database> {
  const pglite = await PGlite.create({
    ...(folder === undefined ? {} : { dataDir: folder }),
    parsers: { [TIMESTAMPTZ]: isoTime },
  });
  const planned = new Map<string, string>();
  let plans = 0;
  /** The question as one whose plan is kept; as it is where its plan is not. */
  const asPlanned = async (engine: PGlite | Transaction, sql: string, parameters: readonly unknown[]) => {
    if (planNameOf(sql) === undefined || !parameters.every((each) => typeof each === 'string'))
      return { sql, parameters };
    // Two that come at once plan it twice: one of them may be in a transaction that the other waits for.
    const name = planned.get(sql) ?? `vinkel_${++plans}`;
    if (!planned.has(sql)) await engine.query(`prepare ${name} as ${sql}`);
    planned.set(sql, name);
    const values = parameters.map((each) => `'${each.replaceAll("'", "''")}'`);
    return { sql: `execute ${name}${values.length > 0 ? ` (${values.join(', ')})` : ''}`, parameters: [] };
  };
  const queryable = (engine: PGlite | Transaction): Queryable => ({
    query: async (text, given = []) => {
      const { sql, parameters } = await asPlanned(engine, text, given);
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
