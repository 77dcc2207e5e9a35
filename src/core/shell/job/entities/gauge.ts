import { z } from 'zod';
import { code, id, length, name, version } from './fields';

// Real parts that are bolted up as gauges: an axle beam, a gearbox mount, a lamp. Their holes are a small reference.

/** Nothing on a part is known better than to a hundredth, mm. */
const finest = length.min(0.01);

export const gaugePart = z.strictObject({
  id,
  jobId: id,
  code,
  name,
  /** How well its holes are known, one standard deviation on each axis, mm. */
  sd: finest,
  version,
});
/** A hole of a part, in axes of the part's own that need not be the car's, mm. */
export const partHole = z.strictObject({
  id,
  gaugePartId: id,
  code,
  x: length,
  y: length,
  z: length,
  /** Play of its bolt, mm. */
  clearance: finest,
});
/** A length taped between two holes of the part itself, mm: what tells whether the part is straight. */
export const partCheck = z.strictObject({
  id,
  gaugePartId: id,
  fromHoleId: id,
  toHoleId: id,
  value: length.positive(),
});

export type GaugePart = z.infer<typeof gaugePart>;
export type PartHole = z.infer<typeof partHole>;
export type PartCheck = z.infer<typeof partCheck>;
