import { z } from 'zod';
import * as entity from '@/core/shell/job/entities';
import { length, words } from '@/core/shell/job/entities';

/** What a new reference is made of. */
export const makeOf = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('earlierRound'), roundId: z.uuid() }),
  z.strictObject({ kind: z.literal('mirroredSide'), roundId: z.uuid(), good: z.enum(['left', 'right']) }),
  z.strictObject({ kind: z.literal('sisterCar'), roundIds: z.array(z.uuid()), through: z.array(z.uuid()) }),
  z.strictObject({ kind: z.literal('removedPart'), roundId: z.uuid(), through: z.array(z.uuid()) }),
  z.strictObject({
    kind: z.literal('plannedChange'),
    pointIds: z.array(z.uuid()),
    offset: z.tuple([length, length, length]),
  }),
  z.strictObject({
    kind: z.enum(['keptPart', 'chart']),
    figures: words.max(200_000),
    unit: z.enum(['mm', 'cm', 'm', 'in', 'ft']),
    trust: z.number().min(0).max(1000),
  }),
]);
export const newReference = z.strictObject({
  jobId: z.uuid(),
  name: words.trim().min(1, 'the reference needs a name').max(200),
  source: words.trim().max(2000),
  of: makeOf,
});
/** References in the order they are used. */
export const ranks = z.strictObject({ jobId: z.uuid(), ids: z.array(z.uuid()) });
export const trust = z.strictObject({
  id: z.uuid(),
  trust: z.number('type a number').min(0, 'not below zero').max(1000),
});
export const use = z.strictObject({ jobId: z.uuid(), id: z.uuid(), inUse: z.boolean() });
export const choice = entity.referenceChoice.omit({ at: true, author: true, personId: true });
export const mirroring = z.strictObject({ pointIds: z.array(z.uuid()), mirrored: z.boolean() });

/** A round of another shell, from a file. */
export const sisterFile = z.strictObject({
  jobId: z.uuid(),
  shell: words.trim().min(1, 'say which car it is').max(200),
  instrumentVersionId: z.uuid(),
  unit: z.enum(['mm', 'cm', 'm', 'in', 'ft']),
  file: z.strictObject({ name: z.string(), text: z.string().max(20_000_000) }),
  /** Which point of this shell each point of the other is; points not named are left out. */
  mapping: z.record(z.string(), z.uuid()),
});

export type MakeOf = z.input<typeof makeOf>;
export type NewReference = z.input<typeof newReference>;
export type Ranks = z.input<typeof ranks>;
export type Trust = z.input<typeof trust>;
export type Use = z.input<typeof use>;
export type Choice = z.input<typeof choice>;
export type Mirroring = z.input<typeof mirroring>;
export type SisterFileInput = z.input<typeof sisterFile>;
