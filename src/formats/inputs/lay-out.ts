import { z } from 'zod';
import { BODY_TYPES } from '@/core/shell/job/entities';

const measure = z.number().positive().max(10_000).nullable();

/** Places chosen on a body's picture, and the measures that bring it to this shell's size, mm. */
export const layingOut = z.strictObject({
  jobId: z.uuid(),
  body: z.enum(BODY_TYPES),
  wheelbase: measure,
  track: measure,
  height: measure,
  places: z.array(z.string().max(40)).min(1, 'choose at least one place').max(200),
});

export type LayingOut = z.input<typeof layingOut>;
