import { z } from 'zod';
import { id, at, line, name, text, author, count, version, limit, length, personId } from './fields';

// What is right: references, their editions and their figures.

export const REFERENCE_KINDS = [
  'chart',
  'sisterCar',
  'mirroredSide',
  'earlierRound',
  'keptPart',
  'plannedChange',
] as const;
export const reference = z.strictObject({
  id,
  jobId: id,
  kind: z.enum(REFERENCE_KINDS),
  name,
  source: text,
  /** One standard deviation of its figures, mm; 0 where they are right by definition. */
  trust: z.number().min(0).max(1000),
  rank: count,
  roundId: id.nullable(),
  createdAt: at,
  /** Editions of one reference; only the one in use is judged by. */
  edition: version.default(1),
  /** The first edition. */
  editionOf: id.nullable().default(null),
  inUse: z.boolean().default(true),
});
/** A round a reference was computed from. */
export const referenceRound = z.strictObject({ referenceId: id, roundId: id });
/** One standard deviation of a single figure, mm; the reference's trust where it has none of its own. */
const figureSd = z.number().min(0).max(1000).nullable().default(null);
export const referencePoint = z.strictObject({
  id,
  referenceId: id,
  pointId: id,
  x: length,
  y: length,
  z: length,
  tolerance: limit,
  sd: figureSd,
  version,
});
export const referenceDimension = z.strictObject({
  id,
  referenceId: id,
  dimensionId: id,
  value: length.positive(),
  tolerance: limit,
  sd: figureSd,
  version,
});
export const referenceStation = z.strictObject({
  id,
  referenceId: id,
  stationId: id,
  quantity: z.enum(['gap', 'flush']),
  value: length,
  tolerance: limit,
  sd: figureSd,
  version,
});
/** A reference chosen for one point or dimension against the ranks; the last one of a subject holds. */
export const referenceChoice = z.strictObject({
  id,
  jobId: id,
  pointId: id.nullable(),
  dimensionId: id.nullable(),
  /** Empty: back to the ranks. */
  referenceId: id.nullable(),
  at,
  author,
  personId,
  reason: line,
});

export type Reference = z.infer<typeof reference>;
export type ReferencePoint = z.infer<typeof referencePoint>;
export type ReferenceDimension = z.infer<typeof referenceDimension>;
export type ReferenceStation = z.infer<typeof referenceStation>;
export type ReferenceRound = z.infer<typeof referenceRound>;
export type ReferenceChoice = z.infer<typeof referenceChoice>;
