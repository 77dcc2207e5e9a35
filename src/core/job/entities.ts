import { z } from 'zod';
import { recordDocument } from '../record/document';

/**
 * The rows of a job, one schema each: the single source of their types, of the columns the
 * database reads and writes, and of the documents a job is exported in. Millimetres, degrees
 * Celsius, ISO 8601 times in UTC. Identities are UUIDs made by whoever creates the row.
 */
const id = z.uuid();
const at = z.iso.datetime();
const code = z.string().trim().min(1).max(40);
const line = z.string().trim().max(200);
const name = line.min(1);
const text = z.string().max(20_000);
const author = z.string().trim().min(1).max(80);
const count = z.int().min(0);
const version = z.int().min(1);
const length = z.number().min(-100_000).max(100_000);
const limit = z.number().positive().max(1000);

export const SIDES = ['left', 'right', 'centre'] as const;
export const side = z.enum(SIDES);
export const measure = z.enum(['tip', 'level']);

export const job = z.strictObject({
  id,
  name,
  shell: line,
  identityNumber: line,
  owner: line,
  shop: line,
  driverSide: z.enum(['left', 'right']),
  bench: line,
  note: text,
  startedAt: at,
  version,
});

export const point = z.strictObject({
  id,
  jobId: id,
  code,
  name: line,
  side,
  holeDiameter: z.number().positive().max(500).nullable(),
  /** The point it stands beside and is measured instead of. */
  substituteForId: id.nullable().default(null),
  /** Meant to be the mirror image of the point opposite. */
  mirrored: z.boolean().default(true),
  version,
});

/** A pair of points whose distance matters, tip to tip or level. */
export const dimension = z.strictObject({
  id,
  jobId: id,
  code,
  name: line,
  fromPointId: id,
  toPointId: id,
  measure,
  version,
});

/** A line of the shell drawn for orientation. */
export const memberLine = z.strictObject({ id, jobId: id, fromPointId: id, toPointId: id });

export const seam = z.strictObject({
  id,
  jobId: id,
  code,
  name: line,
  side,
  /** Seams of the two sides that are compared share this; empty where there is no other side. */
  pairing: line,
  version,
});

export const seamStation = z.strictObject({
  id,
  seamId: id,
  number: z.int().min(1).max(99),
  name: line,
});

/** A body mount or an edge: a subject of readings that is neither a point nor a seam. */
export const feature = z.strictObject({
  id,
  jobId: id,
  kind: z.enum(['mount', 'edge']),
  code,
  name: line,
});

export const REFERENCE_KINDS = [
  'chart', 'sisterCar', 'mirroredSide', 'earlierRound', 'keptPart', 'plannedChange',
] as const; // prettier-ignore

export const reference = z.strictObject({
  id,
  jobId: id,
  kind: z.enum(REFERENCE_KINDS),
  name,
  source: text,
  /** One standard deviation of its figures, mm; 0 where they are right by definition. */
  trust: z.number().min(0).max(1000),
  rank: count,
  roundId: id.nullable(),
  createdAt: at,
  /** Editions of one reference; only the one in use is judged by. */
  edition: version.default(1),
  /** The first edition. */
  editionOf: id.nullable().default(null),
  inUse: z.boolean().default(true),
});

/** A round a reference was computed from. */
export const referenceRound = z.strictObject({ referenceId: id, roundId: id });

/** One standard deviation of a single figure, mm; the reference's trust where it has none of its own. */
const figureSd = z.number().min(0).max(1000).nullable().default(null);

export const referencePoint = z.strictObject({
  id,
  referenceId: id,
  pointId: id,
  x: length,
  y: length,
  z: length,
  tolerance: limit,
  sd: figureSd,
  version,
});

export const referenceDimension = z.strictObject({
  id,
  referenceId: id,
  dimensionId: id,
  value: length.positive(),
  tolerance: limit,
  sd: figureSd,
  version,
});

export const referenceStation = z.strictObject({
  id,
  referenceId: id,
  stationId: id,
  quantity: z.enum(['gap', 'flush']),
  value: length,
  tolerance: limit,
  sd: figureSd,
  version,
});

/** A reference chosen for one point or dimension against the ranks; the last one of a subject holds. */
export const referenceChoice = z.strictObject({
  id,
  jobId: id,
  pointId: id.nullable(),
  dimensionId: id.nullable(),
  /** Empty: back to the ranks. */
  referenceId: id.nullable(),
  at,
  author,
  reason: line,
});

export const INSTRUMENT_KINDS = [
  'tape', 'tram', 'digitalTram', 'caliper', 'heightStick', 'plumb', 'fixtureHead', 'other',
] as const; // prettier-ignore

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
  'asFound', 'stripped', 'braced', 'cut', 'pulled', 'fitted', 'tacked', 'welded', 'cold',
] as const; // prettier-ignore

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
  startedAt: at,
  closedAt: at.nullable(),
  /** Another shell of the kind that this round was taken on; empty for the job's own. */
  shell: line.default(''),
  version,
});

/** A point the user holds to be right when this round is aligned. */
export const roundControl = z.strictObject({ roundId: id, pointId: id });

export const QUANTITIES = [
  'length', 'width', 'height', 'distance', 'gap', 'flush', 'fixture',
] as const; // prettier-ignore

export const FITS = ['free', 'tight', 'none'] as const;

/** One number from one instrument. Append-only: it is struck, never changed. */
export const reading = z.strictObject({
  id,
  /** Readings typed in one line share it. */
  lineId: id,
  roundId: id,
  sequence: count,
  instrumentVersionId: id,
  author,
  takenAt: at,
  receivedAt: at,
  raw: z.string().min(1).max(200),
  quantity: z.enum(QUANTITIES),
  /** Millimetres; for a fixture head the clearance it has in its hole. */
  value: length,
  phase: z.enum(['none', 'underLoad', 'released']),
  measure: measure.nullable(),
  pointId: id.nullable(),
  toPointId: id.nullable(),
  stationId: id.nullable(),
  featureId: id.nullable(),
  pullId: id.nullable(),
  /** Pointer lengths of a tram gauge at either end, mm. */
  pointerFrom: z.number().min(0).max(2000).nullable().default(null),
  pointerTo: z.number().min(0).max(2000).nullable().default(null),
  /** How a fixture head enters. */
  fit: z.enum(FITS).nullable().default(null),
});

export const readingStrike = z.strictObject({
  id,
  readingId: id,
  struckAt: at,
  author,
  reason: line.min(1),
  /** The line that was typed instead. */
  replacedByLineId: id.nullable(),
});

/** A doubtful reading that somebody decided to keep. */
export const readingKeep = z.strictObject({ id, readingId: id, at, author, reason: line.min(1) });

export const CONDITIONS = [
  'buried', 'suspension', 'gone', 'worn', 'oval', 'rusty', 'rebuilt', 'clear',
] as const; // prettier-ignore

/** What stands in the way of a point in a round; the last one holds. */
export const pointCondition = z.strictObject({
  id,
  roundId: id,
  pointId: id,
  kind: z.enum(CONDITIONS),
  at,
  author,
});

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

export const RUNGS = [
  'look',
  'setUp',
  'measure',
  'brace',
  'cut',
  'pull',
  'fit',
  'weld',
  'verify',
] as const;

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

export const logEntry = z.strictObject({
  id,
  jobId: id,
  kind: z.enum(['finding', 'decision']),
  text: text.min(1),
  reason: text,
  author,
  at,
  roundId: id.nullable(),
  supersedes: id.nullable(),
});

/** What a log entry is about; with a deviation, the entry accepts that deviation. */
export const logSubject = z.strictObject({
  id,
  entryId: id,
  pointId: id.nullable(),
  dimensionId: id.nullable(),
  acceptedDeviation: length.nullable(),
  referenceId: id.nullable(),
});

export const photograph = z.strictObject({
  id,
  jobId: id,
  entryId: id.nullable(),
  name,
  mediaType: z.enum([
    'image/jpeg',
    'image/png',
    'image/webp',
    'image/avif',
    'image/gif',
    'image/tiff',
  ]),
  bytes: z.int().positive(),
  width: z.int().positive(),
  height: z.int().positive(),
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
  author,
  at,
});

/** A signed record is a snapshot: what was true when it was signed, for good. */
export const signedRecord = z.strictObject({
  id,
  jobId: id,
  number: z.int().min(1),
  signedBy: author,
  signedAt: at,
  snapshot: recordDocument,
});

export type Job = z.infer<typeof job>;
export type Point = z.infer<typeof point>;
export type Dimension = z.infer<typeof dimension>;
export type MemberLine = z.infer<typeof memberLine>;
export type Seam = z.infer<typeof seam>;
export type SeamStation = z.infer<typeof seamStation>;
export type Feature = z.infer<typeof feature>;
export type Reference = z.infer<typeof reference>;
export type ReferencePoint = z.infer<typeof referencePoint>;
export type ReferenceDimension = z.infer<typeof referenceDimension>;
export type ReferenceStation = z.infer<typeof referenceStation>;
export type ReferenceRound = z.infer<typeof referenceRound>;
export type ReferenceChoice = z.infer<typeof referenceChoice>;
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
export type Brace = z.infer<typeof brace>;
export type BraceDimension = z.infer<typeof braceDimension>;
export type BraceEvent = z.infer<typeof braceEvent>;
export type Pull = z.infer<typeof pull>;
export type PullEvent = z.infer<typeof pullEvent>;
export type Step = z.infer<typeof step>;
export type StepEvent = z.infer<typeof stepEvent>;
export type LogEntry = z.infer<typeof logEntry>;
export type LogSubject = z.infer<typeof logSubject>;
export type Photograph = z.infer<typeof photograph>;
export type SignedRecord = z.infer<typeof signedRecord>;

export type Side = Point['side'];
export type Measure = Dimension['measure'];
export type Quantity = Reading['quantity'];
export type Phase = Reading['phase'];
export type Rung = Step['rung'];
export type StateKind = ShellState['kind'];
