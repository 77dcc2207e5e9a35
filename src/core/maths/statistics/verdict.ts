/** Inside, outside, or undecided because the uncertainty reaches across the limit. */
export type Verdict = 'inside' | 'outside' | 'undecided';

/** ± is two standard deviations everywhere. */
export const COVERAGE = 2;

export interface Judgement {
  readonly verdict: Verdict;
  /** Two standard deviations, mm. */
  readonly plusMinus: number;
  /** Undecided with an uncertainty as wide as the limit: it can never say "inside" before it is known better. */
  readonly tooCoarse: boolean;
}

/**
 * Judges a deviation against a limit with guard bands of two standard deviations
 * (the decision rule of ISO 14253-1 with k = 2).
 *
 * @param deviation measured minus reference, mm
 * @param sd        one standard deviation of the deviation, mm
 * @param limit     accepted size of the deviation, mm, above zero
 */
export function judge(deviation: number, sd: number, limit: number): Judgement {
  const size = Math.abs(deviation);
  const plusMinus = COVERAGE * sd;
  const verdict = size + plusMinus <= limit ? 'inside' : size - plusMinus > limit ? 'outside' : 'undecided';
  return { verdict, plusMinus, tooCoarse: verdict === 'undecided' && plusMinus >= limit };
}

/** The worse of several verdicts: outside before undecided before inside. */
export function worstVerdict(verdicts: readonly Verdict[]): Verdict {
  if (verdicts.includes('outside')) return 'outside';
  return verdicts.includes('undecided') ? 'undecided' : 'inside';
}

/** What became of a dimension between two rounds. */
export type ChangeVerdict = 'held' | 'moved' | 'undecided';

/**
 * Judges a change between two rounds: *held* where |change| + 2 sd ≤ limit, *moved* where
 * |change| − 2 sd > limit, else *undecided*.
 *
 * @param change later minus earlier, mm
 * @param sd     one standard deviation of the change, mm
 * @param limit  accepted size of the change, mm
 */
export function judgeChange(change: number, sd: number, limit: number): ChangeVerdict {
  const { verdict } = judge(change, sd, limit);
  return verdict === 'inside' ? 'held' : verdict === 'outside' ? 'moved' : 'undecided';
}
