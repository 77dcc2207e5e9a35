import { z } from 'zod';
import { at, author, count, id, length, line, name, version, personId } from './fields';

// What a finding or a decision says besides its words, and the parts taken off.

export const FINDING_SORTS = [
  'other',
  'oldWeld',
  'metalThickness',
  'coatingThickness',
  'crease',
  'crack',
  'rust',
  'filler',
  'notSeen',
  'pressTest',
] as const;
export const WELD_GRADES = ['fused', 'lyingOnTop', 'cracked'] as const;
/** What a finding is of, and how far it goes. */
export const findingDetail = z.strictObject({
  entryId: id,
  sort: z.enum(FINDING_SORTS),
  /** How an old weld holds. */
  grade: z.enum(WELD_GRADES).nullable(),
  /** Thickness before and after, mm. */
  before: length.positive().nullable(),
  after: length.positive().nullable(),
  weight: z.enum(['structural', 'cosmetic']).nullable(),
  /** Seen on one side: the other is still to be looked at. */
  otherSide: z.boolean(),
});
/** What a decision costs, and what the owner says to it. */
export const decisionDetail = z.strictObject({
  entryId: id,
  hours: z.number().min(0).max(10_000).nullable(),
  ownerSays: z.enum(['yes', 'no']).nullable(),
  ownerSaidAt: at.nullable(),
});
/** A part taken off the shell, by the number on its tag. */
export const partTag = z.strictObject({
  id,
  jobId: id,
  number: count.min(1),
  part: name,
  takenFrom: line,
  state: line,
  shelf: line,
  /** It is not scrapped before this. */
  keepUntil: line,
  at,
  author,
  personId,
  version,
});

export type FindingDetail = z.infer<typeof findingDetail>;
export type DecisionDetail = z.infer<typeof decisionDetail>;
export type PartTag = z.infer<typeof partTag>;
