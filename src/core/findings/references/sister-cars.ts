import { ABOVE_TWO_SD, studentLimit } from '../../maths/statistics/distributions';

/** What several sister cars say of one figure: one value a car, with the standard deviation it was measured to. */
export interface SisterFigure {
  readonly values: readonly { readonly value: number; readonly sd: number }[];
}

export interface SisterSpread {
  /** One standard deviation of how production scattered, mm. */
  readonly production: number;
  /** Degrees of freedom behind it, those of the usual figure included. */
  readonly freedoms: number;
}

/** How shells scatter where too few were measured to know: structural points ±3 mm, one standard deviation, mm. */
export const USUAL_SCATTER = 1.5;
/** The usual figure counts as so many degrees of freedom against what the cars show. */
const USUAL_FREEDOMS = 4;

/**
 * How much production scattered, pooled over all figures: s² = Σ (nᵢ − 1)(sᵢ² − ūᵢ²) / Σ (nᵢ − 1), where
 * sᵢ² is the variance of a figure over its cars and ūᵢ² what measuring adds to it; drawn to the usual figure
 * with four degrees of freedom, so that one or two cars do not pretend to know it (a scaled inverse χ² prior,
 * Gelman et al., Bayesian Data Analysis, §2.6).
 */
export function sisterSpread(figures: readonly SisterFigure[]): SisterSpread {
  let squares = 0;
  let freedoms = 0;
  for (const { values } of figures) {
    if (values.length < 2) continue;
    const mean = values.reduce((sum, { value }) => sum + value, 0) / values.length;
    const measured = values.reduce((sum, { sd }) => sum + sd ** 2, 0) / values.length;
    squares += values.reduce((sum, { value }) => sum + (value - mean) ** 2, 0) - (values.length - 1) * measured;
    freedoms += values.length - 1;
  }
  const pooled = USUAL_FREEDOMS * USUAL_SCATTER ** 2 + Math.max(0, squares);
  const all = USUAL_FREEDOMS + freedoms;
  return { production: Math.sqrt(pooled / all), freedoms: all };
}

/**
 * The mean of the cars and how far this shell's own figure, as it was built, may lie from it:
 * √(σ² (1 + 1/n) + Σ u²/n²), widened by Student's t so that twice the result covers what two standard
 * deviations would.
 */
export function sisterMean(
  { values }: SisterFigure,
  { production, freedoms }: SisterSpread,
): { value: number; sd: number } {
  const n = values.length;
  const measured = values.reduce((sum, { sd }) => sum + sd ** 2, 0) / n ** 2;
  const sd = Math.sqrt(production ** 2 * (1 + 1 / n) + measured);
  return {
    value: values.reduce((sum, { value }) => sum + value, 0) / n,
    sd: (sd * studentLimit(ABOVE_TWO_SD, freedoms)) / 2,
  };
}
