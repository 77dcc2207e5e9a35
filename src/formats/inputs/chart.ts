import { z } from 'zod';
import * as entity from '@/core/shell/job/entities';

export const chartFiles = z.strictObject({
  jobId: z.uuid(),
  files: z
    .array(z.strictObject({ name: z.string(), text: z.string().max(20_000_000) }))
    .min(1)
    .max(4),
  unit: z.enum(['mm', 'cm', 'm', 'in', 'ft']),
  /** The shell has the size the file says, however odd. */
  asItSays: z.boolean().default(false),
});
/** What an import did: things new, changed, gone and the same. */
export interface ChartCounts {
  readonly new: number;
  readonly changed: number;
  readonly gone: number;
  readonly same: number;
}
/** A point with what the chart says of it, edited as one line; of a point that is only named it says nothing. */
export const chartPoint = z.strictObject({ point: entity.point, reference: entity.referencePoint.nullable() });
export const chartDimension = z.strictObject({ dimension: entity.dimension, reference: entity.referenceDimension });
export const subjectId = z.uuid();
export const newSeam = z.strictObject({
  seam: entity.seam,
  stations: z.array(entity.seamStation).min(1).max(40),
  targets: z.array(entity.referenceStation.omit({ referenceId: true })),
});

/** A seam corrected, and the gap wanted along it where that is corrected too, mm. */
export const correctedSeam = z.strictObject({
  seam: entity.seam,
  wanted: z.strictObject({ gap: z.number().min(0).max(100), limit: z.number().positive().max(100) }).nullable(),
});

export type CorrectedSeam = z.input<typeof correctedSeam>;
export type ChartFiles = z.input<typeof chartFiles>;
export type ChartPoint = z.input<typeof chartPoint>;
export type ChartDimension = z.input<typeof chartDimension>;
export type NewSeam = z.input<typeof newSeam>;
