import { rangeOfFactor, spreadOf, weighedFactor, type FactorRange } from '../maths/statistics/factor';

/** What a press test found: how far an opening opened under a force, and what the model would have it do. */
export interface Pressed {
  /** mm, as read, and one standard deviation of it. */
  readonly opened: number;
  readonly sd: number;
  /** As the model has it, mm. */
  readonly modelled: number;
}

/** How stiff this shell is beside the model: the factor, and the range it lies in. */
export interface StiffnessRange extends FactorRange {
  /** It rests on a press test. */
  readonly tested: boolean;
}

/** A model's stiffness is known to a factor of two: as ±, of its logarithm. */
const PRIOR_SD = spreadOf(2);
/** What the model of one opening says of another, of its logarithm: no test is worth more. */
const MODEL_SD = 0.12;

/**
 * The factor by which the model's stiffness is to be taken. Before a test it is known to a factor of two; each test says
 * modelled over opened, and all are weighed by least squares of their logarithms, the model's own uncertainty among them.
 */
export function stiffnessRange(tests: readonly Pressed[]): StiffnessRange {
  const told = tests.filter(({ modelled }) => modelled > 0);
  const ratios = told.map(({ opened, sd, modelled }) => ({
    ratio: modelled / opened,
    sd: Math.hypot(sd / opened, MODEL_SD),
  }));
  return { ...rangeOfFactor(weighedFactor(ratios, PRIOR_SD)), tested: told.length > 0 };
}
