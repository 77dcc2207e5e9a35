import { z } from 'zod';
import { at, author, count, id, length, line, measure, name, text, version, words, personId } from './fields';

// Measuring: instruments, states, supports, rounds and their readings.

export const INSTRUMENT_KINDS = [
  'tape',
  'tram',
  'digitalTram',
  'caliper',
  'feeler',
  'heightStick',
  'plumb',
  'fixtureHead',
  'other',
] as const;
export const instrument = z.strictObject({ id, name, kind: z.enum(INSTRUMENT_KINDS) });
export const instrumentVersion = z.strictObject({
  id,
  instrumentId: id,
  number: z.int().min(1),
  /** One standard deviation, mm: constant + perMetre · length in metres. */
  sdConstant: z.number().positive().max(100),
  sdPerMetre: z.number().min(0).max(100),
  zeroOffset: length,
  startMark: length,
  steel: z.boolean(),
  /** Lengths of its pointers, mm, as a list: `50 120 300`. */
  pointers: line.default(''),
  /** When it was last held against a standard. */
  checkedAt: at.nullable().default(null),
  note: line,
  validFrom: at,
});
export const STATE_KINDS = [
  'asFound',
  'stripped',
  'braced',
  'cut',
  'pulled',
  'fitted',
  'clamped',
  'tacked',
  'oneSide',
  'welded',
  'cold',
  'bracesOut',
  'onWheels',
] as const;
export const shellState = z.strictObject({
  id,
  jobId: id,
  kind: z.enum(STATE_KINDS),
  note: line,
  reachedAt: at,
});
export const SUPPORT_KINDS = ['fixtureBench', 'sillClamps', 'ownFrame', 'spit', 'stands'] as const;
export const support = z.strictObject({
  id,
  jobId: id,
  kind: z.enum(SUPPORT_KINDS),
  suspension: z.enum(['off', 'onUnloaded', 'loaded']),
  note: line,
});
export const round = z.strictObject({
  id,
  jobId: id,
  number: z.int().min(1),
  name,
  stateId: id,
  supportId: id,
  instrumentVersionId: id,
  temperature: z.number().min(-40).max(60).nullable(),
  author,
  personId,
  startedAt: at,
  closedAt: at.nullable(),
  /** Another shell of the kind that this round was taken on; empty for the job's own. */
  shell: line.default(''),
  /** The set-up it stood on; empty where none was planned. */
  setUpId: id.nullable().default(null),
  version,
});
/** A point the user holds to be right when this round is aligned. */
export const roundControl = z.strictObject({ roundId: id, pointId: id });
export const QUANTITIES = ['length', 'width', 'height', 'distance', 'gap', 'flush', 'fixture'] as const;
/** A head enters freely, tight or not at all; a hole of a part stands over its point, beside it, or its bolt goes not in. */
export const FITS = ['free', 'tight', 'none', 'centred', 'beside'] as const;
/** Which way something lies from something else. */
export const TOWARDS = ['front', 'rear', 'left', 'right', 'up', 'down'] as const;
/** One number from one instrument. Append-only: it is struck, never changed. */
export const reading = z.strictObject({
  id,
  /** Readings typed in one line share it. */
  lineId: id,
  roundId: id,
  sequence: count,
  instrumentVersionId: id,
  author,
  personId,
  takenAt: at,
  receivedAt: at,
  raw: words.min(1).max(200),
  quantity: z.enum(QUANTITIES),
  /** Millimetres; for a fixture head the clearance it has in its hole, for a hole of a part how far beside the point is. */
  value: length,
  phase: z.enum(['none', 'underLoad', 'released']),
  measure: measure.nullable(),
  pointId: id.nullable(),
  toPointId: id.nullable(),
  stationId: id.nullable(),
  pullId: id.nullable(),
  /** Pointer lengths of a tram gauge at either end, mm. */
  pointerFrom: z.number().min(0).max(2000).nullable().default(null),
  pointerTo: z.number().min(0).max(2000).nullable().default(null),
  /** How a fixture head, or a hole of a part, fits the point. */
  fit: z.enum(FITS).nullable().default(null),
  /** The hole of a part bolted up as a gauge, and which way from it the point lies. */
  partHoleId: id.nullable().default(null),
  toward: z.enum(TOWARDS).nullable().default(null),
});
export const readingStrike = z.strictObject({
  id,
  readingId: id,
  struckAt: at,
  author,
  personId,
  reason: line.min(1),
  /** The line that was typed instead. */
  replacedByLineId: id.nullable(),
});
/** A doubtful reading that somebody decided to keep. */
export const readingKeep = z.strictObject({ id, readingId: id, at, author, personId, reason: line.min(1) });
export const CONDITIONS = ['buried', 'suspension', 'gone', 'worn', 'oval', 'rusty', 'rebuilt', 'clear'] as const;
/** What stands in the way of a point in a round; the last one holds. */
export const pointCondition = z.strictObject({
  id,
  roundId: id,
  pointId: id,
  kind: z.enum(CONDITIONS),
  at,
  author,
  personId,
});

/** A round closed, or opened again: who, when and why. */
export const roundEvent = z.strictObject({
  id,
  roundId: id,
  kind: z.enum(['closed', 'opened']),
  at,
  author,
  personId,
  reason: text,
});

/** Readings before the first tool of the day, against what a round found. */
export const morningCheck = z.strictObject({
  id,
  jobId: id,
  roundId: id,
  instrumentVersionId: id,
  at,
  author,
  personId,
});
export const morningReading = z.strictObject({
  id,
  morningCheckId: id,
  fromPointId: id,
  toPointId: id,
  measure,
  value: length.positive(),
  /** What it was expected to be, and one standard deviation of reading less expectation, mm, as shown when it was typed. */
  expected: length,
  sd: z.number().positive().max(1000),
});

export type MorningCheck = z.infer<typeof morningCheck>;
export type MorningReading = z.infer<typeof morningReading>;
export type Instrument = z.infer<typeof instrument>;
export type InstrumentVersion = z.infer<typeof instrumentVersion>;
export type ShellState = z.infer<typeof shellState>;
export type Support = z.infer<typeof support>;
export type Round = z.infer<typeof round>;
export type RoundControl = z.infer<typeof roundControl>;
export type Reading = z.infer<typeof reading>;
export type ReadingStrike = z.infer<typeof readingStrike>;
export type ReadingKeep = z.infer<typeof readingKeep>;
export type PointCondition = z.infer<typeof pointCondition>;
export type RoundEvent = z.infer<typeof roundEvent>;
