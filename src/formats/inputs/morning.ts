import { z } from 'zod';
import { morningCheck, morningReading } from '@/core/shell/job/entities';

/** A morning's readings, with what each was expected to be. */
export const newMorning = z.strictObject({
  check: morningCheck.omit({ at: true, author: true, personId: true }),
  readings: z
    .array(morningReading.omit({ morningCheckId: true }))
    .min(1, 'read at least one of them')
    .max(6),
});
export type NewMorning = z.input<typeof newMorning>;
