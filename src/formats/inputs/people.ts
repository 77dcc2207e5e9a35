import { z } from 'zod';
import { ROLES } from '@/core/shell/job/entities/work';
import { words } from '@/core/shell/job/entities/fields';

const name = words.trim().min(1, 'a name').max(80);
/** Long enough that nobody tries it out; what it is made of is left to whoever makes it. */
const passphrase = words.min(10, 'at least ten signs: four words are good').max(200);

/** Who somebody in the shop is, and what they may do. */
export const member = z.strictObject({
  id: z.uuid(),
  name,
  roles: z.array(z.enum(ROLES)),
  owner: z.boolean(),
  here: z.boolean(),
});
/** A passphrase an owner gives somebody. */
export const givenPassphrase = z.strictObject({ personId: z.uuid(), passphrase });
/** A passphrase of one's own, with the one before said again. */
export const ownPassphrase = z.strictObject({ before: z.string().max(200), passphrase });
/** A PIN of one's own, with the passphrase said again. */
export const ownPin = z.strictObject({
  passphrase: z.string().max(200),
  pin: z.string().regex(/^\d{4,8}$/, 'four to eight digits'),
});

export type Member = z.input<typeof member>;
export type GivenPassphrase = z.input<typeof givenPassphrase>;
export type OwnPassphrase = z.input<typeof ownPassphrase>;
export type OwnPin = z.input<typeof ownPin>;
