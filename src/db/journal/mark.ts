import type { Queryable } from '../database';

/**
 * The number of the last transaction that changed rows; of the journal's last line whose changes the database holds, where
 * one is kept. What was computed from rows read at one number holds until the next.
 */
export async function markOf(database: Queryable): Promise<number> {
  const [row] = await database.query<{ number: string }>('select number::text from journal_mark');
  return Number(row!.number);
}
