import { z } from 'zod';
import { SHARED_KINDS, type ListedShared } from '@/core/shell/shared';

const sharedKind = z.enum(SHARED_KINDS);

/** A chart or a structure of a job, or a bench, by its identity. */
export const shared = z.strictObject({
  kind: sharedKind,
  of: z.uuid(),
  name: z.string().trim().min(1, 'a name by which the others know it').max(200),
});
export type Shared = z.input<typeof shared>;
export const takenBack = z.strictObject({ id: z.uuid() });
export type TakenBack = z.input<typeof takenBack>;

/** What of it a browser is told. */
export const listedShared: z.ZodType<ListedShared> = z.strictObject({
  id: z.uuid(),
  kind: sharedKind,
  name: z.string(),
  ofShop: z.string(),
  at: z.iso.datetime(),
  author: z.string(),
  own: z.boolean(),
});
