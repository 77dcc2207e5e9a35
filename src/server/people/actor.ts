import { randomUUID } from 'node:crypto';
import { headers } from 'next/headers';
import { cache } from 'react';
import { mayDo, nameKey, newPerson, type Need } from '@/core/shell/people';
import type { Person } from '@/core/shell/job/entities';
import { peopleHere, withPin } from '@/db/people';
import type { Database, Queryable } from '@/db/database';
import { columns, insert } from '@/db/table';
import type { WhoIsHere } from '@/formats/people';
import { readPreferences } from '@/formats/preferences';
import { DEVICE_HEADER } from '../floor/floor';
import { preferencesCookie } from '../preferences';
import { store } from '../store';
import type { Session } from './sessions';
import { SESSION_HEADER, theSessions } from './shared';

/** Who acts: what rows are signed with, and whom of the shop's people that is. */
export interface Actor {
  readonly name: string;
  readonly personId: string;
}

/**
 * Who asks: somebody who proved it; somebody who said it, on a machine that answers nobody else; or nobody has said it there
 * yet. A request that should have been proved and was not is a stranger's.
 */
export type Asking =
  | (Actor & { readonly kind: 'proved'; readonly person: Person })
  | (Actor & { readonly kind: 'said' })
  | { readonly kind: 'nobody' }
  | { readonly kind: 'stranger' };

/** Who asks in this request. */
export async function actorHere(database: Database): Promise<Asking> {
  const asked = await headers();
  const session = asked.get(SESSION_HEADER);
  if (session !== null) return provedIn(database, await theSessions()?.byId(session));
  // The gate lets nothing of the network in without a session; were it not so, nothing is done here.
  if (asked.has(DEVICE_HEADER)) return { kind: 'stranger' };
  const name = readPreferences(await preferencesCookie()).person.trim();
  if (name === '') return { kind: 'nobody' };
  return { kind: 'said', name, personId: await personCalled(database, name) };
}

async function provedIn(database: Database, session: Session | undefined): Promise<Asking> {
  const [person] = session
    ? await database.query<Person>(`select ${columns('people')} from person where id = $1`, [session.personId])
    : [];
  if (!person || person.retiredAt !== null) return { kind: 'stranger' };
  return { kind: 'proved', name: person.name, personId: person.id, person };
}

/** The person of a name; one who is new becomes one of the shop's people, once. */
async function personCalled(database: Database, name: string): Promise<string> {
  const known = async (db: Queryable) =>
    (await peopleHere(db)).find((each) => nameKey(each.name) === nameKey(name))?.id;
  return (
    (await known(database)) ??
    database.transaction(async (tx) => {
      const meanwhile = await known(tx);
      if (meanwhile !== undefined) return meanwhile;
      const id = randomUUID();
      await insert(tx, 'people', [newPerson(id, name)]);
      return id;
    })
  );
}

const NEED_WORD: Readonly<Record<Need, string>> = {
  measure: 'measure and tick',
  plan: 'plan',
  sign: 'sign',
  owner: 'say who may do what',
  known: 'do anything',
};

/** Why somebody may not do this, in words; undefined where they may. On a machine that answers nobody else, everybody may. */
export function whyNot(who: Asking, need: Need): string | undefined {
  if (who.kind === 'stranger') return 'say who you are first';
  if (who.kind !== 'proved' || mayDo(who.person, need)) return undefined;
  return `${who.name} may not ${NEED_WORD[need]} here: ask somebody who may, or the owner of the shop for it`;
}

/** Who works in this browser, where people prove who they are; undefined where it is enough to say it. */
export const whoIsHere = cache(async (): Promise<WhoIsHere | undefined> => {
  const id = (await headers()).get(SESSION_HEADER);
  const sessions = theSessions();
  const session = id === null ? undefined : await sessions?.byId(id);
  if (!session || !sessions) return undefined;
  const { database } = await store();
  const people = await peopleHere(database);
  const person = people.find((each) => each.id === session.personId);
  return {
    ...{ id: session.personId, name: person?.name ?? '', locked: sessions.isLocked(session) },
    known: await withPin(database, session.known),
  };
});

/** Whom of the people a name written on a device is: who asks, or somebody who said their passphrase there before. */
export async function personWriting(db: Database, who: Asking, name: string): Promise<Actor | undefined> {
  if (who.kind === 'stranger') return undefined;
  if (who.kind !== 'proved') return { name, personId: await personCalled(db, name) };
  const people = await peopleHere(db);
  const found = people.find((each) => nameKey(each.name) === nameKey(name));
  const id = (await headers()).get(SESSION_HEADER);
  const session = id === null ? undefined : await theSessions()?.byId(id);
  return found && session?.known.includes(found.id) ? { name: found.name, personId: found.id } : undefined;
}
