import { z } from 'zod';
import * as entity from '@/core/shell/job/entities';

/** So many jobs a list shows at first, and more with each asking. */
export const JOBS_SHOWN = 40;

export const newJob = entity.job
  .pick({
    id: true,
    name: true,
    shell: true,
    identityNumber: true,
    owner: true,
    shop: true,
    driverSide: true,
    bench: true,
  })
  .extend({
    /** The job of another car of the same model that it begins from, with what holds for both; null: it begins empty. */
    afterId: entity.job.shape.id.nullable().default(null),
  });
export const jobFields = entity.job;

/** A new version of an instrument; its number and the day it holds from come from the server. */
export const instrumentVersion = entity.instrumentVersion.omit({ number: true, validFrom: true });
export const newInstrument = z.strictObject({ instrument: entity.instrument, version: instrumentVersion });

export type NewJobInput = z.input<typeof newJob>;
export type JobFields = z.input<typeof jobFields>;
export type InstrumentVersionInput = z.input<typeof instrumentVersion>;
export type NewInstrument = z.input<typeof newInstrument>;
export const jobId = z.uuid();
export const puttingAway = z.strictObject({ jobId, away: z.boolean() });
export type PuttingAway = z.input<typeof puttingAway>;

/** How a job is brought in: as what it is, or, where it is here already, beside it, into its gaps or in its place. */
export const bringAs = z.enum(['new', 'copy', 'missing', 'replace']);
export type BringAs = z.infer<typeof bringAs>;
