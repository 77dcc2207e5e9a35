import { credentialOf } from '@/db/people';
import type { Queryable } from '@/db/database';
import { AWAY_IN_WORDS } from '@/formats/people';
import { done, failed, type Outcome } from '@/formats/outcome';
import type { Actor } from './actor';
import { isSecret, Tries } from './secrets';

const MOST_TRIES = 10;

/** Whether somebody who has a passphrase said it again just now; who has none cannot, and need not. */
export async function saidAgain(db: Queryable, { personId }: Actor, passphrase: string): Promise<Outcome> {
  const credential = await credentialOf(db, personId);
  if (!credential) return done(null);
  if (passphrase === '') return failed('passphrase', 'your passphrase again');
  const tries = new Tries('again', MOST_TRIES, async () => db);
  if (!(await tries.count(personId))) return failed('passphrase', AWAY_IN_WORDS.tooOften);
  if (!(await isSecret(passphrase, credential.passphrase)))
    return failed('passphrase', 'that is not your passphrase: type it again');
  await tries.forget(personId);
  return done(null);
}
