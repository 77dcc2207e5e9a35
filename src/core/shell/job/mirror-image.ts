import type { Job } from './job';

/** The two points of a length. */
export type LengthEnds = readonly [from: string, to: string];

/**
 * The length on the other side, end for end: of `F1L – F4L` it is `F1R – F4R`, of a diagonal the other one.
 *
 * @returns nothing for a length across, which is its own mirror image; nor where an end has no partner or is not meant to match it
 */
export function mirrorImage(job: Job, ends: LengthEnds): LengthEnds | undefined {
  const [from, to] = ends.map((id) => partnerOf(job, id));
  if (!from || !to || (ends.includes(from) && ends.includes(to))) return undefined;
  return [from, to];
}

/** The point on the other side that is meant to match; one in the middle is its own. */
function partnerOf(job: Job, id: string): string | undefined {
  const point = job.point(id);
  const partner = point.side === 'centre' ? point : job.opposite(id);
  return point.mirrored && partner?.mirrored ? partner.id : undefined;
}
