import { z } from 'zod';
import { bringAs } from './jobs';

/** A backup by the time it was taken. */
export const backupAt = z.iso.datetime();
/** A job brought back from a backup. */
export const bringBack = z.strictObject({ backupAt, jobId: z.uuid(), as: bringAs });
export type BringBack = z.input<typeof bringBack>;
export const nothing = z.undefined().or(z.null());
