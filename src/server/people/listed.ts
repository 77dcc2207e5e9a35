import type { Person } from '@/core/shell/job/entities';
import { mayDo } from '@/core/shell/people';
import { credentialOf, credentials, hasOwner } from '@/db/people';
import { columns } from '@/db/table';
import type { ListedPerson } from '@/formats/people';
import { store } from '../store';
import { actorHere } from './actor';

/** Everybody of the shop, and whether whoever asks may say who may do what. */
export async function peopleListed(): Promise<{ people: ListedPerson[]; mayChange: boolean; own: string | undefined }> {
  const { database } = await store();
  const who = await actorHere(database);
  const has = new Map((await credentials(database)).map(({ personId, hasPin }) => [personId, hasPin]));
  const rows = await database.query<Person>(
    `select ${columns('people')} from person where kind = 'person' order by retired_at is not null, name, id`,
  );
  return {
    people: rows.map(({ id, name, roles, owner, retiredAt }) => ({
      ...{ id, name, roles, owner, here: retiredAt === null },
      ...{ hasPassphrase: has.has(id), hasPin: has.get(id) ?? false },
    })),
    mayChange: who.kind === 'proved' ? mayDo(who.person, 'owner') : who.kind !== 'stranger',
    own: 'personId' in who ? who.personId : undefined,
  };
}

/** Whether whoever asks has a passphrase, which is said again to sign. */
export async function signsWithPassphrase(): Promise<boolean> {
  const { database } = await store();
  const who = await actorHere(database);
  return 'personId' in who && (await credentialOf(database, who.personId)) !== undefined;
}

/** Whether an owner can come in over the network, and let others. */
export const ownersThere = async (): Promise<boolean> => hasOwner((await store()).database);
