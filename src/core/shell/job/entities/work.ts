import { z } from 'zod';
import { id, at, line, name, text, author, count, version, length, personId, side } from './fields';

// What is done to the shell: braces, pulls and steps.

export const BRACE_ENDS = ['doubled', 'flange', 'skin', 'bolted'] as const;
/**
 * Of what kind something is that holds two places apart: welded or bolted in, to be lengthened by a thread, sliding until it is
 * clamped, pressing alone, or a part of the car that stays: a door tacked shut, a seat frame.
 */
export const BRACE_KINDS = ['weldedTube', 'adjustable', 'boltedFrame', 'slip', 'prop', 'part'] as const;
/** A temporary strut; what it is called stands in its item, whose identity is its own. */
export const brace = z.strictObject({
  id,
  jobId: id,
  fromPointId: id,
  toPointId: id,
  kind: z.enum(BRACE_KINDS),
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
  /** Of a part that stays: how stiff it is between its two places, N/mm; empty: as such parts usually are. */
  stiffness: z.number().positive().max(1_000_000).nullable(),
  /** What a slip brace holds before it slides; what a prop is pressed in with: N. Empty where nobody said. */
  force: z.number().positive().max(1_000_000).nullable(),
  /** The stages before which it goes in and comes out; empty: before the first, and after the last. */
  stageInId: id.nullable(),
  stageOutId: id.nullable(),
  roundId: id.nullable(),
  note: text,
  version,
});
export const braceDimension = z.strictObject({ braceId: id, dimensionId: id });
export const PULL_ATTACHMENTS = ['plate', 'tab', 'clamp', 'hook', 'strap', 'bolt', 'jack'] as const;
export const PULL_ANCHORS = ['tower', 'floor'] as const;
/** A force applied on purpose to move metal; what it is called stands in its item, whose identity is its own. */
export const pull = z.strictObject({
  id,
  jobId: id,
  pointId: id,
  /** Of a jack or strap between two places the point that takes the opposite force. */
  againstPointId: id.nullable(),
  roundId: id,
  /** Wanted movement of the point in chart axes, mm. */
  aimX: length,
  aimY: length,
  aimZ: length,
  /** Direction of the force, chart axes, of any length; empty: along the aim. */
  dirX: length.nullable(),
  dirY: length.nullable(),
  dirZ: length.nullable(),
  /** Where it takes hold of the metal; empty while nobody said. */
  attach: z.enum(PULL_ATTACHMENTS).nullable(),
  /** What takes the chain: a tower, which takes it at any height, or an anchor in the floor; empty while nobody said. */
  anchor: z.enum(PULL_ANCHORS).nullable(),
  /** From the metal to the anchor, mm. */
  chain: length.positive().nullable(),
  /** What the weakest of chain, clamp and anchor is rated for, N. */
  rated: z.number().positive().max(1_000_000).nullable(),
  /** Effective area of the ram's piston, mm². */
  ramArea: z.number().positive().max(100_000).nullable(),
  /** Pulls of one group are loaded together, a little each in turn; empty: by itself. */
  together: line,
  /** Where and how the shell is held, in words; the points are rows of their own. */
  heldAt: line,
  note: text,
  version,
});
/** What is to be reached in one stroke, as it was shown before it. Along the aim, from where the point stood before the first. */
export const stroke = z.strictObject({
  id,
  pullId: id,
  ordinal: count,
  /** Under load, mm. */
  target: length,
  /** Where it is expected to rest, and two standard deviations of that, mm. */
  rest: length,
  plusMinus: length.positive(),
  at,
  author,
  personId,
});
export const WAYS = ['along', 'across', 'up'] as const;
/** How far metal came home when it was let go, on the car of the same model before: of one stroke, mm. */
export const springBack = z.strictObject({
  id,
  jobId: id,
  ordinal: count,
  section: z.enum(['front', 'centre', 'rear']),
  side,
  /** The way it was pulled, most of all. */
  way: z.enum(WAYS),
  by: length,
  /** How much of the stroke stayed. */
  gained: length,
  /** The job it was read on. */
  car: name,
});
export const HOLD_KINDS = ['clamp', 'head', 'chain', 'bolt', 'weld', 'stand'] as const;
/** A point at which the shell is held while something is done to it. */
export const hold = z.strictObject({
  id,
  itemId: id,
  pointId: id,
  kind: z.enum(HOLD_KINDS),
  /** What it is rated for, N; empty where nobody knows. */
  rating: z.number().positive().max(1_000_000).nullable(),
});
/** A further plate that a bar of a pull goes through; the pull's own point takes what the plates leave. */
export const plate = z.strictObject({
  id,
  itemId: id,
  pointId: id,
  /** Of the force, more than none and less than all. */
  share: z.number().gt(0).lt(1),
});
/** Of work or of waiting. */
const minutes = z.int().min(0).max(1_000_000);
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
  /** The item of work it is about: a panel, a joint, a pull; empty where it is about none. */
  itemId: id.nullable(),
  /** Work, min; empty where nobody said. */
  minutes: minutes.nullable(),
  /** From the end of its work until what needs it can begin: curing, drying, a part on order; min, at 20 °C where it cures. */
  waits: minutes.nullable(),
  /** How warm it is where it cures, °C; empty where warmth is no matter to it. */
  curesAt: z.number().min(-20).max(80).nullable(),
  /** What needs it must be begun so long after its work ends, min; empty where it keeps. */
  keeps: minutes.nullable(),
  /** While it waits it is looked after so often, min: wetted anew, turned, read. */
  tendEvery: minutes.nullable(),
  noise: z.boolean(),
  outdoor: z.boolean(),
  notBefore: at.nullable(),
  version,
});
/** A step that cannot begin before another is done and has waited. */
export const stepNeed = z.strictObject({ stepId: id, needsId: id });
/** Who, or what there is one of, a step takes. */
export const stepPerson = z.strictObject({ stepId: id, personId: id });
/** Time that was worked on a step, min; a slip is taken back by a negative one. */
export const booking = z.strictObject({
  id,
  stepId: id,
  minutes: z
    .int()
    .min(-60_000)
    .max(60_000)
    .refine((value) => value !== 0),
  at,
  author,
  personId,
  note: line,
});
export const WORKER_KINDS = ['person', 'tool'] as const;
const dayMinute = z.int().min(0).max(1440);
/** What somebody may do in the shop: take readings and tick what is done, plan it, sign what it came to. */
export const ROLES = ['measure', 'plan', 'sign'] as const;
/** Somebody in the shop, or a thing there is one of: when they work, minutes after midnight, and what they may do. */
export const person = z.strictObject({
  id,
  name,
  kind: z.enum(WORKER_KINDS),
  /** Days of the week; 1 is Monday. */
  days: z.array(z.int().min(1).max(7)),
  starts: dayMinute,
  ends: dayMinute,
  /** When they may make noise. */
  noiseStarts: dayMinute,
  noiseEnds: dayMinute,
  retiredAt: at.nullable(),
  roles: z.array(z.enum(ROLES)),
  /** Says who may do what, and lets devices in. */
  owner: z.boolean(),
});
/** A day on which nobody works, or on which it is too wet to work outdoors. */
export const closedDay = z.strictObject({ id, day: z.iso.date(), kind: z.enum(['closed', 'wet']), name: line });
/** What rings at an instant until somebody heard it. */
export const timer = z.strictObject({
  id,
  jobId: id,
  name,
  stepId: id.nullable(),
  ringsAt: at,
  at,
  author,
  personId,
  heardAt: at.nullable(),
  heardBy: line,
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
  personId,
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
  stiffness: null,
  force: null,
  stageInId: null,
  stageOutId: null,
  roundId: null,
  note: '',
} as const;
/** What happened to a brace: one that slips is loosened to set what it holds, and fitted again. */
export const BRACE_EVENTS = ['planned', 'fitted', 'loosened', 'removed'] as const;
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
/** A pull with what it is called. */
export type CodedPull = Pull & { readonly code: string };
/** What a pull has besides its point and aim when it is first planned. */
export const NEW_PULL = {
  againstPointId: null,
  dirX: null,
  dirY: null,
  dirZ: null,
  attach: null,
  anchor: null,
  chain: null,
  rated: null,
  ramArea: null,
  together: '',
  heldAt: '',
  note: '',
} as const;
/** What happened to a pull: `cleared` is that nobody stood in the way before a stroke. */
export const PULL_EVENTS = ['planned', 'cleared', 'loaded', 'released', 'done', 'abandoned'] as const;
export interface PullEvent {
  readonly id: string;
  readonly pullId: string;
  readonly kind: (typeof PULL_EVENTS)[number];
  readonly at: string;
  readonly author: string;
  readonly note: string;
}
export type PullState = Exclude<(typeof PULL_EVENTS)[number], 'cleared'>;
export type Hold = z.infer<typeof hold>;
export type Plate = z.infer<typeof plate>;
export type Stroke = z.infer<typeof stroke>;
export type EarlierSpringBack = z.infer<typeof springBack>;
export type Way = (typeof WAYS)[number];
export type Step = z.infer<typeof step>;
export type StepEvent = z.infer<typeof stepEvent>;
export type Person = z.infer<typeof person>;
export type Role = (typeof ROLES)[number];
export type ClosedDay = z.infer<typeof closedDay>;
export type Booking = z.infer<typeof booking>;
export type Timer = z.infer<typeof timer>;
/** What a step has besides its words when it is first named. */
export const NEW_STEP = {
  doneBy: null,
  itemId: null,
  minutes: null,
  waits: null,
  curesAt: null,
  keeps: null,
  tendEvery: null,
  noise: false,
  outdoor: false,
  notBefore: null,
} as const;
