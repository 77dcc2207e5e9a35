import { alike } from '../maths/alike';
import { along, spreadBy } from '../maths/linear/gradient';
import { Symmetric } from '../maths/linear/symmetric';
import { NetState } from './net-state';
import {
  equationsOf,
  linearise,
  newRow,
  observationsOf,
  withObservation,
  type Equations,
  type Observation,
} from './observations';
import { covarianceOf, isLoose, largest, solveNet, type NetSolution, type SolveResult } from './solve';
import { pointIndex, pointsOf, type Survey, type SurveyReading } from './survey';

/** Coordinates within this of where a covariance was made need no new one, mm: its directions are still theirs. */
const NEAR = 0.3;
const CONVERGED = 1e-7;
const MOST_STEPS = 12;
/** So many updates of a covariance are trusted. */
const MOST_UPDATES = 20;

/** A reading the others check less than this takes too much of the covariance with it. */
const WELL_CHECKED = 0.02;

/** An observation put in (`sign` 1) or taken out (−1). */
interface Change {
  readonly observation: Observation;
  readonly sign: 1 | -1;
}

/**
 * A solution with one more reading: its covariance is brought up to date by one rank (Sherman and
 * Morrison 1950), and the coordinates follow by steps with that covariance. Where the reading moves the
 * net too far for that, ties in a new point or is the first with its bias, the net is solved anew from where it stands.
 */
export function addReading(solution: NetSolution, reading: SurveyReading): SolveResult {
  const { points, readings } = solution.survey;
  return put(solution, { points, readings: [...readings, reading] }, readings.length);
}

/** The same where the reading stands anywhere among those of the survey. */
function put(solution: NetSolution, survey: Survey, place: number): SolveResult {
  const reading = survey.readings[place]!;
  const index = pointIndex(solution.survey);
  const bias = sameBiases(solution.survey, survey) ? biasOf(solution, reading) : undefined;
  if (bias === undefined || reading.kind === 'position' || !pointsOf(reading).every((id) => index.has(id)))
    return solveNet(survey, { from: solution.x });
  const observation = observationsOf(reading, index, place, bias)[0]!;
  const isLast = place === survey.readings.length - 1;
  const equationsThen = () => (isLast ? withObservation(solution.equations, observation) : equationsOf(survey));
  return reweighted(solution, survey, equationsThen, [{ observation, sign: 1 }]);
}

/** Where the bias of a reading stands among those of a net; −1 for a reading without, undefined where the net has none like it. */
function biasOf({ survey, equations }: NetSolution, { bias }: SurveyReading): number | undefined {
  if (!bias) return -1;
  const repeated = survey.readings.findIndex((each) => each.bias?.group === bias.group);
  return repeated < 0 ? undefined : observationOf(equations, repeated).bias;
}

/**
 * The solution of a survey that is an earlier one with one reading more, or that one itself; undefined where they differ
 * in anything else but a bias that the reading shares with one it repeats.
 */
export function grownBy(earlier: NetSolution, survey: Survey): SolveResult | undefined {
  const { points, readings } = earlier.survey;
  const more = survey.readings.length - readings.length;
  if ((more !== 0 && more !== 1) || points.length !== survey.points.length) return undefined;
  if (!alike(points, survey.points)) return undefined;
  if (more === 0) return alike(readings, survey.readings) ? { ok: true, solution: earlier } : undefined;
  const at = readings.findIndex((reading, i) => reading.id !== survey.readings[i]!.id);
  const place = at < 0 ? readings.length : at;
  const others = survey.readings.filter((_, i) => i !== place);
  const changed = readings.flatMap((reading, i) => (alike(reading, others[i]) ? [] : [i]));
  if (changed.length === 0) return put(earlier, survey, place);
  const [first] = changed as [number];
  return changed.length === 1 && isFirstRepeat(readings[first]!, others[first]!, survey.readings[place]!)
    ? putFirstRepeat(earlier, survey, place, first)
    : undefined;
}

/** A reading had been alone and shares a bias now, with the one that came. */
const isFirstRepeat = (alone: SurveyReading, now: SurveyReading, repeat: SurveyReading): boolean =>
  alone.kind !== 'position' &&
  !alone.bias &&
  now.bias !== undefined &&
  alike(now.bias, repeat.bias) &&
  alike(pointsOf(now), pointsOf(repeat)) &&
  alike({ ...alone, sigma: now.sigma, bias: now.bias }, now);

/**
 * A solution with the first repeat of one of its readings. Both share a bias, which is an unknown more: nothing is known of
 * it but its own spread until both are put in with it, and the reading as it stood alone is taken out.
 */
function putFirstRepeat(earlier: NetSolution, survey: Survey, place: number, first: number): SolveResult {
  const equations = equationsOf(survey);
  if (equations.unknowns !== earlier.equations.unknowns + 1) return solveNet(survey, { from: earlier.x });
  const both = [place, first < place ? first : first + 1].map((r) => observationOf(equations, r));
  return reweighted(withBias(earlier, equations, both[0]!.bias), survey, () => equations, [
    ...both.map((observation) => ({ observation, sign: 1 as const })),
    { observation: observationOf(earlier.equations, first), sign: -1 },
  ]);
}

/** The observation of a reading that has one. */
const observationOf = ({ observations }: Equations, r: number): Observation =>
  observations.find(({ reading }) => reading === r)!;

/** The solution in the unknowns of other equations, which have one bias more. */
function withBias(solution: NetSolution, equations: Equations, bias: number): NetSolution {
  const { coordinates, unknowns, biasSigmas } = equations;
  const own = coordinates + bias;
  const then = (i: number) => (i < own ? i : i - 1);
  const before = covarianceOf(solution);
  const covariance = Symmetric.zeros(unknowns);
  for (let i = 0; i < unknowns; i++)
    for (let k = 0; k <= i; k++) if (i !== own && k !== own) covariance.set(i, k, before.get(then(i), then(k)));
  covariance.set(own, own, biasSigmas[bias]! ** 2);
  const biases = Float64Array.from([...solution.biases].toSpliced(bias, 0, 0));
  return { ...solution, equations, covariance: covariance.values, biases };
}

/**
 * A solution without one of its readings, brought down by one rank in the same way. Solved anew where little
 * else checks the reading, where it moves the net far, is a position, or was the only one with its bias.
 */
export function removeReading(solution: NetSolution, r: number): SolveResult {
  const reading = solution.survey.readings[r]!;
  const survey = withoutReading(solution.survey, r);
  const observation = observationOf(solution.equations, r);
  const simple = reading.kind !== 'position' && sameBiases(solution.survey, survey);
  return simple
    ? reweighted(solution, survey, () => equationsOf(survey), [{ observation, sign: -1 }])
    : solveNet(survey, { from: solution.x });
}

export const withoutReading = (survey: Survey, r: number): Survey => ({
  ...survey,
  readings: survey.readings.filter((_, i) => i !== r),
});

/** The same biases, which stand in the same order among the unknowns. */
const sameBiases = (a: Survey, b: Survey): boolean => alike(biasGroups(a), biasGroups(b));

/** The groups of shared biases in the order of their unknowns. */
const biasGroups = ({ readings }: Survey): string[] => [
  ...new Set(
    readings.flatMap((reading) => [
      ...(reading.bias ? [reading.bias.group] : []),
      ...(reading.kind === 'position' && reading.body ? [reading.body.id] : []),
    ]),
  ),
];

/** The solution with its observations changed, which is the difference to `survey`. */
function reweighted(
  solution: NetSolution,
  survey: Survey,
  equationsThen: () => Equations,
  changes: readonly Change[],
): SolveResult {
  const anew = () => solveNet(survey, { from: solution.x });
  const updates = (solution.updates ?? 0) + 1;
  if (updates > MOST_UPDATES) return anew();
  if (solution.kept.some((share) => share < 1)) return anew();
  const covariance = covarianceOf(solution).copy();
  const row = newRow();
  for (const { observation, sign } of changes) {
    linearise(solution.equations, observation, solution.x, solution.biases, row);
    const spread = spreadBy(covariance, row);
    const own = observation.sigma ** 2;
    const scale = own + sign * along(spread, row);
    if (scale < WELL_CHECKED * own) return anew();
    covariance.lessen([{ u: spread, share: sign / scale }]);
  }
  const equations = equationsThen();
  const kept = new Float64Array(equations.observations.length).fill(1);
  const settled = isLoose(covariance.values, equations) ? undefined : settle(equations, solution, covariance, kept);
  if (!settled) return anew();
  const changed = { survey, equations, covariance: covariance.values, ...settled, kept, updates };
  return { ok: true, solution: { ...solution, ...changed } };
}

type Settled = Pick<NetSolution, 'x' | 'biases' | 'madeAt'>;

/** Steps x ← x + Q AᵀP(l − f) until nothing moves; undefined where the covariance no longer fits. */
function settle(equations: Equations, from: Settled, covariance: Symmetric, kept: Float64Array): Settled | undefined {
  const state = new NetState(equations, from.x, kept);
  state.biases.set(from.biases);
  const times = covariance.multiplier();
  const madeAt = from.madeAt ?? from.x;
  for (let step = 0; step < MOST_STEPS; step++) {
    const change = times(state.downhill());
    state.take(state.after(change));
    if (state.x.some((value, i) => Math.abs(value - madeAt[i]!) > NEAR)) return undefined;
    if (largest(change) < CONVERGED) return { x: state.x, biases: state.biases, madeAt };
  }
  return undefined;
}
