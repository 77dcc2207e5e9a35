import { z } from 'zod';
import { id, at, code, line, name, text, author, count, version, length } from './fields';

// What is done to the shell: braces, pulls and steps.

export const brace = z.strictObject({
  id,
  jobId: id,
  code,
  fromPointId: id,
  toPointId: id,
  kind: z.enum(['weldedTube', 'adjustable', 'boltedFrame']),
  section: line,
  roundId: id.nullable(),
  note: text,
  version,
});
export const braceDimension = z.strictObject({ braceId: id, dimensionId: id });
export const braceEvent = z.strictObject({
  id,
  braceId: id,
  kind: z.enum(['planned', 'fitted', 'removed']),
  at,
  author,
  note: line,
});
export const pull = z.strictObject({
  id,
  jobId: id,
  code,
  pointId: id,
  roundId: id,
  /** Wanted movement of the point in chart axes, mm. */
  aimX: length,
  aimY: length,
  aimZ: length,
  /** Where and how the shell is held, in words; the points are rows of their own. */
  heldAt: line,
  note: text,
  version,
});
export const pullEvent = z.strictObject({
  id,
  pullId: id,
  kind: z.enum(['planned', 'loaded', 'released', 'done', 'abandoned']),
  at,
  author,
  note: line,
});
export const HOLD_KINDS = ['clamp', 'head', 'chain', 'bolt', 'weld', 'stand'] as const;
/** A point at which the shell is held while it is pulled. */
export const pullHold = z.strictObject({
  id,
  pullId: id,
  pointId: id,
  kind: z.enum(HOLD_KINDS),
  /** What it is rated for, N; empty where nobody knows. */
  rating: z.number().positive().max(1_000_000).nullable(),
});
export const RUNGS = ['look', 'setUp', 'measure', 'brace', 'cut', 'pull', 'fit', 'weld', 'verify'] as const;
export const step = z.strictObject({
  id,
  jobId: id,
  rung: z.enum(RUNGS),
  ordinal: count,
  title: name,
  note: text,
  /** What must be measured or photographed before it; empty where nothing must. */
  needs: line,
  /** What the program itself sees done, and the step with it. */
  doneBy: z.enum(['signing']).nullable().default(null),
  version,
});
export const STEP_EVENTS = ['begun', 'curing', 'missing', 'done', 'dropped', 'reopened'] as const;
export const stepEvent = z.strictObject({
  id,
  stepId: id,
  kind: z.enum(STEP_EVENTS),
  /** When the curing or the waiting is over. */
  until: at.nullable(),
  at,
  author,
  note: line,
});

export type Brace = z.infer<typeof brace>;
export type BraceDimension = z.infer<typeof braceDimension>;
export type BraceEvent = z.infer<typeof braceEvent>;
export type Pull = z.infer<typeof pull>;
export type PullHold = z.infer<typeof pullHold>;
export type PullEvent = z.infer<typeof pullEvent>;
export type Step = z.infer<typeof step>;
export type StepEvent = z.infer<typeof stepEvent>;
