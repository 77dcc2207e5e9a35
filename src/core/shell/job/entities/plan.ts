import { z } from 'zod';
import { at, author, code, count, id, length, line, name, side, text, version, personId } from './fields';
import { support } from './round';

// What is planned and done, one item each; what happens to it; and the details of its kind.

export const WORK_KINDS = [
  ...(['setUp', 'panel', 'stage', 'brace', 'joint', 'pull', 'hung', 'crack', 'stiffener', 'blasting'] as const),
] as const;
export const workItem = z.strictObject({ id, jobId: id, kind: z.enum(WORK_KINDS), code, name, version });

export const WORK_EVENTS = [
  'ticked',
  'unticked',
  'adjusted',
  'idle',
  'carrying',
  'checked',
  'planned',
  'fitted',
  'loosened',
  'removed',
  'passed',
  'turned',
  'cleared',
  'loaded',
  'released',
  'done',
  'abandoned',
  'off',
  'gripped',
  'clamped',
  'pinned',
  'dowelled',
  'tacked',
  'welded',
] as const;
/** Events that say a figure: a height, so many quarter turns. */
export const hasFigure = (kind: (typeof WORK_EVENTS)[number]): boolean => kind === 'checked' || kind === 'turned';
/** Something that happened to an item of work, or to the part of it that `key` names; the last one holds. */
export const workEvent = z.strictObject({
  id,
  itemId: id,
  kind: z.enum(WORK_EVENTS),
  key: line,
  at,
  author,
  personId,
  reason: line,
  /** Of a mount that was checked its height, mm; of a brace how many quarter turns it is turned in all; empty otherwise. */
  value: length.nullable().default(null),
});

const degrees = z.number().min(-180).max(180);
/** How the shell is to stand: on which bench, where on it, and what it weighs. Its identity is its item's. */
export const setUp = z.strictObject({
  id,
  jobId: id,
  benchVersionId: id,
  suspension: support.shape.suspension,
  /** As the scale says, kg, and where it acts, chart axes; empty where it is estimated. */
  kilograms: length.positive().nullable(),
  centreX: length.nullable(),
  centreY: length.nullable(),
  /** Where the chart's zero stands on the bench, bench axes, mm. */
  x: length,
  y: length,
  z: length,
  /** How it is turned about the bench’s axes, degrees. */
  turnX: degrees.default(0),
  turnY: degrees.default(0),
  turnZ: degrees.default(0),
  /** Whether its sills have a pinch flange that a clamp can hold; empty while nobody said. */
  flange: z.enum(['has', 'hasNot']).nullable().default(null),
  /** The two points whose plumb marks carry the centre line on a floor. */
  lineFromId: id.nullable().default(null),
  lineToId: id.nullable().default(null),
  version,
});
/** A place the shell stands on: a point of its own or, where a clamp has none, a place in chart axes. */
export const mount = z.strictObject({
  id,
  setUpId: id,
  ordinal: count,
  pointId: id.nullable(),
  name: line,
  x: length.nullable(),
  y: length.nullable(),
  z: length.nullable(),
  /** Hole of the rails its beam is put at by hand; empty: wherever is best. */
  hole: count.nullable(),
  /** How far the floor under it stands over (+) or under (−) the floor's plane, mm; empty where it was not read. */
  floor: length.nullable().default(null),
  /** What it is built of, as decided; empty while it is only planned. */
  headId: id.nullable(),
  lift: length.nullable(),
});
/** One piece of a mount's stack, from the beam up. */
export const mountPiece = z.strictObject({ id, mountId: id, ordinal: count, shelfItemId: id });

export const PANEL_CHOICES = ['patch', 'partPanel', 'wholePanel', 'remade'] as const;
/** A panel that is to be replaced. Its identity is its item's. */
export const panel = z.strictObject({
  id,
  jobId: id,
  part: name,
  side,
  /** The stage it comes out in; empty while nobody said. */
  stageId: id.nullable(),
  /** Its place in the order in which the panels of its stage come out. */
  ordinal: count,
  /** What takes its place, and why. */
  choice: z.enum(PANEL_CHOICES).nullable(),
  reason: text,
  /** Where the join runs, in words. */
  joinedAt: line,
  hours: z.number().positive().max(10_000).nullable(),
  price: z.number().min(0).max(10_000_000).nullable(),
  ownersWord: line,
  /** The metal was hit, or pulled half straight: it may spring when it is cut. */
  stressed: z.boolean(),
  version,
});
/** What becomes of a point when a panel is cut: it goes with it, or stays beside the cut. */
export const panelPoint = z.strictObject({ panelId: id, pointId: id, fate: z.enum(['goes', 'stays']) });

/** A point of the chassis or platform, and the point of the body that it meets when the two are bolted together. */
export const platformPoint = z.strictObject({ jobId: id, pointId: id, meetsId: id.nullable() });

/** What a panel has besides its name when it is first written down. */
export const NEW_PANEL = {
  stageId: null,
  ordinal: 0,
  choice: null,
  reason: '',
  joinedAt: '',
  hours: null,
  price: null,
  ownersWord: '',
  stressed: false,
  version: 1,
} as const;

export type WorkItem = z.infer<typeof workItem>;
export type WorkEvent = z.infer<typeof workEvent>;
export type SetUp = z.infer<typeof setUp>;
export type Panel = z.infer<typeof panel>;
export type PanelPoint = z.infer<typeof panelPoint>;
export type PlatformPoint = z.infer<typeof platformPoint>;
export type Mount = z.infer<typeof mount>;
export type MountPiece = z.infer<typeof mountPiece>;
