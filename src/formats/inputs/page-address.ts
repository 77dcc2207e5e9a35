import { z } from 'zod';

/** What the address of the place for bracing and cutting may say: which stage is in hand. Anything else is passed over. */
export const cuttingPageInput = z.object({
  stage: z.coerce.number().int().min(0).max(200).optional().catch(undefined),
});

/** Which set-up the address of its place asks for. */
export const setUpPageInput = z.object({ shown: z.uuid().optional().catch(undefined) });
