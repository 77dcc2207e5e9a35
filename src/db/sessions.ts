import type { Queryable } from './database';

/** A browser in which somebody said their passphrase. */
export interface Session {
  readonly id: string;
  readonly tokenHash: string;
  /** The device it is of; none on the machine itself. It is good there alone. */
  readonly deviceId: string | null;
  /** Who works there now. */
  readonly personId: string;
  /** Everybody who said their passphrase there: they change hands with a PIN. */
  readonly known: readonly string[];
  readonly madeAt: string;
  /** When somebody last did something there; null where it is locked. */
  readonly usedAt: string | null;
}

const COLUMNS = 'id, token_hash, device_id, person_id, known, made_at, used_at';

export async function sessionOfToken(db: Queryable, tokenHash: string): Promise<Session | undefined> {
  const [found] = await db.query<Session>(`select ${COLUMNS} from session where token_hash = $1`, [tokenHash]);
  return found;
}

export async function sessionById(db: Queryable, id: string): Promise<Session | undefined> {
  const [found] = await db.query<Session>(`select ${COLUMNS} from session where id = $1`, [id]);
  return found;
}

export const addSession = (db: Queryable, session: Session): Promise<unknown[]> =>
  db.query(`insert into session (${COLUMNS}) values ($1, $2, $3, $4, $5, $6, $7)`, [
    ...[session.id, session.tokenHash, session.deviceId, session.personId],
    ...[session.known, session.madeAt, session.usedAt],
  ]);

export const markUsed = (db: Queryable, id: string, at: string | null): Promise<unknown[]> =>
  db.query('update session set used_at = $2 where id = $1', [id, at]);

/** Nobody is seen to be at work anywhere: whoever goes on says their PIN. */
export const lockAll = (db: Queryable): Promise<unknown[]> =>
  db.query('update session set used_at = null where used_at is not null');

export const changeHands = (db: Queryable, id: string, personId: string, at: string): Promise<unknown[]> =>
  db.query('update session set person_id = $2, used_at = $3 where id = $1 and $2 = any(known)', [id, personId, at]);

/** Somebody is known no more in a session, or in none; who worked there is asked who it is, and with nobody left it ends. */
export async function forgetIn(db: Queryable, id: string | null, personId: string): Promise<void> {
  await db.query('delete from session where known = array[$2::uuid] and ($1::uuid is null or id = $1)', [id, personId]);
  await db.query(
    `update session set
       known = array_remove(known, $2::uuid),
       person_id = case when person_id = $2 then (array_remove(known, $2::uuid))[1] else person_id end,
       used_at = case when person_id = $2 then null else used_at end
     where $2 = any(known) and ($1::uuid is null or id = $1)`,
    [id, personId],
  );
}

export const endSession = (db: Queryable, id: string): Promise<unknown[]> =>
  db.query('delete from session where id = $1', [id]);

export const endOnDevice = (db: Queryable, deviceId: string): Promise<unknown[]> =>
  db.query('delete from session where device_id = $1', [deviceId]);

/** Ends those that were begun before a time. */
export const endBefore = (db: Queryable, at: string): Promise<unknown[]> =>
  db.query('delete from session where made_at < $1', [at]);
