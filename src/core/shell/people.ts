import type { Person, Role } from './job/entities';

/** When a shop works of which nobody has said it: from Monday to Friday, minutes after midnight. */
export const SHOP_HOURS = { days: [1, 2, 3, 4, 5], starts: 8 * 60, ends: 16 * 60 + 30 } as const;
/** When noise may be made where nothing else is said. */
export const SHOP_NOISE = { noiseStarts: 8 * 60, noiseEnds: 16 * 60 } as const;

/** Somebody of whom nothing but the name is known: they work as the shop does, and may read and tick. */
export const newPerson = (id: string, name: string): Person => ({
  ...{ id, name, kind: 'person', ...SHOP_HOURS, days: [...SHOP_HOURS.days], ...SHOP_NOISE },
  ...{ retiredAt: null, roles: ['measure'], owner: false },
});

/** What something done in the program takes: a role, that the shop is one's own, or only that one is known. */
export type Need = Role | 'owner' | 'known';

/** Whether somebody may do what takes this; an owner may do everything. */
export const mayDo = ({ roles, owner, retiredAt }: Person, need: Need): boolean =>
  retiredAt === null && (owner || need === 'known' || (need !== 'owner' && roles.includes(need)));

/** What names that mean the same person have in common. */
export const nameKey = (name: string): string => name.trim().replace(/\s+/g, ' ').toLowerCase();

/**
 * Whether the shop is left without an owner who can get in, by a change to one of its people.
 *
 * @param withPassphrase those who have one
 * @param changed how it is to be; one who is gone has `retiredAt`
 */
export function leavesNoOwner(
  people: readonly Person[],
  withPassphrase: ReadonlySet<string>,
  changed: Pick<Person, 'id' | 'owner' | 'retiredAt'>,
): boolean {
  const owns = ({ id, owner, retiredAt }: Pick<Person, 'id' | 'owner' | 'retiredAt'>) =>
    owner && retiredAt === null && withPassphrase.has(id);
  return people.some(owns) && !people.some((each) => owns(each.id === changed.id ? changed : each));
}
