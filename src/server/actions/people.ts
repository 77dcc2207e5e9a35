'use server';

import { newPerson } from '@/core/shell/people';
import { setPassphrase, setPin } from '@/db/people';
import * as input from '@/formats/inputs/people';
import { done, failed } from '@/formats/outcome';
import { changePerson } from '../people/change';
import { saidAgain } from '../people/said-again';
import { hashOfSecret } from '../people/secrets';
import { theSessions } from '../people/shared';
import { ownCase, ownersCase } from '../use-case';

/** Says who somebody is and what they may do. */
export const putMember = ownersCase(input.member, ({ id, name, roles, owner, here }, { database, now }) =>
  changePerson(database, id, (before) => ({
    ...(before ?? newPerson(id, name)),
    ...{ name, roles: [...new Set(roles)], owner },
    retiredAt: here ? null : (before?.retiredAt ?? now),
  })),
);

/** Gives somebody a passphrase in place of the one before; wherever they were known they say it again. */
export const givePassphrase = ownersCase(input.givenPassphrase, async ({ personId, passphrase }, { database, now }) => {
  const [person] = await database.query<{ name: string }>(
    "select name from person where id = $1 and kind = 'person' and retired_at is null",
    [personId],
  );
  if (!person) return failed('person', 'they are not here any more');
  await setPassphrase(database, personId, await hashOfSecret(passphrase), now);
  await theSessions()?.forgetEverywhere(personId);
  return done(null);
});

/** Takes a passphrase of one's own; one is known on where one is. */
export const changePassphrase = ownCase(input.ownPassphrase, async ({ before, passphrase }, context) => {
  const { database, actor, now } = context;
  const proved = await saidAgain(database, actor, before);
  if (!proved.ok) return { ok: false, faults: proved.faults.map((fault) => ({ ...fault, path: 'before' })) };
  await setPassphrase(database, actor.personId, await hashOfSecret(passphrase), now);
  return done(null);
});

/** Takes a PIN, which is enough where one has said the passphrase before. */
export const takePin = ownCase(input.ownPin, async ({ passphrase, pin }, { database, actor, now }) => {
  const proved = await saidAgain(database, actor, passphrase);
  if (!proved.ok) return proved;
  await setPin(database, actor.personId, await hashOfSecret(pin), now);
  return done(null);
});
