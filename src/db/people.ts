import type { Queryable } from './database';

/** Somebody as they are told from others where they come in. */
export interface NamedPerson {
  readonly id: string;
  readonly name: string;
}

/** What somebody proves who they are with: salted hashes. */
export interface Credential {
  readonly passphrase: string;
  readonly pin: string | null;
}

/** Everybody in the shop now. */
export const peopleHere = (db: Queryable): Promise<NamedPerson[]> =>
  db.query("select id, name from person where kind = 'person' and retired_at is null order by name, id");

export async function credentialOf(db: Queryable, personId: string): Promise<Credential | undefined> {
  const [found] = await db.query<Credential>('select passphrase, pin from credential where person_id = $1', [personId]);
  return found;
}

interface KeptCredential extends Credential {
  readonly personId: string;
  readonly changedAt: string;
}

export const allCredentials = (db: Queryable): Promise<KeptCredential[]> =>
  db.query('select person_id, passphrase, pin, changed_at from credential');

export const addCredential = (
  db: Queryable,
  { personId, passphrase, pin, changedAt }: KeptCredential,
): Promise<unknown[]> =>
  db.query('insert into credential (person_id, passphrase, pin, changed_at) values ($1, $2, $3, $4)', [
    ...[personId, passphrase, pin, changedAt],
  ]);

/** Who has a passphrase, and who has a PIN besides. */
export const credentials = (db: Queryable): Promise<{ personId: string; hasPin: boolean }[]> =>
  db.query('select person_id, pin is not null as has_pin from credential');

/** Those of these people who are here and have a PIN to go on with. */
export const withPin = (db: Queryable, ids: readonly string[]): Promise<NamedPerson[]> =>
  db.query(
    `select person.id, person.name from person join credential on credential.person_id = person.id
     where person.id = any($1::uuid[]) and credential.pin is not null and person.retired_at is null
     order by person.name, person.id`,
    [ids],
  );

/** A new passphrase takes the place of the one before, and of the PIN. */
export const setPassphrase = (db: Queryable, personId: string, passphrase: string, at: string): Promise<unknown[]> =>
  db.query(
    `insert into credential (person_id, passphrase, pin, changed_at) values ($1, $2, null, $3)
     on conflict (person_id, shop_id) do update set passphrase = excluded.passphrase, pin = null, changed_at = excluded.changed_at`,
    [personId, passphrase, at],
  );

export const setPin = (db: Queryable, personId: string, pin: string, at: string): Promise<unknown[]> =>
  db.query('update credential set pin = $2, changed_at = $3 where person_id = $1', [personId, pin, at]);

/** Whether there is somebody who owns the shop and can prove it. */
export async function hasOwner(db: Queryable): Promise<boolean> {
  const found = await db.query(
    `select from person join credential on credential.person_id = person.id
     where person.owner and person.retired_at is null limit 1`,
  );
  return found.length > 0;
}
