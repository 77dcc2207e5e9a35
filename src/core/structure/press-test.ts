import { COVERAGE } from '../maths/statistics/verdict';

/** What a press test found: how far an opening opened under a force, and what the model would have it do. */
export interface Pressed {
  /** mm, as read, and one standard deviation of it. */
  readonly opened: number;
  readonly sd: number;
  /** As the model has it, mm. */
  readonly modelled: number;
}

/** How stiff this shell is beside the model: the factor, and the range it lies in. */
export interface StiffnessRange {
  readonly low: number;
  readonly usual: number;
  readonly high: number;
  /** It rests on a press test. */
  readonly tested: boolean;
}

/** A model's stiffness is known to a factor of two: as ±, of its logarithm. */
const PRIOR_SD = Math.LN2 / COVERAGE;
/** What the model of one opening says of another, of its logarithm: no test is worth more. */
const MODEL_SD = 0.12;

/**
 * The factor by which the model's stiffness is to be taken. Before a test it is known to a factor of two; each test says
 * modelled over opened, and all are weighed by least squares of their logarithms, the model's own uncertainty among them.
 */
export function stiffnessRange(tests: readonly Pressed[]): StiffnessRange {
  let [sum, weight] = [0, PRIOR_SD ** -2];
  for (const { opened, sd, modelled } of tests) {
    if (!(modelled > 0)) continue;
    const w = 1 / ((sd / opened) ** 2 + MODEL_SD ** 2);
    sum += w * Math.log(modelled / opened);
    weight += w;
  }
  const [usual, spread] = [Math.exp(sum / weight), Math.exp(COVERAGE / Math.sqrt(weight))];
  return { low: usual / spread, usual, high: usual * spread, tested: tests.some(({ modelled }) => modelled > 0) };
}
