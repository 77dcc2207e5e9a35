import { distance, mapAxes, type Vector } from '../maths/geometry/vector';
import type { Reading, Round } from '../shell/job/entities';
import { spreadOf, takes, type InHand } from '../shell/instruments';
import type { Job } from '../shell/job/job';
import { extentOf, sectionAt } from '../shell/sections';
import { referencePosition } from '../shell/references/chosen';
import { SHARED_WITH_REPEATS } from '../round/observe/observe';
import { reachablePoints } from '../round/observe/conditions';
import type { RoundJudgement } from '../round/judge/judgement';
import { pointsOf, type CoordinateReading, type SurveyReading } from '../survey/survey';
import { proposeNext, type Wanted } from './propose';
import { judgedLengths, type JudgedLength } from './charted';
import { inStretches, type People } from './stretches';
import { planWalk } from './walk';
import type { WalkPoint, WalkStep } from './walk-step';

/** What can be wanted of one point or two. */
export type TargetQuantity = 'distance' | 'height' | 'width' | 'length';

/** One reading wanted, in the order it is to be taken. */
export interface Target {
  /** `distance F1L S2L`, ends in alphabetical order: two targets with one key want the same. */
  readonly key: string;
  readonly quantity: TargetQuantity;
  readonly measure?: 'tip' | 'level';
  /** Point codes, one or two. */
  readonly codes: readonly string[];
  readonly why: WalkStep['why'] | 'uncertain' | 'unchecked';
  readonly section?: WalkStep['section'];
  /** A second reading of something already read. */
  readonly again: boolean;
  /** The instrument it is worked out for. */
  readonly instrumentId?: string;
  /** Worst ± wanted before and after it, mm. */
  readonly gain?: { readonly before: number; readonly after: number };
}

/** Spread of the instruments that take distances and heights, one standard deviation, mm. */
export interface Hands {
  readonly distance: (length: number) => number;
  readonly height: number;
}

const LONGEST = 4800;
/** Whoever is alone hooks the far end and walks: longer than this the tape comes off, mm. */
const LONGEST_ALONE = 3000;
const SHORTEST = 80;
/** A substitute stands beside its point, mm. */
const ASIDE: Vector = [20, 10, 0];

const keyOf = (quantity: TargetQuantity, codes: readonly string[]): string =>
  `${quantity} ${[...codes].sort().join(' ')}`;

/**
 * The walk over every reachable point that a reference, or the picture of the body, gives a place; with the charted
 * lengths that it would leave too coarse to be judged.
 */
export function walkTargets(job: Job, round: Round, hands: Hands, people: People = 'two'): Target[] {
  const places = reachablePoints(job, round).flatMap((point): WalkPoint[] => {
    const own = roughPlace(job, point.id);
    const beside = roughPlace(job, point.substituteForId ?? '');
    const position = own ?? (beside && mapAxes((axis) => beside[axis] + ASIDE[axis]));
    return position ? [{ id: point.id, side: point.side, position, opposite: job.opposite(point.id)?.id }] : [];
  });
  const steps = planWalk(places, { ...hands, longest: people === 'alone' ? LONGEST_ALONE : LONGEST });
  const charted = judgedLengths(steps, places, lengthsJudged(job), hands.distance);
  return inStretches(inSections(steps, charted, places), people).map(({ section, why, reading }) => ({
    ...wantedOf(job, reading),
    section,
    why,
    again: why === 'again',
  }));
}

/** Where a point is about: by its reference, else by the picture of the body it was chosen on. */
const roughPlace = (job: Job, pointId: string): Vector | undefined =>
  referencePosition(job.references, pointId) ?? job.placeOnBody(pointId);

const lengthsJudged = (job: Job): JudgedLength[] =>
  job.rows.dimensions.flatMap(({ id, fromPointId: from, toPointId: to, measure }) => {
    const figure = job.references.dimensions.get(id);
    return figure ? [{ from, to, measure, limit: figure.row.tolerance }] : [];
  });

const SECTION_ORDER = ['centre', 'front', 'rear'] as const;

/** Charted lengths behind the lengths of their section; what is read again stays last. */
function inSections(
  steps: readonly WalkStep[],
  charted: readonly SurveyReading[],
  places: readonly WalkPoint[],
): WalkStep[] {
  const extent = extentOf(places.map(({ position }) => position[0]));
  const stationOf = (id: string) => places.find((place) => place.id === id)!.position[0];
  const added = charted.map((reading): WalkStep => {
    const stations = pointsOf(reading).map(stationOf);
    const middle = stations.reduce((sum, x) => sum + x, 0) / stations.length;
    return { section: sectionAt(middle, extent), why: 'charted', reading };
  });
  const once = steps.filter(({ why }) => why !== 'again');
  return [
    ...SECTION_ORDER.flatMap((section) => [...once, ...added].filter((step) => step.section === section)),
    ...steps.filter(({ why }) => why === 'again'),
  ];
}

const QUANTITY_OF = { height: 'height', offset: 'width', station: 'length' } as const satisfies Record<
  CoordinateReading['kind'],
  TargetQuantity
>;

function wantedOf(job: Job, reading: SurveyReading): Pick<Target, 'key' | 'quantity' | 'measure' | 'codes'> {
  const codes = pointsOf(reading).map((id) => job.code(id));
  if (reading.kind === 'distance' || reading.kind === 'plan')
    return {
      key: keyOf('distance', codes),
      quantity: 'distance',
      measure: reading.kind === 'plan' ? 'level' : 'tip',
      codes,
    };
  const own = codes.slice(-1);
  const quantity = reading.kind === 'rise' || reading.kind === 'position' ? 'height' : QUANTITY_OF[reading.kind];
  return { key: keyOf(quantity, own), quantity, codes: own };
}

/** Every charted length whose ends can be reached, then the heights of their points. */
export function chartedTargets(job: Job, round: Round): Target[] {
  const reachable = new Map(reachablePoints(job, round).map(({ id, code }) => [id, code]));
  const lengths = job.rows.dimensions.flatMap(({ fromPointId, toPointId, measure }): Target[] => {
    const [from, to] = [reachable.get(fromPointId), reachable.get(toPointId)];
    if (!from || !to) return [];
    const codes = [from, to];
    return [
      {
        key: keyOf('distance', codes),
        quantity: 'distance',
        measure,
        codes,
        why: 'charted',
        again: false,
      },
    ];
  });
  const heights = [...new Set(lengths.flatMap(({ codes }) => codes))].map((code): Target => ({
    key: keyOf('height', [code]),
    quantity: 'height',
    codes: [code],
    why: 'height',
    again: false,
  }));
  return [...lengths, ...heights];
}

/** A reading that could be taken, and with what. */
export interface Candidate {
  readonly reading: SurveyReading;
  readonly with: InHand;
  /** It has been read with this instrument already. */
  readonly again: boolean;
}

/**
 * Every reading that could be taken now of the points of a solved round, with every instrument in hand. A repeat shares
 * half its variance with those before it, so that it counts for as much as it makes their mean surer.
 */
export function candidatesInHand(job: Job, judgement: RoundJudgement, hands: readonly InHand[]): Candidate[] {
  const { located, round } = judgement;
  const ids = reachablePoints(job, round)
    .map(({ id }) => id)
    .filter((id) => located.has(id));
  const counts = new Map<string, number>();
  for (const reading of job.standingReadings(round)) {
    const key = `${readKey(reading)} ${job.version(reading.instrumentVersionId).instrumentId}`;
    counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  const made = (inHand: InHand, quantity: TargetQuantity, of: readonly string[], length: number): Candidate => {
    const key = `${quantity} ${[...of].sort().join(' ')}`;
    const before = counts.get(`${key} ${inHand.instrument.id}`) ?? 0;
    const sigma = spreadOf(inHand.version, length) * repeatFactor(before);
    const common = { id: `${key} ${inHand.instrument.id}`, sigma, value: length };
    const reading: SurveyReading =
      quantity === 'distance'
        ? { ...common, kind: 'distance', from: of[0]!, to: of[1]! }
        : { ...common, kind: KIND_OF[quantity], point: of[0]! };
    return { reading, with: inHand, again: before > 0 };
  };
  return hands.flatMap((inHand) => [
    ...(['height', 'width', 'length'] as const).flatMap((quantity) =>
      takes(inHand.instrument, quantity) ? ids.map((id) => made(inHand, quantity, [id], 0)) : [],
    ),
    ...(takes(inHand.instrument, 'distance')
      ? ids.flatMap((from, i) =>
          ids.slice(i + 1).flatMap((to) => {
            const length = distance(located.get(from)!.position, located.get(to)!.position);
            return length > SHORTEST && length < LONGEST ? [made(inHand, 'distance', [from, to], length)] : [];
          }),
        )
      : []),
  ]);
}

const KIND_OF = { height: 'height', width: 'offset', length: 'station' } as const;

/** How much coarser than a first reading the n-th repeat is in what it adds: 1/√(1/v(n+1) − 1/v(n)), v the variance of the mean. */
export function repeatFactor(before: number): number {
  if (before === 0) return 1;
  const variance = (n: number) => (n === 1 ? 1 : SHARED_WITH_REPEATS + (1 - SHARED_WITH_REPEATS) / n);
  return 1 / Math.sqrt(1 / variance(before + 1) - 1 / variance(before));
}

export function targetOf(job: Job, candidate: Candidate, why: Target['why']): Target {
  return {
    ...wantedOf(job, candidate.reading),
    why,
    again: candidate.again,
    instrumentId: candidate.with.instrument.id,
  };
}

/** What is to become surer, and how sure, ±, mm. */
export interface Aim {
  readonly of: 'points' | 'lengths';
  readonly plusMinus: number;
}

/** The readings that help most now towards the aim: every point, or every charted length. */
export function helpfulTargets(
  job: Job,
  judgement: RoundJudgement,
  hands: readonly InHand[],
  { of, plusMinus }: Aim,
  count: number,
): Target[] {
  const { solution } = judgement.net;
  if (!solution) return [];
  const candidates = candidatesInHand(job, judgement, hands);
  const known = new Map(candidates.map((candidate) => [candidate.reading.id, candidate]));
  const reachable = new Set(reachablePoints(job, judgement.round).map(({ id }) => id));
  const wanted: Wanted[] =
    of === 'points'
      ? solution.survey.points.flatMap(({ id }) => (reachable.has(id) ? [{ kind: 'point', point: id, plusMinus }] : []))
      : job.rows.dimensions.map(({ fromPointId, toPointId, measure }) => ({
          kind: 'pair',
          from: fromPointId,
          to: toPointId,
          measure: measure === 'level' ? 'plan' : 'distance',
          plusMinus,
        }));
  return proposeNext(
    solution,
    candidates.map(({ reading }) => reading),
    wanted,
    count,
  ).map(({ reading, before, after, checks }) => ({
    ...targetOf(job, known.get(reading.id)!, checks.length > 0 ? 'unchecked' : 'uncertain'),
    gain: { before, after },
  }));
}

/** The targets still to be taken: those not read often enough in this round yet. */
export function openTargets(
  job: Job,
  round: Round,
  targets: readonly Target[],
  skipped: ReadonlySet<string>,
): Target[] {
  const counts = new Map<string, number>();
  for (const reading of job.standingReadings(round)) {
    const codes = endsOf(reading).map((id) => job.code(id));
    if (isTargetQuantity(reading.quantity)) {
      const key = keyOf(reading.quantity, codes);
      counts.set(key, (counts.get(key) ?? 0) + 1);
    }
  }
  const left = targets.filter((target) => {
    const taken = counts.get(target.key) ?? 0;
    if (taken === 0) return true;
    counts.set(target.key, taken - 1);
    return false;
  });
  return [...left.filter(({ key }) => !skipped.has(key)), ...left.filter(({ key }) => skipped.has(key))];
}

const endsOf = ({ pointId, toPointId }: Reading): string[] => [pointId, toPointId].flatMap((id) => id ?? []);

/** As `Target.key`, by the points' identities. */
const readKey = (reading: Reading): string => `${reading.quantity} ${endsOf(reading).sort().join(' ')}`;

export const isTargetQuantity = (quantity: Reading['quantity']): quantity is TargetQuantity =>
  quantity === 'distance' || quantity === 'height' || quantity === 'width' || quantity === 'length';

const TYPED: Readonly<Record<Exclude<TargetQuantity, 'distance'>, string>> = { height: 'h', width: 'w', length: 'l' };

/** What is typed in front of a bare number so that it means this target: `F1L S2L `, `F1L h `. */
export const targetPrefix = ({ quantity, codes }: Pick<Target, 'quantity' | 'codes'>): string =>
  codes.length > 1 || quantity === 'distance' ? `${codes.join(' ')} ` : `${codes[0]} ${TYPED[quantity]} `;
