import type { Queryable } from './database';
import { APPLICATION } from './postgres';

/** A shop of a database; one in a data folder, one or more on a server. */
export interface Shop {
  readonly id: string;
  readonly name: string;
  /** The role of the database by which its programs come in. */
  readonly role: string;
  /** Where its programs tell each other what changes. */
  readonly channel: string;
}

const COLUMNS = 'id, name, role, channel';

/** The shop whose role asks; undefined where it is no shop's. */
export async function shopHere(db: Queryable): Promise<Shop | undefined> {
  const [found] = await db.query<Shop>(`select ${COLUMNS} from shop where id = shop_here()`);
  return found;
}

/** Whether whoever asks sees what every shop has: who owns the tables, or is above all rules. */
export async function seesAll(db: Queryable): Promise<boolean> {
  const [found] = await db.query<{ sees: boolean }>("select not row_security_active('job') as sees");
  return found!.sees;
}

/** All shops in the order they were made in, for whoever sees all of them. */
export const listShops = (db: Queryable): Promise<Shop[]> => db.query(`select ${COLUMNS} from shop order by number`);

/** A role of the server for a shop, which comes in with a password and may do nothing yet. */
export const addRole = (tx: Queryable, role: string, password: string): Promise<void> =>
  stated(tx, 'create role %I login password %L', role, password);

export const givePassword = (tx: Queryable, role: string, password: string): Promise<void> =>
  stated(tx, 'alter role %I password %L', role, password);

/** Runs a statement that takes no parameters, with names and texts quoted by the database itself. */
async function stated(tx: Queryable, says: string, ...words: readonly string[]): Promise<void> {
  const [made] = await tx.query<{ sql: string }>('select format($1::text, variadic $2::text[]) as sql', [says, words]);
  await tx.query(made!.sql);
}

/** Lets the roles of all shops read and write rows of every table, as far as its policies let them; and nothing else. */
export async function letShopsIn(tx: Queryable): Promise<void> {
  const statements = await tx.query<{ sql: string }>(
    `select format(says, role, current_database()) as sql
     from shop cross join unnest(array[
       'grant connect on database %2$I to %1$I',
       'grant usage on schema public to %1$I',
       'grant select, insert, update, delete on all tables in schema public to %1$I',
       'revoke insert, update, delete on migration, shop from %1$I',
       'grant usage on all sequences in schema public to %1$I'
     ]) with ordinality as statement (says, step)
     where role <> current_user order by number, step`,
  );
  for (const { sql } of statements) await tx.query(sql);
}

export const addShop = (tx: Queryable, name: string, role: string): Promise<unknown[]> =>
  tx.query('insert into shop (name, role) values ($1, $2)', [name, role]);

/** The same shop under another name and role. */
export const renameShop = (tx: Queryable, id: string, name: string, role: string): Promise<unknown[]> =>
  tx.query('update shop set name = $2, role = $3 where id = $1', [id, name, role]);

/** Notes that the shop that asks has begun; false where it had. */
export async function beginShop(tx: Queryable): Promise<boolean> {
  const begun = await tx.query('insert into journal_mark (number) values (0) on conflict do nothing returning number');
  return begun.length > 0;
}

/** Whether programs serve by the role that asks. */
export async function isServed(db: Queryable): Promise<boolean> {
  const programs = await db.query(
    'select from pg_stat_activity where datname = current_database() and usename = current_user and application_name = $1',
    [APPLICATION],
  );
  return programs.length > 0;
}

/** Whether nobody has put anything into it: it holds what every new one does. */
export async function isNew(db: Queryable): Promise<boolean> {
  const used = await db.query(
    'select from job union all select from person union all select from bench union all select from photograph_content',
  );
  return used.length === 0;
}
