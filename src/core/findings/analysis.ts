import type { Motion } from '../maths/geometry/vector';
import { noiseOf } from '../maths/random/seeded';
import { deviationOf, fitSelected, rootMeanSquare, type Deviation } from '../maths/rigid/fit';
import { findUndisturbed, type SearchedPoint, type UndisturbedResult } from '../maths/search/undisturbed';
import { roundJoint, type RoundJudgement } from '../round/judge/judgement';
import type { Job } from '../shell/job/job';
import { referencePosition } from '../shell/references/chosen';
import { DamageSearch, type DamagePattern } from './pattern/pattern';
import type { DeviatedPoint } from './pattern/shown';

/** How far undisturbed points may be off: one distance for all, mm, or so many of each point's own deviations. */
export type Agree = { readonly mm: number } | { readonly spreads: number };

/** Usual: a point whose deviation is within three and a half times what its readings and its reference explain. */
export const OWN_SPREADS = { spreads: 3.5 } as const satisfies Agree;

/** One choice of control points and what it would do to the deviations. */
export interface ControlChoice {
  readonly name: 'held' | 'undisturbed' | 'rival' | 'all';
  readonly pointIds: readonly string[];
  readonly result:
    | { readonly ok: true; readonly rms: number; readonly deviations: ReadonlyMap<string, Deviation> }
    | { readonly ok: false; readonly reason: string };
}

/** What a judged round says beyond its single figures. */
export interface RoundAnalysis {
  readonly undisturbed: UndisturbedResult;
  readonly choices: readonly ControlChoice[];
  readonly pattern?: DamagePattern;
  /** The pattern is measured against the undisturbed points, since nothing is held. */
  readonly againstUndisturbed: boolean;
}

/** A spread below this is not to be believed, mm. */
const SMALLEST_SPREAD = 0.5;
/** The same for every shell. */
const CHANCE = noiseOf(20_260_117);

/**
 * Looks for the undisturbed points, lays the choices of control points side by side and resolves the damage. The two say
 * the same: a pattern that points of the undisturbed set contradict is none, and one that is borne out takes the points
 * it carries along out of the set.
 */
export function analyseRound(job: Job, judgement: RoundJudgement, agree: Agree): RoundAnalysis {
  const pairs = pairedPoints(job, judgement, agree);
  const found = findUndisturbed(pairs, 'mm' in agree ? agree.mm : 1);
  const first = patternAgainst(job, judgement, pairs, found);
  const undisturbed = first ? without(found, first.pattern.carried, pairs) : found;
  const last = undisturbed === found ? first : patternAgainst(job, judgement, pairs, undisturbed, first);
  return {
    undisturbed,
    choices: controlChoices(pairs, judgement, undisturbed),
    ...(last ? { pattern: last.pattern } : {}),
    againstUndisturbed: !judgement.alignment.ok,
  };
}

/** The pairs with their deviations after a motion, and the search for a pattern in them. */
interface Searched {
  readonly motion: Motion<'round', 'chart'>;
  readonly points: readonly DeviatedPoint[];
  readonly search: DamageSearch;
}

/**
 * The pattern against the points that are held, or, where none are, against the undisturbed ones.
 *
 * @param before the one against other undisturbed points: its search serves on where the round is aligned as it was
 */
function patternAgainst(
  job: Job,
  judgement: RoundJudgement,
  pairs: readonly SearchedPoint[],
  undisturbed: UndisturbedResult,
  before?: Searched,
): (Searched & { readonly pattern: DamagePattern }) | undefined {
  const { alignment } = judgement;
  const used = undisturbed.ok ? undisturbed.used : [];
  const held = alignment.ok ? alignment.controlIds : used;
  const motion = alignment.ok ? alignment.motion : undisturbed.ok ? undisturbed.motion : undefined;
  if (!motion) return undefined;
  const known = before?.motion === motion ? before : searched(job, judgement, pairs, motion, new Set(held));
  const stood = new Set([...held, ...used]);
  const within = pairs.flatMap(({ id, agree }, i) =>
    stood.has(id) ? [[id, agree ?? OWN_SPREADS.spreads * Math.max(known.points[i]!.sd, SMALLEST_SPREAD)] as const] : [],
  );
  return { ...known, pattern: known.search.given(new Map(within)) };
}

/** The undisturbed set without points that a pattern carries along; as it was where that would leave too few. */
function without(
  undisturbed: UndisturbedResult,
  carried: readonly string[],
  pairs: readonly SearchedPoint[],
): UndisturbedResult {
  if (!undisturbed.ok || !undisturbed.used.some((id) => carried.includes(id))) return undisturbed;
  const used = undisturbed.used.filter((id) => !carried.includes(id));
  const fit = fitSelected(
    pairs.filter(({ id }) => used.includes(id)).map((pair) => ({ ...pair, sigma: pair.agree ?? 1 })),
  );
  if (!fit.ok) return undisturbed;
  const moved = pairs.map(({ id }) => id).filter((id) => !used.includes(id));
  return { ...undisturbed, motion: fit.motion, used, moved };
}

/** Located points with a reference, each with how far it may be off. */
function pairedPoints(job: Job, { located, references }: RoundJudgement, agree: Agree): SearchedPoint[] {
  return job.rows.points.flatMap(({ id }): SearchedPoint[] => {
    const reference = referencePosition(references, id);
    const point = located.get(id);
    if (!reference || !point) return [];
    const pair = { id, reference, measured: point.position };
    if ('mm' in agree) return [pair];
    const own = point.covariance;
    const spread = Math.sqrt((own[0]! + own[4]! + own[8]!) / 3 + references.points.get(id)!.sd ** 2);
    return [{ ...pair, agree: agree.spreads * Math.max(spread, SMALLEST_SPREAD) }];
  });
}

function controlChoices(
  pairs: readonly SearchedPoint[],
  { alignment }: RoundJudgement,
  undisturbed: UndisturbedResult,
): ControlChoice[] {
  const sets: readonly [ControlChoice['name'], readonly string[]][] = [
    ['held', alignment.ok ? alignment.controlIds : []],
    ['undisturbed', undisturbed.ok ? undisturbed.used : []],
    ['rival', undisturbed.ok ? undisturbed.rival : []],
    ['all', pairs.map(({ id }) => id)],
  ];
  return sets
    .filter(([, ids]) => ids.length >= 3)
    .map(([name, pointIds]): ControlChoice => {
      const fit = fitSelected(
        pairs.filter(({ id }) => pointIds.includes(id)).map((pair) => ({ ...pair, sigma: pair.agree ?? 1 })),
      );
      if (!fit.ok) return { name, pointIds, result: fit };
      const deviations = new Map(pairs.map((pair) => [pair.id, deviationOf(fit.motion, pair)]));
      return {
        name,
        pointIds,
        result: { ok: true, deviations, rms: rootMeanSquare(pointIds.flatMap((id) => deviations.get(id) ?? [])) },
      };
    });
}

function searched(
  job: Job,
  judgement: RoundJudgement,
  pairs: readonly SearchedPoint[],
  motion: Motion<'round', 'chart'>,
  held: ReadonlySet<string>,
): Searched {
  const { references } = judgement;
  const trust = pairs.map(({ id }) => references.points.get(id)!.sd ** 2);
  const covariance = roundJoint(judgement)!
    .turned(motion)
    .matrix(pairs.map(({ id }) => id))
    .addDiagonal((i) => trust[Math.floor(i / 3)]!);
  const points = pairs.map((pair, i): DeviatedPoint => {
    const variance = [0, 1, 2].reduce((sum, k) => sum + covariance.get(3 * i + k, 3 * i + k) / 3, 0);
    return {
      id: pair.id,
      at: pair.reference,
      side: job.point(pair.id).side,
      deviation: deviationOf(motion, pair).by,
      sd: Math.sqrt(variance),
    };
  });
  return { motion, points, search: new DamageSearch(points, covariance, held, CHANCE) };
}
