import type { Vector } from '../maths/geometry/vector';
import type { Reading, Round } from '../shell/job/entities';
import type { JobRows } from '../shell/job/job-rows';
import type { ChosenReferences } from '../shell/references/chosen';
import { proposeNext, type Wanted } from './propose';
import { pointsOf, type SurveyReading } from '../survey/survey';
import { planWalk } from './walk';
import type { WalkStep } from './walk-step';
import { reachablePoints } from '../round/observe/conditions';
import type { RoundJudgement } from '../round/judge/judgement';
import { standingReadings } from '../round/observe/measured';
import { oppositeCodes } from '../round/net/net';

/** One reading wanted, in the order it is to be taken. */
export interface Target {
  /** `distance F1L S2L`, ends in alphabetical order: two targets with one key want the same. */
  readonly key: string;
  readonly quantity: 'distance' | 'height';
  readonly measure?: 'tip' | 'level';
  /** Point codes, one or two. */
  readonly codes: readonly string[];
  readonly why: WalkStep['why'] | 'charted' | 'uncertain' | 'unchecked';
  readonly section?: WalkStep['section'];
  /** A second reading of something already read. */
  readonly again: boolean;
  /** Worst ± wanted before and after it, mm. */
  readonly gain?: { readonly before: number; readonly after: number };
}

/** Spread of the instruments that take distances and heights, one standard deviation, mm. */
export interface Hands {
  readonly distance: (length: number) => number;
  readonly height: number;
}

const LONGEST = 4800;

const keyOf = (quantity: Target['quantity'], codes: readonly string[]): string =>
  `${quantity} ${[...codes].sort().join(' ')}`;

/** The walk over every reachable point that a reference gives a place. */
export function walkTargets(rows: JobRows, round: Round, references: ChosenReferences, hands: Hands): Target[] {
  const opposite = oppositeCodes(rows.points);
  const places = reachablePoints(rows, round).flatMap((point) => {
    const row = references.points.get(point.id)?.row ?? references.points.get(point.substituteForId ?? '')?.row;
    if (!row) return [];
    const aside = point.substituteForId ? 20 : 0;
    const position: Vector = [row.x + aside, row.y + aside / 2, row.z];
    return [{ id: point.code, side: point.side, position, opposite: opposite.get(point.code) }];
  });
  return planWalk(places, { ...hands, longest: LONGEST }).map(({ section, why, reading }) => ({
    ...targetOf(reading),
    section,
    why,
    again: why === 'again',
  }));
}

function targetOf(reading: SurveyReading): Pick<Target, 'key' | 'quantity' | 'measure' | 'codes'> {
  if (reading.kind === 'distance' || reading.kind === 'plan') {
    const codes = [reading.from, reading.to];
    return { key: keyOf('distance', codes), quantity: 'distance', measure: 'tip', codes };
  }
  const codes = [pointsOf(reading).at(-1)!];
  return { key: keyOf('height', codes), quantity: 'height', codes };
}

/** Every charted length whose ends can be reached, then the heights of their points. */
export function chartedTargets(rows: JobRows, round: Round): Target[] {
  const reachable = new Map(reachablePoints(rows, round).map(({ id, code }) => [id, code]));
  const lengths = rows.dimensions.flatMap(({ fromPointId, toPointId, measure }): Target[] => {
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

/** What is to become surer, and how sure, ±, mm. */
export interface Aim {
  readonly of: 'points' | 'lengths';
  readonly plusMinus: number;
}

/** The readings that help most now towards the aim: every point, or every charted length. */
export function helpfulTargets(
  rows: JobRows,
  judgement: RoundJudgement,
  hands: Hands,
  aim: Aim,
  count: number,
): Target[] {
  const { solution } = judgement.net;
  if (!solution) return [];
  const codeOf = new Map(rows.points.map(({ id, code }) => [id, code]));
  const { plusMinus } = aim;
  const wanted: Wanted[] =
    aim.of === 'points'
      ? reachableCodes(rows, judgement).map((point) => ({ kind: 'point', point, plusMinus }))
      : rows.dimensions.map(({ fromPointId, toPointId, measure }) => ({
          kind: 'pair',
          from: codeOf.get(fromPointId)!,
          to: codeOf.get(toPointId)!,
          measure: measure === 'level' ? 'plan' : 'distance',
          plusMinus,
        }));
  return targetsTowards(rows, judgement, hands, wanted, count);
}

/** Points of the solution that can be read now. */
function reachableCodes(rows: JobRows, { net: { solution }, round }: RoundJudgement): string[] {
  const reachable = new Set(reachablePoints(rows, round).map(({ code }) => code));
  return (solution?.survey.points ?? []).map(({ id }) => id).filter((code) => reachable.has(code));
}

/** The readings that bring down most what is wanted. */
export function targetsTowards(
  rows: JobRows,
  judgement: RoundJudgement,
  hands: Hands,
  wanted: readonly Wanted[],
  count: number,
): Target[] {
  const { solution } = judgement.net;
  if (!solution) return [];
  const codes = reachableCodes(rows, judgement);
  const index = new Map(solution.survey.points.map(({ id }, i) => [id, i]));
  const apart = (a: string, b: string) =>
    Math.hypot(...[0, 1, 2].map((k) => solution.x[3 * index.get(a)! + k]! - solution.x[3 * index.get(b)! + k]!));
  const candidates = codes.flatMap((from, i): SurveyReading[] => [
    { id: `h ${from}`, kind: 'height', point: from, value: 0, sigma: hands.height },
    ...codes.slice(i + 1).flatMap((to): SurveyReading[] => {
      const length = apart(from, to);
      return length > 80 && length < LONGEST
        ? [{ id: `${from} ${to}`, kind: 'distance', from, to, value: length, sigma: hands.distance(length) }]
        : [];
    }),
  ]);
  return proposeNext(solution, candidates, wanted, count).map(({ reading, before, after, checks }) => ({
    ...targetOf(reading),
    why: checks.length > 0 ? 'unchecked' : 'uncertain',
    again: false,
    gain: { before, after },
  }));
}

/** The targets still to be taken: those not read often enough in this round yet. */
export function openTargets(
  rows: JobRows,
  round: Round,
  targets: readonly Target[],
  skipped: ReadonlySet<string>,
): Target[] {
  const codeOf = new Map(rows.points.map(({ id, code }) => [id, code]));
  const counts = new Map<string, number>();
  for (const reading of standingReadings(rows, round)) {
    const key = readKey(reading, codeOf);
    if (key) counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  const left = targets.filter((target) => {
    const taken = counts.get(target.key) ?? 0;
    if (taken === 0) return true;
    counts.set(target.key, taken - 1);
    return false;
  });
  return [...left.filter(({ key }) => !skipped.has(key)), ...left.filter(({ key }) => skipped.has(key))];
}

function readKey(reading: Reading, codeOf: ReadonlyMap<string, string>): string | undefined {
  const codes = [reading.pointId, reading.toPointId].flatMap((id) => (id ? [codeOf.get(id)!] : []));
  if (reading.quantity === 'distance') return keyOf('distance', codes);
  return reading.quantity === 'height' ? keyOf('height', codes) : undefined;
}

/** What is typed in front of a bare number so that it means this target: `F1L S2L `, `F1L h `. */
export const targetPrefix = ({ quantity, codes }: Pick<Target, 'quantity' | 'codes'>): string =>
  quantity === 'height' ? `${codes[0]} h ` : `${codes.join(' ')} `;
