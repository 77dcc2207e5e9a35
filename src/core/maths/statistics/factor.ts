import { COVERAGE } from './verdict';

/** A factor and the range it lies in: ± two standard deviations of its logarithm. */
export interface FactorRange {
  readonly low: number;
  readonly usual: number;
  readonly high: number;
}

/** What one trial says of a factor: by how much more than the model had it, and one standard deviation of its logarithm. */
export interface Ratio {
  readonly ratio: number;
  readonly sd: number;
}

/** A range of ×/÷ as one standard deviation of the logarithm. */
export const spreadOf = (times: number): number => Math.log(times) / COVERAGE;

/**
 * The factor by which a model is to be taken: at first 1 within its range; each trial's ratio weighs by its own variance, least
 * squares of the logarithms (a log-normal prior and log-normal trials: Gelman et al., Bayesian Data Analysis, §2.5).
 *
 * @param prior one standard deviation of the logarithm before any trial
 */
export function weighedFactor(ratios: readonly Ratio[], prior: number): { readonly log: number; readonly sd: number } {
  let [sum, weight] = [0, prior ** -2];
  for (const { ratio, sd } of ratios) {
    sum += Math.log(ratio) / sd ** 2;
    weight += 1 / sd ** 2;
  }
  return { log: sum / weight, sd: 1 / Math.sqrt(weight) };
}

export const rangeOfFactor = ({ log, sd }: { readonly log: number; readonly sd: number }): FactorRange => {
  const [usual, spread] = [Math.exp(log), Math.exp(COVERAGE * sd)];
  return { low: usual / spread, usual, high: usual * spread };
};
