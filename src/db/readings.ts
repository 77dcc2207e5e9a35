import type { Reading, ReadingStrike } from '@/core/shell/job/entities';
import type { Queryable } from './database';
import { columns, insert } from './table';

export async function nextSequence(tx: Queryable, roundId: string): Promise<number> {
  const [row] = await tx.query<{ next: number }>(
    'select coalesce(max(sequence), 0) + 1 as next from reading where round_id = $1',
    [roundId],
  );
  return row!.next;
}

/** Which of these readings are in the database already. */
export async function presentReadings(tx: Queryable, ids: readonly string[]): Promise<Set<string>> {
  const rows = await tx.query<{ id: string }>('select id from reading where id = any($1::uuid[])', [ids]);
  return new Set(rows.map((row) => row.id));
}

/** Readings of these lines that have not been struck yet. */
export const standingReadings = (tx: Queryable, lineIds: readonly string[]): Promise<Reading[]> =>
  tx.query(
    `select ${columns('readings')}
     from reading
     left join reading_strike on reading_strike.reading_id = reading.id
     where reading.line_id = any($1::uuid[]) and reading_strike.id is null`,
    [lineIds],
  );

export const addReadings = (tx: Queryable, readings: readonly Reading[]): Promise<void> =>
  insert(tx, 'readings', readings, { skipExisting: true });

export const addStrikes = (tx: Queryable, strikes: readonly ReadingStrike[]): Promise<void> =>
  insert(tx, 'readingStrikes', strikes, { skipExisting: true });
