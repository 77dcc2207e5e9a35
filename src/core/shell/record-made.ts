import { z } from 'zod';
import { HOLDING_RUNGS } from './job/entities/fitting';
import { PANEL_CHOICES } from './job/entities/plan';
import { MARK_RUNS, STIFFENER_KINDS, WELD_KINDS, WELD_PROCESSES } from './job/entities/welding';

// What a record holds of how the shell was set up, cut, fitted and welded, and whether it conforms.

const text = z.string();
const mm = z.number();
const verdict = z.enum(['inside', 'outside', 'undecided']);

const setUp = z.strictObject({
  code: text,
  bench: text,
  suspension: text,
  kilograms: z.number().nullable(),
  /** What stands under each place, from the beam up. */
  mounts: z.array(z.strictObject({ at: text, on: z.array(text), lift: mm.optional() })),
});
const cut = z.strictObject({
  part: text,
  choice: z.enum(PANEL_CHOICES).nullable(),
  joinedAt: text,
  state: z.enum(['planned', 'out', 'tacked', 'in']),
  lines: z.array(z.strictObject({ label: text, edge: text, distance: mm, readBack: mm.nullable() })),
});
const weld = z.strictObject({
  panel: text,
  beside: text,
  kind: z.enum(WELD_KINDS),
  process: z.enum(WELD_PROCESSES).nullable(),
  long: mm,
  sheets: z.array(mm),
  places: z.int(),
  laid: z.int(),
  shrank: z.array(z.strictObject({ runs: z.enum(MARK_RUNS), by: mm })),
});
const history = z.strictObject({
  code: text,
  name: text,
  reference: mm.optional(),
  values: z.array(z.strictObject({ round: z.int(), value: mm, plusMinus: mm })),
});
const axleFigure = z.strictObject({ value: mm, plusMinus: mm, verdict });
const axles = z.strictObject({
  round: text,
  leftBase: mm,
  rightBase: mm,
  plusMinus: mm,
  stand: z.strictObject({
    difference: axleFigure,
    turned: z.strictObject({ degrees: z.number(), plusMinus: z.number() }),
    aside: axleFigure.optional(),
    contradiction: z.number().optional(),
  }),
});
/** How the shell stood, was cut, fitted, welded and stiffened; records signed before these came have none. */
export const made = {
  setUps: z.array(setUp).optional(),
  cuts: z.array(cut).optional(),
  fitted: z.array(z.strictObject({ code: text, name: text, rung: z.enum(HOLDING_RUNGS) })).optional(),
  welds: z.array(weld).optional(),
  cracks: z.array(z.strictObject({ code: text, place: text, long: mm, done: z.int(), of: z.int() })).optional(),
  stiffeners: z
    .array(
      z.strictObject({ code: text, kind: z.enum(STIFFENER_KINDS), on: text, kilograms: z.number(), isOn: z.boolean() }),
    )
    .optional(),
  /** Every dimension that more than one round measured. */
  history: z.array(history).optional(),
  axles: axles.optional(),
};
/** Whether the shell conforms to its references, what was accepted, and what is in the way of saying so. */
export const conformity = z.strictObject({
  round: z.int(),
  verdict: z.enum(['conforms', 'except', 'undecided', 'doesNot', 'notGiven']),
  judged: z.int(),
  outside: z.int(),
  undecided: z.int(),
  exceptions: z.array(z.strictObject({ code: text, deviation: mm, reason: text, author: text, at: text })),
  still: z.array(
    z.discriminatedUnion('kind', [
      z.strictObject({ kind: z.literal('bracesIn'), codes: z.array(text).readonly() }),
      z.strictObject({ kind: z.literal('closeOut'), names: z.array(text).readonly() }),
      z.strictObject({ kind: z.literal('otherSupport'), first: text }),
      z.strictObject({ kind: z.enum(['notCold', 'onBench', 'axlesUnread']) }),
    ]),
  ),
});
