import type { Person } from '@/core/shell/job/entities';
import { leavesNoOwner, nameKey } from '@/core/shell/people';
import { credentials } from '@/db/people';
import type { Database } from '@/db/database';
import { columns, put } from '@/db/table';
import { done, failed, type Outcome } from '@/formats/outcome';
import { theSessions } from './shared';

/**
 * Writes somebody as they are to be. No two who are here share a name, and the shop is never left without an owner who can
 * get in; who is not here any more is known nowhere.
 *
 * @param how what they are to be, of what they are now
 */
export async function changePerson(
  database: Database,
  id: string,
  how: (before: Person | undefined) => Person,
): Promise<Outcome> {
  const outcome = await database.transaction(async (tx): Promise<Outcome<{ gone: boolean }>> => {
    // One after another: two owners who take the other's away at once would leave none.
    const people = await tx.query<Person>(`select ${columns('people')} from person order by id for update`);
    const person = how(people.find((each) => each.id === id));
    const isHere = ({ kind, retiredAt }: Person) => kind === 'person' && retiredAt === null;
    const others = people.filter((each) => each.id !== id && isHere(each));
    if (isHere(person) && others.some(({ name }) => nameKey(name) === nameKey(person.name)))
      return failed('name', `there is a ${person.name} already: say which`);
    const known = new Set((await credentials(tx)).map(({ personId }) => personId));
    if (leavesNoOwner(people, known, person))
      return failed('owner', 'nobody would own the shop: make somebody else with a passphrase an owner first');
    await put(tx, 'people', [person]);
    return done({ gone: person.retiredAt !== null });
  });
  if (!outcome.ok) return outcome;
  if (outcome.value.gone) await theSessions()?.forgetEverywhere(id);
  return done(null);
}
