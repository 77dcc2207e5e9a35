import type { Queryable } from './database';

/** Tables of a running program, of its own upkeep, or of the server it is on: they are not carried from one database to another. */
const NOT_CARRIED = [
  ...['migration', 'noted_change', 'journal_mark', 'session', 'tries', 'asked_once', 'job_export'],
  ...['shop', 'shared', 'shared_by'],
];

/** What a shop has in a table: its rows, and a checksum over them all in whatever order they stand. */
export interface TableSum {
  readonly table: string;
  readonly rows: number;
  readonly sum: string;
}

/** Counts and checksums of all tables that hold somebody's data, by name; none may be forgotten, so the database is asked which there are. */
export async function tableSums(tx: Queryable): Promise<TableSum[]> {
  await tx.query("select set_config('timezone', 'UTC', true)");
  const tables = await tx.query<{ table: string }>(
    `select table_name as "table" from information_schema.tables
     where table_schema = 'public' and table_type = 'BASE TABLE' and table_name <> all($1::text[])
     order by table_name collate "C"`,
    [NOT_CARRIED],
  );
  const sums: TableSum[] = [];
  for (const { table } of tables) {
    const [found] = await tx.query<{ rows: number; sum: string }>(
      `select count(*)::int as rows, coalesce(md5(string_agg(hash, '' order by hash collate "C")), '') as sum
       from (select md5((to_jsonb(t) - 'shop_id')::text) as hash from public."${table}" as t) as hashes`,
    );
    sums.push({ table, ...found! });
  }
  return sums;
}
