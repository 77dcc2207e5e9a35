import { z } from 'zod';
import { at, code, count, id, length, line, name } from './fields';

// The shop's benches and what lies on their shelves. A version never changes: a set-up keeps the one it was planned on.

export const BENCH_KINDS = ['fixture', 'clamps', 'ownFrame', 'stands'] as const;
export const bench = z.strictObject({ id, name, kind: z.enum(BENCH_KINDS) });

/** Not below nothing, mm; a size that the kind of bench does not have is 0. */
const size = length.min(0);
export const benchVersion = z.strictObject({
  id,
  benchId: id,
  number: z.int().min(1),
  /** Length of the rails, mm. */
  rails: size,
  /** Distance of two holes along them, and where the first stands. */
  pitch: length.positive(),
  firstHole: size,
  /** A beam: its length across, its width along, its top over the rails, and how many there are. */
  span: size,
  beamWidth: size,
  beamTop: size,
  beams: count.max(200),
  /** How far fore and aft of its beam's middle a head can stand, and the room a tower needs across. */
  reach: size,
  footprint: size,
  note: line,
  validFrom: at,
});

export const SHELF_KINDS = ['piece', 'head', 'clamp', 'stand'] as const;
export const shelfItem = z.strictObject({
  id,
  benchVersionId: id,
  kind: z.enum(SHELF_KINDS),
  code,
  height: size,
  count: count.max(1000),
  /** How far its screw, or its thread, goes, mm. */
  travel: size,
  /** How far one turn lifts, mm; empty where it is shimmed or fixed. */
  threadPitch: length.positive().nullable(),
  /** Holes it fits, mm across; empty: any. */
  fitsLeast: size.nullable(),
  fitsMost: size.nullable(),
  /** Play of a head in its hole, mm. */
  clearance: size,
  /** kg; empty where nobody knows. */
  rating: length.positive().nullable(),
});

export type Bench = z.infer<typeof bench>;
export type BenchVersion = z.infer<typeof benchVersion>;
export type ShelfItem = z.infer<typeof shelfItem>;
