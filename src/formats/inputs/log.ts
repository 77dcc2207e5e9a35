import { z } from 'zod';
import { logEntry, logSubject } from '@/core/shell/job/entities';

/** A finding or a decision with what it is about. */
export const newEntry = z.strictObject({
  entry: logEntry.omit({ at: true, author: true }),
  subjects: z.array(logSubject.omit({ entryId: true })),
});
export const signing = z.strictObject({ id: z.uuid(), jobId: z.uuid(), signedBy: z.string().trim().min(1).max(80) });

export type NewEntry = z.input<typeof newEntry>;
export type Signing = z.input<typeof signing>;
