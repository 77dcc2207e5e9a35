import type { Queryable } from './database';

/** A request that nobody answered for so long was left by a process that is gone: it may be taken over. */
const LEFT = "interval '2 minutes'";
/** For so long what came of a request is known. */
const KNOWN = "interval '1 hour'";

/** Takes a request for whoever asks first; false where another has it. */
export async function claim(db: Queryable, request: string): Promise<boolean> {
  await db.query(`delete from asked_once where asked_at < now() - ${KNOWN}`);
  const claimed = await db.query(
    `insert into asked_once (request) values ($1)
     on conflict (request, shop_id) do update set asked_at = now()
       where asked_once.outcome is null and asked_once.asked_at < now() - ${LEFT}
     returning request`,
    [request],
  );
  return claimed.length > 0;
}

/** What came of a request; undefined where it is still under way, or may be sent again. */
export async function outcomeOf(db: Queryable, request: string): Promise<unknown> {
  const [row] = await db.query<{ outcome: unknown }>('select outcome from asked_once where request = $1', [request]);
  return row?.outcome ?? undefined;
}

export const settle = (db: Queryable, request: string, outcome: unknown): Promise<unknown[]> =>
  db.query('update asked_once set outcome = $2::jsonb where request = $1', [request, JSON.stringify(outcome)]);

/** It was refused: it may be sent again. */
export const release = (db: Queryable, request: string): Promise<unknown[]> =>
  db.query('delete from asked_once where request = $1', [request]);
