import { position, type Position, type Vector } from '../../maths/geometry/vector';
import type { Job } from '../../shell/job/job';
import { axisWord, likelyCause, type Cause, type ReadingFacts } from '../../survey/causes';
import { solveDetermined } from '../../survey/determined';
import { locateInPlan, type PlanPoint } from '../../survey/in-plan';
import type { LoosePoint } from '../../survey/loose';
import { predict } from '../../survey/prediction';
import { SUSPECT, uncheckedPoints } from '../../survey/reliability';
import type { NetSolution } from '../../survey/solve';
import { accuse, STRANGE, type Accusation } from '../../survey/suspects';
import { isMuchThe, spokenOf } from '../../survey/subset';
import { isPair, pointsOf, tipDistance, type Survey, type SurveyReading } from '../../survey/survey';
import type { Observed } from '../observe/observe';
import { surveyOf, type RoundSurvey } from '../observe/survey-of';
import { factsFor } from './facts';
import { uprightOf } from './upright';

/** A reading the rest of the round contradicts, and what can be said of it. */
export interface Doubt {
  readonly kind: 'contradicted' | 'repeatsDiffer' | 'farFromChart';
  readonly readingId: string;
  /** Test value; for repeats, their difference by its standard deviation. */
  readonly w: number;
  /** What was doubted: distance, height, … */
  readonly quantity: string;
  readonly cause?: Cause;
  /** What the other readings say it should be, mm, and its standard deviation. */
  readonly expected?: { readonly value: number; readonly sd: number };
  /** Readings that cannot be told apart from it. */
  readonly together: readonly string[];
}

/** A round solved as one net, in the round's own axes; its points and readings go by their identities. */
export interface RoundNet {
  /** The largest part, doubtful readings left out; absent while nothing is determined. */
  readonly solution?: NetSolution;
  readonly doubts: readonly Doubt[];
  /** Readings left out of the solution because they are doubted. */
  readonly leftOut: readonly string[];
  readonly loose: readonly LoosePoint[];
  readonly unread: readonly string[];
  /** Points that are determined, but some reading of which nothing checks. */
  readonly unchecked: readonly string[];
  /** Points that are known in plan only, in the axes of the round. */
  readonly inPlan: readonly PlanPoint[];
  /** Parts that hang together but not with the largest: their points. */
  readonly apart: readonly (readonly string[])[];
  readonly notEntering: readonly string[];
  readonly gauges: RoundSurvey['gauges'];
  readonly start: RoundSurvey['start'];
  readonly rough?: RoundSurvey['rough'];
  /** So many points more need a height before a shape can be made of the readings alone. */
  readonly heightsWanted: number;
}

/** How far a round is solved: where the next solution of it starts. */
export interface Solved {
  /** Its largest part, doubtful readings and all. */
  readonly main: NetSolution;
  /** The same after each of those was left out. */
  readonly steps: readonly NetSolution[];
  readonly inPlan?: InPlan;
}

/** What is known in plan, and of what readings with the located points where. */
interface InPlan {
  readonly from: Survey;
  readonly points: readonly PlanPoint[];
}

/** A reading farther than this from what the chart lets expect is set aside until the net can judge it, mm. */
const FAR = 130;
/** Repeats that differ by more than this many standard deviations of their difference contradict each other. */
export const REPEATS_DIFFER = 3;

/**
 * Solves a round: what is determined, what is loose, what is doubtful. Readings somebody decided to keep
 * are no longer doubted.
 *
 * @param observed the round's standing readings
 */
export const solveRound = (job: Job, observed: readonly Observed[]): RoundNet => solveRoundFrom(job, observed).net;

/**
 * The same from where an earlier solution stands.
 *
 * @param last how far the round was solved before
 */
export function solveRoundFrom(
  job: Job,
  observed: readonly Observed[],
  last?: Solved,
): { readonly net: RoundNet; readonly solved?: Solved } {
  const { survey, start, rough, notEntering, gauges } = surveyOf(job, observed);
  const far = start === 'chart' ? farFromStart(survey).filter((id) => !job.isKept(id)) : [];
  const trusted = { ...survey, readings: survey.readings.filter(({ id }) => !far.includes(id)) };
  const { upright, without, heightsWanted } = uprightOf(trusted, start);
  const determined = solveDetermined(upright, last?.main);
  const loose = [...determined.loose, ...without];
  const main = determined.pieces[0];
  const factsOf = factsFor(job);
  const repeats = differingRepeats(survey).filter(({ readingId }) => !job.isKept(readingId));
  const common = { notEntering, gauges, start, rough, heightsWanted, unread: determined.unread };
  if (!main) {
    const doubts = [...farDoubts(survey, far), ...repeats];
    return { net: { ...common, doubts, leftOut: far, loose, unchecked: [], inPlan: locateInPlan(trusted), apart: [] } };
  }
  const strangeness = start === 'chart' ? offStart(survey) : undefined;
  const found = accuse(main, factsOf, strangeness, last?.steps);
  const apart = standOffs(main, found.accusations, strangeness).filter(
    ([a, b]) => !job.isKept(a.id) && !job.isKept(b.id),
  );
  const ofPairs = new Set(apart.flatMap((pair) => pair.map(({ id }) => id)));
  const accusations = found.accusations.filter(({ reading }) => !reading || !ofPairs.has(reading.id));
  const cleared =
    apart.length > 0
      ? withoutReadings(main, [...ofPairs, ...accusations.flatMap(({ reading }) => reading?.id ?? [])], found.cleared)
      : found.cleared;
  const accused = accusations.flatMap(({ reading, axis, w, cause, together }): Doubt[] =>
    !reading || job.isKept(reading.id)
      ? []
      : [
          {
            kind: 'contradicted',
            readingId: reading.id,
            w,
            quantity: axisWord(reading, axis),
            together,
            expected: expectedOf(cleared, reading, axis),
            ...(cause ? { cause } : {}),
          },
        ],
  );
  const keptOne = accusations.some(({ reading }) => reading && job.isKept(reading.id));
  const solution = keptOne
    ? withoutReadings(
        main,
        accused.map(({ readingId }) => readingId),
        cleared,
      )
    : cleared;
  const judgedFar = far.map((id) =>
    judgeFar(
      solution,
      survey.readings.find((each) => each.id === id)!,
      factsOf,
    ),
  );
  const disagreeing = apart.flatMap(([a, b]) => [disagreement(a, b), disagreement(b, a)]);
  const doubts = [...judgedFar, ...accused, ...disagreeing].sort((a, b) => Math.abs(b.w) - Math.abs(a.w));
  const doubted = new Set(doubts.map(({ readingId }) => readingId));
  const inPlan = loose.length > 0 ? inPlanBeside(trusted, solution, last?.inPlan) : undefined;
  const net = {
    ...common,
    solution,
    doubts: [...doubts, ...repeats.filter(({ readingId }) => !doubted.has(readingId))],
    leftOut: [...doubted],
    loose,
    unchecked: uncheckedPoints(solution),
    inPlan: inPlan?.points ?? [],
    apart: determined.pieces.slice(1).map((piece) => piece.survey.points.map(({ id }) => id)),
  };
  return { net, solved: { main, steps: found.steps, ...(inPlan ? { inPlan } : {}) } };
}

/** What is known in plan stays what it is while the points it was read from stand within this of where they did, mm. */
const STILL = 0.05;

/** What of the rest is known in plan, with the points that are located standing as they are; or what was known of it before. */
function inPlanBeside({ points, readings }: Survey, solution: NetSolution, last?: InPlan): InPlan {
  const at = coordinatesOf(solution);
  const rest: Survey = {
    points: points.map((point) => {
      const known = at.get(point.id);
      return known ? { id: point.id, start: known, hold: 'fixed' as const } : point;
    }),
    readings: readings.filter((reading) => pointsOf(reading).some((id) => !at.has(id))),
  };
  const from = spokenOf(rest);
  return last && isMuchThe(last.from, from, STILL) ? last : { from, points: locateInPlan(rest) };
}

/** Readings that contradict the starting coordinates by more than any shell is bent. */
function farFromStart(survey: Survey): string[] {
  const off = offStart(survey);
  return survey.readings.flatMap((reading) => (off(reading) > FAR ? [reading.id] : []));
}

/** How far a reading is from what the starting coordinates let expect, mm. */
function offStart({ points }: Survey): (reading: SurveyReading) => number {
  const at = new Map(points.map(({ id, start }) => [id, start]));
  return (reading) => Math.abs(misfitAt(reading, (id) => at.get(id)!));
}

function misfitAt(reading: SurveyReading, at: (id: string) => Vector): number {
  if (reading.kind === 'position') return 0;
  if (!isPair(reading)) {
    const axis = { station: 0, offset: 1, height: 2 }[reading.kind];
    return reading.value - at(reading.point)[axis]!;
  }
  const [a, b] = [at(reading.from), at(reading.to)];
  if (reading.kind === 'rise') return reading.value - (b[2] - a[2]);
  const dz = reading.kind === 'plan' ? 0 : b[2] - a[2];
  return tipDistance(reading.value, reading.pointers) - Math.hypot(b[0] - a[0], b[1] - a[1], dz);
}

const sigmaOf = (reading: SurveyReading, axis: number): number =>
  Math.hypot(reading.kind === 'position' ? reading.sigma[axis]! : reading.sigma, reading.bias?.sigma ?? 0);

function expectedOf(solution: NetSolution, reading: SurveyReading, axis: number): Doubt['expected'] {
  const known = new Set(solution.survey.points.map(({ id }) => id));
  if (!(isPair(reading) ? [reading.from, reading.to] : [reading.point]).every((id) => known.has(id))) return undefined;
  const { value, variance } = predict(solution, reading, axis);
  return { value, sd: Math.sqrt(variance) };
}

/** A reading set aside, judged by the net it had no part in. */
function judgeFar(
  solution: NetSolution,
  reading: SurveyReading,
  factsOf: (reading: SurveyReading) => ReadingFacts,
): Doubt {
  const expected = expectedOf(solution, reading, 0);
  const common = { readingId: reading.id, quantity: axisWord(reading, 0), together: [] };
  if (!expected || reading.kind === 'position') return { ...common, kind: 'farFromChart', w: 0 };
  const w = (expected.value - readOf(reading)) / Math.hypot(expected.sd, sigmaOf(reading, 0));
  const cause = likelyCause(solution, reading, factsOf(reading));
  return {
    ...common,
    kind: Math.abs(w) > SUSPECT ? 'contradicted' : 'farFromChart',
    w,
    expected,
    ...(cause ? { cause } : {}),
  };
}

const farDoubts = (survey: Survey, far: readonly string[]): Doubt[] =>
  far.map((readingId) => ({
    kind: 'farFromChart',
    readingId,
    w: 0,
    quantity: axisWord(
      survey.readings.find(({ id }) => id === readingId)!,
      0,
    ),
    together: [],
  }));

/**
 * Pairs of readings of one thing that contradict each other while nothing else tells which is wrong: neither is taken,
 * and of neither can be said what it should be. Where one of them is strange by itself the chart tells.
 */
function standOffs(
  main: NetSolution,
  accusations: readonly Accusation[],
  strangeness: (reading: SurveyReading) => number = () => 0,
): (readonly [SurveyReading, SurveyReading])[] {
  return accusations.flatMap(({ reading, together }): (readonly [SurveyReading, SurveyReading])[] => {
    if (!reading) return [];
    const twins = main.survey.readings.filter((each) => each.id !== reading.id && isOfTheSame(each, reading));
    const [twin] = twins;
    if (!twin || twins.length > 1 || together.length !== 1 || together[0] !== twin.id) return [];
    const [own, other] = [strangeness(reading), strangeness(twin)];
    if (Math.max(own, other) > STRANGE && Math.max(own, other) > 3 * Math.min(own, other)) return [];
    return othersTell(main, reading, twin) ? [] : [[twin, reading]];
  });
}

/**
 * Whether the net without either of two readings agrees with one of them and contradicts the other: however loosely it
 * knows the length by itself, a blunder is often larger than that.
 */
function othersTell(main: NetSolution, a: SurveyReading, b: SurveyReading): boolean {
  const [without] = solveDetermined({
    ...main.survey,
    readings: main.survey.readings.filter(({ id }) => id !== a.id && id !== b.id),
  }).pieces;
  // Where the two are the only tie to the datum, nothing else knows what they measure.
  const expected = without && without.freedoms === main.freedoms ? expectedOf(without, a, 0) : undefined;
  if (!expected || a.kind === 'position' || b.kind === 'position') return false;
  const strange = [a, b].map(
    (reading) => Math.abs(readOf(reading) - expected.value) / Math.hypot(expected.sd, sigmaOf(reading, 0)),
  );
  return Math.max(...strange) > SUSPECT && Math.max(...strange) > 3 * Math.min(...strange);
}

const readOf = (reading: Exclude<SurveyReading, { kind: 'position' }>): number =>
  isPair(reading) ? tipDistance(reading.value, reading.pointers) : reading.value;

const isOfTheSame = (a: SurveyReading, b: SurveyReading): boolean =>
  a.kind === b.kind && [...pointsOf(a)].sort().join() === [...pointsOf(b)].sort().join();

/** One of two that disagree: it says no more than that. */
const disagreement = (reading: SurveyReading, other: SurveyReading): Doubt => ({
  kind: 'repeatsDiffer',
  readingId: reading.id,
  w: ((reading.value as number) - (other.value as number)) / sigmaOf(reading, 0),
  quantity: axisWord(reading, 0),
  together: [other.id],
});

/** Repeats of one quantity with one instrument that are too far apart. */
function differingRepeats({ readings }: Survey): Doubt[] {
  const first = new Map<string, SurveyReading>();
  return readings.flatMap((reading): Doubt[] => {
    if (!reading.bias || reading.kind === 'position') return [];
    const other = first.get(reading.bias.group);
    if (!other) {
      first.set(reading.bias.group, reading);
      return [];
    }
    const w = (reading.value - (other.value as number)) / sigmaOf(reading, 0);
    return Math.abs(w) > REPEATS_DIFFER * Math.SQRT2
      ? [{ kind: 'repeatsDiffer', readingId: reading.id, w, quantity: axisWord(reading, 0), together: [other.id] }]
      : [];
  });
}

/** The main part again with the kept readings back in. */
function withoutReadings(main: NetSolution, ids: readonly string[], fallback: NetSolution): NetSolution {
  const readings = main.survey.readings.filter(({ id }) => !ids.includes(id));
  return solveDetermined({ ...main.survey, readings }).pieces[0] ?? fallback;
}

/** Coordinates of a solved net by point, in the axes of the round. */
export const coordinatesOf = ({ survey, x }: NetSolution): Map<string, Position<'round'>> =>
  new Map(survey.points.map(({ id }, i) => [id, position(Array.from(x.subarray(3 * i, 3 * i + 3)))]));
