import { z } from 'zod';
import { COMPONENTS } from './components';
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
      /** What lies at the hinge. */
      near: text,
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
  kind: z.enum(['weldedTube', 'adjustable', 'boltedFrame']),
  section: text,
  length: mm.optional(),
  state: z.enum(['planned', 'fitted', 'removed']),
  holds: z.array(text),
});

const pull = z.strictObject({
  code: text,
  point: text,
  aim: vector,
  distance: mm,
  heldAt: text,
  springBacks: z.array(mm),
});

const entry = z.strictObject({
  kind: z.enum(['finding', 'decision']),
  text,
  reason: text,
  author: text,
  at: text,
  about: z.array(text),
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
export type RecordBrace = z.infer<typeof brace>;
export type RecordPull = z.infer<typeof pull>;
