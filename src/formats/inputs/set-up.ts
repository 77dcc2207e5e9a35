import { z } from 'zod';
import * as entity from '@/core/shell/job/entities';
import { itemEvent, type ItemEventInput } from './work';

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
/** A mount ticked off as built, with what stands there, or not built any more, with nothing. */
export const builtMount = z
  .strictObject({
    event: itemEvent,
    headId: entity.mount.shape.headId,
    lift: entity.mount.shape.lift,
    pieces: z.array(entity.mountPiece).max(20),
  })
  .refine(({ event: { kind } }) => kind === 'ticked' || kind === 'unticked', {
    path: ['event', 'kind'],
    message: 'a mount is built, or is not',
  })
  .refine(({ headId, lift }) => (headId === null) === (lift === null), {
    path: ['lift'],
    message: 'what stands under a mount has a head and how far its screw is out, or neither',
  });
/** A part that serves as a gauge, whole: holes and lengths that are not here are taken away. */
export const gaugePart = z.strictObject({
  part: entity.gaugePart,
  holes: z.array(entity.partHole).min(3, 'a part needs at least three holes to serve as a gauge').max(60),
  checks: z.array(entity.partCheck).max(200),
});
/** All points of the platform: those that are not here belong to the body. */
export const platform = z.strictObject({ jobId: z.uuid(), points: z.array(entity.platformPoint).max(500) });
export type BenchVersionInput = z.input<typeof benchVersion>;
export type NewBench = z.input<typeof newBench>;
export type NewSetUp = z.input<typeof newSetUp>;
export type SetUpFields = z.input<typeof setUpFields>;
export type BuiltMountInput = z.input<typeof builtMount>;
export type MountsInput = z.input<typeof mounts>;
export type GaugePartInput = z.input<typeof gaugePart>;
export type PlatformInput = z.input<typeof platform>;
export type TickInput = ItemEventInput;
