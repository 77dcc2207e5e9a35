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
export type PullEvent = z.infer<typeof pullEvent>;
export type Step = z.infer<typeof step>;
export type StepEvent = z.infer<typeof stepEvent>;
