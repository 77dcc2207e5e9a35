import { SHOP_TABLES, type RowOf, type ShopTable } from '@/core/shell/job/job-rows';
import { isoTime, type Queryable } from './database';
import { columns, nameOf, TABLES, TIME_KEYS } from './table';

export type ShopRows = { [T in ShopTable]: RowOf<T>[] };

/** The shop's instruments and benches with all their versions, oldest first. */
export async function shopRows(db: Queryable): Promise<ShopRows> {
  const of = async (table: ShopTable) => {
    const rows = await db.query<Record<string, unknown>>(
      `select ${columns(table)} from ${nameOf(table)} order by ${TABLES[table].order ?? 'id'}`,
    );
    for (const row of rows)
      for (const key of TIME_KEYS[table]) if (typeof row[key] === 'string') row[key] = isoTime(row[key]);
    return [table, rows] as const;
  };
  const all: (readonly [ShopTable, unknown])[] = [];
  for (const table of SHOP_TABLES) all.push(await of(table));
  return Object.fromEntries(all) as unknown as ShopRows;
}
