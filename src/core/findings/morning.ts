import { COVERAGE } from '../maths/statistics/verdict';
import { holm, twoSidedTail } from '../maths/statistics/distributions';
import type { MorningCheck, MorningReading } from '../shell/job/entities';
import type { Job } from '../shell/job/job';

/** One reading of a morning against what the shell measured the evening before. */
export interface MorningChange {
  readonly ends: string;
  /** Read minus expected, mm. */
  readonly change: number;
  readonly plusMinus: number;
  /** More than reading and expectation explain. */
  readonly moved: boolean;
}

export interface MorningVerdict {
  readonly check: MorningCheck;
  readonly verdict: 'still' | 'moved';
  readonly readings: readonly MorningChange[];
}

/** Chance that a shell that stood still is said to have moved. */
const FALSE_ALARM = 0.01;

/**
 * The one verdict of a morning: the shell moved where any reading is farther from its expectation than the two explain.
 * The readings share what the round before was wrong by, so they are not independent: Holm's rule holds all the same.
 */
export function judgeMorning(job: Job, check: MorningCheck): MorningVerdict {
  return {
    check,
    ...judgeReadings(
      job.rows.morningReadings.filter((each) => each.morningCheckId === check.id),
      (id) => job.code(id),
    ),
  };
}

/** The same of readings that are not in the job yet. */
export function judgeReadings(
  readings: readonly Pick<MorningReading, 'fromPointId' | 'toPointId' | 'value' | 'expected' | 'sd'>[],
  code: (pointId: string) => string,
): Omit<MorningVerdict, 'check'> {
  const moved = holm(
    readings.map(({ value, expected, sd }) => twoSidedTail((value - expected) / sd)),
    FALSE_ALARM,
  );
  return {
    verdict: moved.includes(true) ? 'moved' : 'still',
    readings: readings.map(({ fromPointId, toPointId, value, expected, sd }, i) => ({
      ends: `${code(fromPointId)} – ${code(toPointId)}`,
      change: value - expected,
      plusMinus: COVERAGE * sd,
      moved: moved[i]!,
    })),
  };
}
