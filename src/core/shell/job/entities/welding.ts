import { z } from 'zod';
import { id, length, limit, version } from './fields';

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

export type WeldSeam = z.infer<typeof weldSeam>;
export type WeldStretch = z.infer<typeof weldStretch>;
