import { z } from 'zod';
import { COMPONENTS } from './components';
import { BRACE_EVENTS, BRACE_KINDS } from './job/entities/work';
import { decisionDetail, findingDetail } from './job/entities/finding';
import { conformity, made } from './record-made';
import { SECTIONS } from './sections';

/**
 * `vinkel.record/1`: a record that stands alone. Plain figures, no identities to follow, so that it
 * reads the same however the job goes on. Lengths in millimetres; ± is two standard deviations.
 */
const text = z.string();
const mm = z.number();
const vector = z.tuple([mm, mm, mm]).readonly();
const verdict = z.enum(['inside', 'outside', 'undecided']);

const round = z.strictObject({
  number: z.int(),
  name: text,
  state: text,
  support: text,
  suspension: text,
  supportNote: text,
  instruments: z.array(text),
  temperature: z.number().nullable(),
  author: text,
  startedAt: text,
  readings: z.int(),
  struck: z.int(),
  control: z.array(text),
  rms: mm.optional(),
});

const point = z.strictObject({
  code: text,
  name: text,
  position: vector,
  deviation: vector,
  plusMinus: vector,
  limit: mm,
  verdict,
  control: z.boolean(),
});

const dimension = z.strictObject({
  code: text,
  name: text,
  ends: text,
  measure: text,
  reference: mm,
  measured: mm,
  deviation: mm,
  plusMinus: mm,
  limit: mm,
  verdict,
  accepted: z.boolean(),
});

const gap = z.strictObject({
  /** The round that read it last. */
  round: z.int().optional(),
  seam: text,
  name: text,
  side: text,
  station: z.int(),
  quantity: text,
  measured: mm,
  target: mm,
  plusMinus: mm,
  verdict,
});

const component = z.strictObject({ name: z.enum(COMPONENTS), amount: mm, sd: mm, significant: z.boolean() });

/** What became of the shell, as the first round with readings says: the pattern of its deviations. */
const found = z.strictObject({
  round: z.int(),
  roundName: text,
  sections: z.array(
    z.strictObject({
      section: z.enum(SECTIONS),
      hinge: mm,
      end: mm,
      /** The charted point the hinge is at, where one is near enough. */
      beside: z.strictObject({ code: text, name: text }).optional(),
      /** The same in words and millimetres, as records signed before that have it. */
      near: text.optional(),
      onlySide: z.enum(['left', 'right']).optional(),
      components: z.array(component),
      alike: z.array(z.tuple([z.enum(COMPONENTS), z.enum(COMPONENTS)]).readonly()),
    }),
  ),
  /** Points that moved by themselves. */
  local: z.array(
    z.strictObject({ code: text, side: z.enum(['left', 'centre', 'right']), movement: vector, sd: vector }),
  ),
  /** Hinges that could be tried: none where too few points were located. */
  hinges: z.int(),
});

const changes = z.strictObject({
  earlier: z.int(),
  later: z.int(),
  cautions: z.array(z.enum(['support', 'suspension', 'instrument', 'control'])),
  rows: z.array(
    z.strictObject({
      code: text,
      name: text,
      change: mm,
      plusMinus: mm,
      verdict: z.enum(['held', 'moved', 'undecided']),
    }),
  ),
});

const brace = z.strictObject({
  code: text,
  ends: text,
  kind: z.enum(BRACE_KINDS),
  section: text,
  length: mm.optional(),
  state: z.enum(BRACE_EVENTS),
  holds: z.array(text),
});

const pull = z.strictObject({
  code: text,
  point: text,
  aim: vector,
  distance: mm,
  heldAt: text,
  springBacks: z.array(mm),
  /** What it went against, how it took hold, and its strokes along the aim; records signed before these came have none. */
  against: text.optional(),
  attach: z.enum(['plate', 'tab', 'clamp', 'hook', 'strap', 'bolt', 'jack']).optional(),
  strokes: z.array(z.strictObject({ loaded: mm, rested: mm, mark: mm.optional() })).optional(),
  by: z.array(text).optional(),
  state: z.enum(['planned', 'loaded', 'released', 'done', 'abandoned']).optional(),
});

/** A reading left out because the rest of its round contradicts it. */
const doubt = z.strictObject({
  round: z.int(),
  subject: text,
  value: mm,
  cause: text.optional(),
});

/** A step that was done or dropped. */
const stepDone = z.strictObject({
  rung: text,
  title: text,
  state: z.enum(['done', 'dropped']),
  at: text,
  author: text,
});

/** A brace, pull, seam or entry taken back. */
const takenBack = z.strictObject({ what: text, reason: text, at: text, author: text });

/** Readings before the first tool of a day. */
const morning = z.strictObject({
  at: text,
  author: text,
  round: z.int(),
  verdict: z.enum(['still', 'moved']),
  readings: z.array(z.strictObject({ ends: text, change: mm, plusMinus: mm })),
});

/** Kinds of what can be open when a record is signed. */
export const OPEN_KINDS = [
  'openRound',
  'doubt',
  'undecided',
  'unmeasured',
  'loose',
  'plannedBrace',
  'braceIn',
  'closeOut',
  'unreadPull',
  'notSeen',
  'otherSide',
  'openStep',
] as const;
/** What was open, and why it was signed all the same. */
const open = z.strictObject({ kind: z.enum(OPEN_KINDS), subject: text, reason: text });

const entry = z.strictObject({
  kind: z.enum(['finding', 'decision', 'assumption']),
  text,
  reason: text,
  author: text,
  at: text,
  about: z.array(text),
  overturnedBy: text.optional(),
  finding: findingDetail.omit({ entryId: true }).optional(),
  decision: decisionDetail.omit({ entryId: true }).optional(),
});

const tag = z.strictObject({
  number: z.int(),
  part: text,
  takenFrom: text,
  state: text,
  shelf: text,
  keepUntil: text,
});

export const recordDocument = z.strictObject({
  format: z.literal('vinkel.record/1'),
  madeAt: text,
  job: z.strictObject({
    name: text,
    shell: text,
    identityNumber: text,
    owner: text,
    shop: text,
    bench: text,
    driverSide: text,
    startedAt: text,
  }),
  references: z.array(z.strictObject({ kind: text, name: text, source: text, trust: mm, edition: z.int().optional() })),
  rounds: z.array(round),
  final: z
    .strictObject({
      round: z.int(),
      points: z.array(point),
      dimensions: z.array(dimension),
      gaps: z.array(gap),
    })
    .optional(),
  found: found.optional(),
  changes: changes.optional(),
  braces: z.array(brace),
  pulls: z.array(pull),
  log: z.array(entry),
  doubts: z.array(doubt).optional(),
  steps: z.array(stepDone).optional(),
  takenBack: z.array(takenBack).optional(),
  parts: z.array(tag).optional(),
  mornings: z.array(morning).optional(),
  /** What is open; with a reason each in a signed record. */
  open: z.array(open).optional(),
  ...made,
  conformity: conformity.optional(),
  photographs: z.array(
    z.strictObject({
      id: z.uuid(),
      name: text,
      author: text,
      at: text,
      width: z.int(),
      height: z.int(),
    }),
  ),
  lines: z.array(z.tuple([vector, vector]).readonly()),
});

export type RecordDocument = z.infer<typeof recordDocument>;
export type RecordRound = z.infer<typeof round>;
export type RecordFinal = NonNullable<RecordDocument['final']>;
export type RecordFound = z.infer<typeof found>;
export type RecordChanges = z.infer<typeof changes>;
export type RecordDoubt = z.infer<typeof doubt>;
export type RecordStep = z.infer<typeof stepDone>;
export type RecordTakenBack = z.infer<typeof takenBack>;
export type RecordMorning = z.infer<typeof morning>;
export type RecordOpen = z.infer<typeof open>;
export type RecordEntry = z.infer<typeof entry>;
export type RecordBrace = z.infer<typeof brace>;
export type RecordPull = z.infer<typeof pull>;
export type RecordMade = Pick<RecordDocument, keyof typeof made>;
export type RecordConformity = z.infer<typeof conformity>;
