import { z } from 'zod';
import * as entity from '@/core/shell/job/entities';

/** What is done to the shell, as its forms say it; who and when come from the request. */
export const newBrace = z.strictObject({
  brace: entity.brace.omit({ version: true }),
  dimensionIds: z.array(z.uuid()),
});
export const braceEvent = entity.braceEvent.omit({ at: true, author: true });

const holds = z.array(entity.pullHold).max(40, 'at most 40 points can hold a pull');
export const newPull = z.strictObject({ pull: entity.pull.omit({ version: true }), holds: holds.default([]) });
export const pullEvent = entity.pullEvent.omit({ at: true, author: true });
export const pullHolds = z.strictObject({ pullId: z.uuid(), holds });

export const newStep = entity.step.omit({ ordinal: true, version: true });
export const stepEvent = entity.stepEvent.omit({ at: true, author: true });

export type NewBrace = z.input<typeof newBrace>;
export type BraceEventInput = z.input<typeof braceEvent>;
export type NewPull = z.input<typeof newPull>;
export type PullEventInput = z.input<typeof pullEvent>;
export type PullHoldsInput = z.input<typeof pullHolds>;
export type NewStep = z.input<typeof newStep>;
export type StepEventInput = z.input<typeof stepEvent>;
