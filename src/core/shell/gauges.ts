import type { GaugePart, PartCheck, PartHole } from './job/entities';
import type { Tables } from './job/job-rows';

/** How a length taped on the part itself agrees with its holes' coordinates, mm. */
export interface CheckedLength {
  readonly check: PartCheck;
  /** Between the two holes by their coordinates. */
  readonly expected: number;
  readonly off: number;
  readonly agrees: boolean;
}

export interface CheckedPart {
  readonly part: GaugePart;
  readonly holes: readonly PartHole[];
  readonly lengths: readonly CheckedLength[];
  /** Holes no length of the part speaks of: what they say of the shell is not taken. */
  readonly unchecked: readonly string[];
  /** Some length contradicts the coordinates: nothing the part says is taken. */
  readonly bent: boolean;
}

/** How well a tape between two holes of a part on the floor is read, one standard deviation, mm. */
const TAPE_SD = 0.7;
const AGREES = 3;

/**
 * The parts that serve as gauges, each checked against itself: every length taped between two of its holes is compared
 * with their coordinates. A part that is bent has no voice, nor has a hole nobody taped to.
 */
export function checkedParts(rows: Tables<'gaugeParts' | 'partHoles' | 'partChecks'>): CheckedPart[] {
  return rows.gaugeParts.map((part) => {
    const holes = rows.partHoles.filter(({ gaugePartId }) => gaugePartId === part.id);
    const at = new Map(holes.map((hole) => [hole.id, hole]));
    // Two holes, each known so well along the line between them, and the tape.
    const sd = Math.hypot(part.sd * Math.SQRT2, TAPE_SD);
    const lengths = rows.partChecks.flatMap((check): CheckedLength[] => {
      const [a, b] = [at.get(check.fromHoleId), at.get(check.toHoleId)];
      if (!a || !b) return [];
      const expected = Math.hypot(b.x - a.x, b.y - a.y, b.z - a.z);
      const off = check.value - expected;
      return [{ check, expected, off, agrees: Math.abs(off) <= AGREES * sd }];
    });
    const spoken = new Set(lengths.flatMap(({ check }) => [check.fromHoleId, check.toHoleId]));
    return {
      part,
      holes,
      lengths,
      unchecked: holes.flatMap(({ id }) => (spoken.has(id) ? [] : [id])),
      bent: lengths.some(({ agrees }) => !agrees),
    };
  });
}
