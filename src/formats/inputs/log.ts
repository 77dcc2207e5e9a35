import { z } from 'zod';
import { decisionDetail, findingDetail, logEntry, logSubject, partTag, words } from '@/core/shell/job/entities';
import { OPEN_KINDS } from '@/core/shell/record-document';

/** A finding or a decision with what it is about. */
export const newEntry = z.strictObject({
  entry: logEntry.omit({ at: true, author: true, personId: true }),
  subjects: z.array(logSubject.omit({ entryId: true })),
  finding: findingDetail.omit({ entryId: true }).nullable().default(null),
  decision: decisionDetail.omit({ entryId: true }).nullable().default(null),
});
/** A signature, and why it is given over what is open. */
export const signing = z.strictObject({
  id: z.uuid(),
  jobId: z.uuid(),
  /** Said again by whoever has one. */
  passphrase: z.string().max(200).default(''),
  accepted: z
    .array(z.strictObject({ kind: z.enum(OPEN_KINDS), subject: words, reason: words.trim().max(2000) }))
    .max(2000)
    .default([]),
});
export const newTag = partTag.omit({ number: true, at: true, author: true, personId: true, version: true });
export const correctedTag = partTag;

export type NewEntry = z.input<typeof newEntry>;
export type NewTag = z.input<typeof newTag>;
export type CorrectedTag = z.input<typeof correctedTag>;
export type Signing = z.input<typeof signing>;
