import { z } from 'zod';
import { id, at, code, length, line, name, text, version, side, measure, author, personId } from './fields';

// The job and its shell: what can be measured.

export const BODY_TYPES = ['twoDoor', 'fourDoor', 'estate', 'open', 'pickupCab', 'onPlatform'] as const;
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
  /** Not worked on: it stands apart in the list. */
  putAwayAt: at.nullable().default(null),
  /** The picture its points were chosen on, where there is no chart. */
  body: z.enum(BODY_TYPES).nullable().default(null),
  /** Typed measures that bring the picture to this shell's size, mm. */
  wheelbase: length.positive().nullable().default(null),
  track: length.positive().nullable().default(null),
  height: length.positive().nullable().default(null),
  version,
});
/** What a job that was just begun has besides what its form asks. */
export const NEW_JOB = {
  note: '',
  putAwayAt: null,
  body: null,
  wheelbase: null,
  track: null,
  height: null,
  version: 1,
} as const;
/** What a point is of: the shell itself, a hole that takes a bolt, a mark that was punched, or one that was only drawn. */
export const POINT_KINDS = ['shell', 'bolt', 'punch', 'drawn'] as const;
export const point = z.strictObject({
  id,
  jobId: id,
  code,
  name: line,
  side,
  holeDiameter: z.number().positive().max(500).nullable(),
  /** The point it stands beside and is measured instead of. */
  substituteForId: id.nullable().default(null),
  /** A belt anchorage or a suspension mounting takes a bolt; paint and blasting take what is only drawn. */
  kind: z.enum(POINT_KINDS).default('shell'),
  /** Meant to be the mirror image of the point opposite. */
  mirrored: z.boolean().default(true),
  /** The place on the body's picture it was chosen at; empty where it was not. */
  place: line.default(''),
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
export const SEAM_SIGHTS = ['line', 'shut', 'hidden'] as const;
export const seam = z.strictObject({
  id,
  jobId: id,
  code,
  name: line,
  side,
  /** Seams of the two sides that are compared share this; empty where there is no other side. */
  pairing: line,
  /** How much people see of it: the swage line or a top edge, a shut line, or a bottom edge where an error hides. */
  sight: z.enum(SEAM_SIGHTS),
  /** The points of the shell near its first and its last station, for drawing it where it is; empty while nobody said. */
  fromPointId: id.nullable(),
  toPointId: id.nullable(),
  version,
});
/** What a seam has besides its name and side when it is first named. */
export const NEW_SEAM = { sight: 'shut', fromPointId: null, toPointId: null } as const;
export const seamStation = z.strictObject({
  id,
  seamId: id,
  number: z.int().min(1).max(99),
  name: line,
});

/** A row of a job that was changed by hand: how it was, how it is, who changed it and when. */
export const change = z.strictObject({
  id,
  jobId: id,
  /** What one action changed together. */
  batch: id,
  /** Table and identity of the row. */
  tableName: line,
  rowId: id,
  /** Null where the row was made, or taken out. */
  before: z.record(z.string(), z.unknown()).nullable(),
  after: z.record(z.string(), z.unknown()).nullable(),
  at,
  author,
  personId,
});

/** Tables whose rows can be taken back. */
export const WITHDRAWABLE = ['work_item', 'work_event', 'step_event', 'seam', 'log_entry', 'part_tag'] as const;
/** Something written was taken back, or put back; of each row the last one holds. */
export const withdrawal = z.strictObject({
  id,
  jobId: id,
  tableName: z.enum(WITHDRAWABLE),
  rowId: id,
  kind: z.enum(['withdrawn', 'restored']),
  at,
  author,
  personId,
  reason: line,
});

export type Job = z.infer<typeof job>;
export type Point = z.infer<typeof point>;
export type PointKind = (typeof POINT_KINDS)[number];
export type Dimension = z.infer<typeof dimension>;
/** What a point has besides its code, name and side when it is first named. */
export const NEW_POINT = {
  ...{ holeDiameter: null, substituteForId: null, kind: 'shell' as const, mirrored: true, place: '', version: 1 },
} as const;
export type MemberLine = z.infer<typeof memberLine>;
export type Seam = z.infer<typeof seam>;
export type SeamStation = z.infer<typeof seamStation>;
export type Change = z.infer<typeof change>;
export type Withdrawal = z.infer<typeof withdrawal>;
export type BodyType = (typeof BODY_TYPES)[number];
