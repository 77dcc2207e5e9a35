import { z } from 'zod';
import { recordDocument } from '../../record-document';
import { at, author, id, length, name, text, personId } from './fields';

// What is found, decided, photographed and signed.

export const ENTRY_KINDS = ['finding', 'decision', 'assumption'] as const;
export const logEntry = z.strictObject({
  id,
  jobId: id,
  kind: z.enum(ENTRY_KINDS),
  text: text.min(1),
  reason: text,
  author,
  personId,
  at,
  roundId: id.nullable(),
  supersedes: id.nullable(),
  /** What would overturn an assumption. */
  overturnedBy: text.default(''),
});
/** What a log entry is about; with a deviation, the entry accepts that deviation. */
export const logSubject = z.strictObject({
  id,
  entryId: id,
  pointId: id.nullable(),
  dimensionId: id.nullable(),
  acceptedDeviation: length.nullable(),
  referenceId: id.nullable(),
});
export const photograph = z.strictObject({
  id,
  jobId: id,
  entryId: id.nullable(),
  name,
  mediaType: z.enum(['image/jpeg', 'image/png', 'image/webp', 'image/avif', 'image/gif', 'image/tiff']),
  bytes: z.int().positive(),
  width: z.int().positive(),
  height: z.int().positive(),
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
  author,
  personId,
  at,
});
/** A signed record is a snapshot: what was true when it was signed, for good. */
export const signedRecord = z.strictObject({
  id,
  jobId: id,
  number: z.int().min(1),
  signedBy: author,
  personId,
  signedAt: at,
  snapshot: recordDocument,
  /** SHA-256 of what is signed (see `signedContent`); empty where it was signed before that was kept. */
  hash: z
    .string()
    .regex(/^[0-9a-f]{64}$/)
    .nullable()
    .default(null),
});

export type LogEntry = z.infer<typeof logEntry>;
export type LogSubject = z.infer<typeof logSubject>;
export type Photograph = z.infer<typeof photograph>;
export type SignedRecord = z.infer<typeof signedRecord>;
