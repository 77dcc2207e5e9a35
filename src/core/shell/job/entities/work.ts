import { z } from 'zod';
import { id, at, code, line, name, text, author, count, version, length } from './fields';

// What is done to the shell: braces, pulls and steps.

export const BRACE_ENDS = ['doubled', 'flange', 'skin', 'bolted'] as const;
/** A temporary strut; what it is called stands in its item, whose identity is its own. */
export const brace = z.strictObject({
  id,
  jobId: id,
  fromPointId: id,
  toPointId: id,
  kind: z.enum(['weldedTube', 'adjustable', 'boltedFrame']),
  /** The tube it is made of; empty where it is only told in the note. */
  sectionId: id.nullable(),
  /** What each end sits on: no brace is stiffer than its ends. */
  fromEnd: z.enum(BRACE_ENDS),
  toEnd: z.enum(BRACE_ENDS),
  /** What pads and nuts take off its length at each end, mm. */
  fromOff: length,
  toOff: length,
  /** How far one turn of its threaded end lengthens it, mm, negative where the thread is left-handed; empty: no thread. */
  threadPitch: length.nullable(),
  /** The stages before which it goes in and comes out; empty: before the first, and after the last. */
  stageInId: id.nullable(),
  stageOutId: id.nullable(),
  roundId: id.nullable(),
  note: text,
  version,
});
export const braceDimension = z.strictObject({ braceId: id, dimensionId: id });
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
/** What a brace has besides its ends and kind when it is first planned. */
export const NEW_BRACE = {
  sectionId: null,
  fromEnd: 'doubled',
  toEnd: 'doubled',
  fromOff: 0,
  toOff: 0,
  threadPitch: null,
  stageInId: null,
  stageOutId: null,
  roundId: null,
  note: '',
} as const;
/** What happened to a brace. */
export const BRACE_EVENTS = ['planned', 'fitted', 'removed'] as const;
export interface BraceEvent {
  readonly id: string;
  readonly braceId: string;
  readonly kind: (typeof BRACE_EVENTS)[number];
  readonly at: string;
  readonly author: string;
  readonly note: string;
}
/** A brace with what it is called and made of, in words. */
export type CodedBrace = Brace & { readonly code: string; readonly section: string };
export type BraceDimension = z.infer<typeof braceDimension>;
export type Pull = z.infer<typeof pull>;
export type PullHold = z.infer<typeof pullHold>;
export type PullEvent = z.infer<typeof pullEvent>;
export type Step = z.infer<typeof step>;
export type StepEvent = z.infer<typeof stepEvent>;
