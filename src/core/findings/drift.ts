import { chiSquareLimit } from '../maths/statistics/distributions';

/** A figure as rounds one after another found it, with one standard deviation. */
export interface Found {
  readonly value: number;
  readonly sd: number;
}

/** Where a figure stood still, or by how much it moved, and at which of its rounds that appeared. */
export type Drift =
  | { readonly kind: 'few' }
  | { readonly kind: 'still' }
  | {
      readonly kind: 'moved';
      /** After less before, with one standard deviation. */
      readonly by: number;
      readonly sd: number;
      /** Of each round but the first, by its place in the list: how likely it is that it appeared there; they sum to 1. */
      readonly at: readonly { readonly place: number; readonly share: number }[];
    };

/** So seldom something that stood still is taken for moved. */
const FALSE_ALARM = 0.05;

/**
 * Whether a figure moved between rounds, and between which: of one step between two of them, before and after which it stood
 * still. Every place of the step is tried; the best is a move where its sum of squares is smaller than that of no step by more
 * than chance makes it in one of twenty runs (χ² of one freedom, shared over the places and the figures: Bonferroni). How likely each place is
 * follows from the sums of squares with both levels left open (Smith, A Bayesian approach to inference about a change-point in a
 * sequence of random variables, Biometrika 62, 1975).
 *
 * @param values in their order; a figure that two steps moved is told by the larger
 * @param among so many figures are looked at together: chance has so many tries
 */
export function driftOf(values: readonly Found[], among = 1): Drift {
  if (values.length < 2) return { kind: 'few' };
  const still = spread(values);
  const steps = values.slice(1).map((_, i) => {
    const [before, after] = [spread(values.slice(0, i + 1)), spread(values.slice(i + 1))];
    return {
      place: i + 1,
      chi: before.chi + after.chi,
      by: after.mean - before.mean,
      sd: Math.sqrt(1 / before.weight + 1 / after.weight),
      // The levels before and after are not known: what is averaged over them.
      open: 1 / Math.sqrt(before.weight * after.weight),
    };
  });
  const best = steps.reduce((a, b) => (b.chi < a.chi ? b : a));
  if (still.chi - best.chi <= chiSquareLimit(FALSE_ALARM / (steps.length * among), 1)) return { kind: 'still' };
  const likely = steps.map(({ chi, open }) => open * Math.exp((best.chi - chi) / 2));
  const sum = likely.reduce((a, b) => a + b, 0);
  const at = steps.map(({ place }, i) => ({ place, share: likely[i]! / sum }));
  return { kind: 'moved', by: best.by, sd: best.sd, at: at.toSorted((a, b) => b.share - a.share) };
}

/** Of figures that should be one: their weighted mean, the sum of their weights, and of their squares over their variances. */
function spread(values: readonly Found[]) {
  const weight = values.reduce((sum, { sd }) => sum + 1 / sd ** 2, 0);
  const mean = values.reduce((sum, { value, sd }) => sum + value / sd ** 2, 0) / weight;
  const chi = values.reduce((sum, { value, sd }) => sum + ((value - mean) / sd) ** 2, 0);
  return { weight, mean, chi };
}
