import { along, spreadBy } from '../maths/linear/gradient';
import { likelyCause, type Cause, type ReadingFacts } from './causes';
import { linearise, newRow } from './observations';
import { checkObservations, SUSPECT, type ObservationCheck } from './reliability';
import { grownBy, removeReading, withoutReading } from './extend';
import { covarianceOf, solveNet, type NetSolution, type SolveResult } from './solve';
import type { SurveyPoint, SurveyReading } from './survey';

/** One culprit: a reading or a held point that the others contradict. */
export interface Accusation {
  readonly reading?: SurveyReading;
  readonly held?: SurveyPoint;
  /** Component of a position or of a held point: 0, 1, 2. */
  readonly axis: number;
  /** Its test value before anything was left out that came after it. */
  readonly w: number;
  readonly cause?: Cause;
  /** Readings whose test values cannot be told apart from its own. */
  readonly together: readonly string[];
}

/** Test values correlated beyond this cannot be told apart. */
const INSEPARABLE = 0.9;
const MOST_ACCUSED = 15;
/** Of a net only brought up to date, what is checked less than this is not accused unheard. */
const HARDLY_CHECKED = 0.05;
/** Farther than this from what was expected a reading is strange by itself, mm. */
export const STRANGE = 20;

/**
 * Finds the wrong readings one by one: the worst is accused, left out, and the net solved again, so that
 * readings which only look wrong because of it are cleared (iterated data snooping, Baarda 1968;
 * Pope 1976).
 *
 * @param strangeness how far a reading is from what was expected before anything was read, mm: of readings whose tests
 *   cannot be told apart, the strangest by far is accused
 * @param earlier the `steps` of such a search in much the same net: where the same readings are accused again, these are
 *   only brought up to date
 * @returns the accusations, the worst first, the net without the culprits, and the nets after each was left out
 */
export function accuse(
  solution: NetSolution,
  factsOf: (reading: SurveyReading) => ReadingFacts = () => ({}),
  strangeness: (reading: SurveyReading) => number = () => 0,
  earlier: readonly NetSolution[] = [],
): { accusations: Accusation[]; cleared: NetSolution; steps: readonly NetSolution[] } {
  const accusations: Accusation[] = [];
  const steps: NetSolution[] = [];
  let current = solution;
  while (accusations.length < MOST_ACCUSED) {
    const checks = checkObservations(current);
    const loudest = checks.reduce<number>(
      (best, check, i) => (check.suspect && (best < 0 || Math.abs(check.w!) > Math.abs(checks[best]!.w!)) ? i : best),
      -1,
    );
    if (loudest < 0) break;
    const worst = strangest(current, checks, loudest, strangeness);
    const check = checks[worst]!;
    const afresh = isShaky(current, check) ? solveNet(current.survey, { from: current.x }) : undefined;
    if (afresh?.ok) {
      current = afresh.solution;
      continue;
    }
    const { survey } = current;
    const reading = survey.readings[check.observation.reading];
    const axis = Math.max(0, check.observation.axis);
    const next = without(current, check, earlier[steps.length]);
    const accusation = {
      axis,
      w: check.w!,
      together: inseparable(current, checks, worst),
      ...(reading ? { reading } : { held: survey.points[check.observation.a]! }),
    };
    if (!next.ok) {
      accusations.push(accusation);
      break;
    }
    const cause = reading && likelyCause(next.solution, reading, factsOf(reading), axis);
    accusations.push({ ...accusation, ...(cause ? { cause } : {}) });
    current = next.solution;
    steps.push(current);
  }
  return { accusations, cleared: current, steps };
}

/** Of readings that cannot be told apart from the one with the largest test value, the one that is strange by itself. */
function strangest(
  solution: NetSolution,
  checks: readonly ObservationCheck[],
  loudest: number,
  strangeness: (reading: SurveyReading) => number,
): number {
  const of = (i: number) => {
    const reading = solution.survey.readings[checks[i]!.observation.reading];
    return reading ? strangeness(reading) : 0;
  };
  const alike = new Set(inseparable(solution, checks, loudest));
  const rivals = checks.flatMap(({ observation, suspect }, i) => {
    const id = solution.survey.readings[observation.reading]?.id;
    return suspect && id !== undefined && alike.has(id) ? [i] : [];
  });
  const best = rivals.reduce((a, b) => (of(b) > of(a) ? b : a), loudest);
  return of(best) > STRANGE && of(best) > 3 * of(loudest) ? best : loudest;
}

/**
 * A covariance that was brought up to date has the directions of where the net stood when it was solved: next to nothing, but
 * not next to a redundancy that is next to nothing itself.
 */
const isShaky = ({ updates = 0 }: NetSolution, { redundancy }: ObservationCheck): boolean =>
  updates > 0 && redundancy < HARDLY_CHECKED;

/** The net without the reading of an observation; a held point becomes free. */
function without(
  solution: NetSolution,
  { observation: { reading, a } }: ObservationCheck,
  earlier: NetSolution | undefined,
): SolveResult {
  if (reading >= 0)
    return (earlier && grownBy(earlier, withoutReading(solution.survey, reading))) ?? removeReading(solution, reading);
  const { survey, x } = solution;
  const points = survey.points.map((point, i) => (i === a ? { id: point.id, start: point.start } : point));
  return solveNet({ ...survey, points }, { from: x });
}

/**
 * The other readings whose test values go with that of observation `i`:
 * ρᵢⱼ = −aᵢ Q aⱼᵀ / (σᵢ σⱼ √(rᵢ rⱼ)).
 */
function inseparable(solution: NetSolution, checks: readonly ObservationCheck[], i: number): string[] {
  const { equations, x, biases, survey } = solution;
  const [own, other] = [newRow(), newRow()];
  linearise(equations, checks[i]!.observation, x, biases, own);
  const spread = spreadBy(covarianceOf(solution), own);
  const ids = new Set<string>();
  checks.forEach((check, j) => {
    if (j === i || check.w === null || Math.abs(check.w) <= SUSPECT) return;
    linearise(equations, check.observation, x, biases, other);
    const shared = along(spread, other);
    const scale =
      checks[i]!.observation.sigma * check.observation.sigma * Math.sqrt(checks[i]!.redundancy * check.redundancy);
    if (Math.abs(shared / scale) > INSEPARABLE)
      ids.add(survey.readings[check.observation.reading]?.id ?? survey.points[check.observation.a]!.id);
  });
  ids.delete(survey.readings[checks[i]!.observation.reading]?.id ?? '');
  return [...ids];
}
