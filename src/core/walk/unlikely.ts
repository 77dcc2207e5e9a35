import { slipBehind, type CauseKind, type TypedAmount } from '../survey/slips';
import type { Expectation } from './wanted';

/** A reading that is so far from what is expected that it is asked about where it is typed. */
export interface Unlikely {
  readonly expected: Expectation;
  /** Typed minus expected, mm. */
  readonly over: number;
  /** The slip that would explain it. */
  readonly slip?: CauseKind;
}

/** So many standard deviations are asked about. */
const ASKED = 4.5;
/** Less than this never is: it is the net's business to judge it, mm. */
const SMALLEST = 6;
const SMALLEST_GAP = 3;

/**
 * Asks about a reading that can hardly be right: off by more than four and a half standard deviations of what is expected
 * and of its instrument together.
 *
 * @param sd one standard deviation of the instrument, mm
 */
export function unlikely(
  reading: { readonly quantity: string; readonly value: number },
  expected: Expectation | undefined,
  sd: number,
  typed?: TypedAmount,
): Unlikely | undefined {
  if (!expected) return undefined;
  const over = reading.value - expected.value;
  const own = Math.hypot(expected.sd, sd);
  const isGap = reading.quantity === 'gap' || reading.quantity === 'flush';
  if (Math.abs(over) < Math.max(ASKED * own, isGap ? SMALLEST_GAP : SMALLEST)) return undefined;
  const number = { taped: reading.quantity === 'distance', signed: reading.quantity !== 'distance', typed };
  const slip = slipBehind(reading.value, number, { value: expected.value, sd: own });
  return { expected, over, ...(slip ? { slip: slip.kind } : {}) };
}
