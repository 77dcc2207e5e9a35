import { z } from 'zod';
import * as entity from '@/core/shell/job/entities';

/** A version of a bench with what lies on its shelf; its number and the day it holds from come from the server. */
export const benchVersion = z.strictObject({
  version: entity.benchVersion.omit({ number: true, validFrom: true }),
  items: z.array(entity.shelfItem).max(200),
});
export const newBench = benchVersion.extend({ bench: entity.bench });

export const newSetUp = z.strictObject({
  setUp: entity.setUp.omit({ version: true }),
  item: entity.workItem,
});
export const setUpFields = entity.setUp;
/** Which places the shell stands on, in the order they are built, and of what: instead of what was planned before. */
export const mounts = z.strictObject({
  setUpId: z.uuid(),
  mounts: z.array(entity.mount).max(100),
  pieces: z.array(entity.mountPiece).max(2000),
});
export const tick = entity.workEvent.omit({ at: true, author: true });

export type BenchVersionInput = z.input<typeof benchVersion>;
export type NewBench = z.input<typeof newBench>;
export type NewSetUp = z.input<typeof newSetUp>;
export type SetUpFields = z.input<typeof setUpFields>;
export type MountsInput = z.input<typeof mounts>;
export type TickInput = z.input<typeof tick>;
