import jstat from 'jstat';

const { chisquare, normal, studentt } = jstat.jStat;

/** Probability that χ² with so many degrees of freedom is larger than `x`. */
export const chiSquareTail = (x: number, freedoms: number): number => 1 - chisquare.cdf(Math.max(x, 0), freedoms);

/** The value χ² exceeds with probability `tail`. */
export const chiSquareLimit = (tail: number, freedoms: number): number => chisquare.inv(1 - tail, freedoms);

/** Probability that a standard normal deviate is farther from zero than `z`, on either side. */
export const twoSidedTail = (z: number): number => 2 * normal.cdf(-Math.abs(z), 0, 1);

/** The quantile of Student's t that leaves `tail` above it. */
export const studentLimit = (tail: number, freedoms: number): number => studentt.inv(1 - tail, freedoms);

/** Share of a normal distribution above two standard deviations. */
export const ABOVE_TWO_SD = 0.02275013194817921;

/**
 * Which of several hypotheses are rejected so that the chance of any false rejection among them stays
 * below `level` (Holm 1979): the smallest probability against level/n, the next against level/(n − 1), …
 */
export function holm(probabilities: readonly number[], level: number): boolean[] {
  const order = probabilities.map((p, i) => ({ p, i })).sort((a, b) => a.p - b.p);
  const rejected = probabilities.map(() => false);
  for (const [k, { p, i }] of order.entries()) {
    if (p > level / (order.length - k)) break;
    rejected[i] = true;
  }
  return rejected;
}
