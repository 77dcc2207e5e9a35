import { z } from 'zod';
import { at, author, id, length, limit, line, name, text, version, personId } from './fields';

// How the joints of a cut panel are welded up again.

export const WELD_KINDS = ['plug', 'spot', 'butt', 'lap', 'braze', 'bond'] as const;
export const WELD_PROCESSES = ['mig', 'tig', 'gas', 'resistance'] as const;
export const WELD_SCHOOLS = ['coolest', 'centre', 'oneEnd', 'backStep', 'inTurn'] as const;
export const FREE_ENDS = ['both', 'first', 'last', 'none'] as const;
/** How a joint is made again, along a straight line from its first end to its last. Its identity is its joint's. */
export const weldSeam = z.strictObject({
  id,
  jobId: id,
  kind: z.enum(WELD_KINDS),
  /** Empty where nothing is melted: a bonded joint. */
  process: z.enum(WELD_PROCESSES).nullable(),
  /** mm */
  long: length.positive(),
  /** How wide the flange is, mm; empty where there is none. */
  flange: limit.nullable(),
  /** From one to the next, mm; empty where it is as the factory had it. */
  pitch: limit.nullable(),
  /** Datum points at its ends. */
  firstPointId: id.nullable(),
  lastPointId: id.nullable(),
  /** The end, or both, that may still move: it shrinks towards there. */
  freeEnd: z.enum(FREE_ENDS),
  school: z.enum(WELD_SCHOOLS),
  /** The seam on the other side that it is laid in turn with, a place here and a place there; said of one of the two. */
  inTurnWithId: id.nullable(),
  /** Of a bonded joint: how long its adhesive stays open, and how long it is clamped, min. */
  openFor: limit.nullable(),
  clampedFor: z.number().positive().max(100_000).nullable(),
  version,
});
export const STRETCH_KINDS = ['corner', 'double', 'void', 'unreachable', 'brass', 'lead'] as const;
/** A stretch of a seam where something is different, from its first end, mm; a corner is a place. */
export const weldStretch = z.strictObject({
  id,
  seamId: id,
  what: z.enum(STRETCH_KINDS),
  starts: length.min(0),
  ends: length.min(0),
});

export const MARK_RUNS = ['along', 'across'] as const;
/** Two marks on the metal, and how far apart they were before the joint was welded and cold again: what it shrank. */
export const weldMark = z.strictObject({
  id,
  seamId: id,
  /** With the seam, near its ends; or across it. */
  runs: z.enum(MARK_RUNS),
  /** mm */
  before: length.positive(),
  cold: length.positive(),
  /** One standard deviation of the difference, mm. */
  sd: limit,
  at,
  author,
  personId,
});
/** A crack, and how it is mended. Its identity is its item's, whose events say how far it is. */
export const crack = z.strictObject({
  id,
  jobId: id,
  place: name,
  /** From end to end as it is seen, mm. */
  long: length.positive(),
  thickness: limit,
  /** One end of it runs out at an edge: there is one end to drill. */
  toEdge: z.boolean(),
  process: z.enum(['mig', 'tig', 'gas']),
  /** Why it cracked, as far as anybody knows. */
  cause: text,
  version,
});
export const STIFFENER_KINDS = ['doubler', 'rib', 'gusset'] as const;
/** Metal put on to stiffen. Its identity is its item's, whose events say whether it is on. */
export const stiffener = z.strictObject({
  id,
  jobId: id,
  kind: z.enum(STIFFENER_KINDS),
  /** The member of the structure it is put on, by its code. */
  part: line.min(1),
  /** Of a gusset: the member it ties it to. */
  otherPart: line,
  /** How far it runs along the member; of a gusset how long each of its legs is, mm. */
  long: length.positive(),
  /** Of a doubler how wide, of a rib how wide and how high it stands, mm; a gusset has neither. */
  width: limit.nullable(),
  height: limit.nullable(),
  thickness: limit,
  version,
});
/** Wheelbases and axles as they were read last, on its wheels or with the hubs hung: the newest holds. mm */
export const axleReading = z.strictObject({
  id,
  jobId: id,
  roundId: id,
  leftBase: length.positive(),
  rightBase: length.positive(),
  /** From the left front wheel to the right rear one, and from the right front one to the left rear one. */
  leftDiagonal: length.positive().nullable(),
  rightDiagonal: length.positive().nullable(),
  frontTrack: length.positive(),
  rearTrack: length.positive(),
  /** Of each of these, one standard deviation. */
  sd: limit,
  /** By how much the wheelbases may differ, and how far the rear axle may stand aside, at most. */
  most: limit,
  at,
  author,
  personId,
});

export type WeldSeam = z.infer<typeof weldSeam>;
export type WeldStretch = z.infer<typeof weldStretch>;
export type WeldMark = z.infer<typeof weldMark>;
export type Crack = z.infer<typeof crack>;
export type Stiffener = z.infer<typeof stiffener>;
export type AxleReading = z.infer<typeof axleReading>;
/** With what its item calls it. */
export type CalledItem<Row> = Row & { readonly code: string };

/** What a seam has besides its kind, process and length when it is first marked out. */
export const NEW_WELD_SEAM: Omit<WeldSeam, 'id' | 'jobId' | 'kind' | 'process' | 'long'> = {
  ...{ flange: null, pitch: null, firstPointId: null, lastPointId: null, freeEnd: 'both', school: 'coolest' },
  ...{ inTurnWithId: null, openFor: null, clampedFor: null, version: 1 },
};
