import { AXES } from '../maths/geometry/vector';
import { once, onceFor } from '../maths/once';
import { deviationGradient } from '../maths/rigid/uncertainty';
import { COVERAGE } from '../maths/statistics/verdict';
import { uncertainPoint } from '../round/align/align-round';
import type { RoundJudgement } from '../round/judge/judgement';
import { disturbedPoints } from '../round/observe/disturbed';
import { instrumentsInHand } from '../shell/instruments';
import { APART_FROM_ROUNDS } from '../shell/job/apart';
import type { Job } from '../shell/job/job';
import { proposeNext, wantedSd, type Wanted } from './propose';
import { candidatesInHand, targetOf, type Candidate, type Target } from './targets';

/** A point or a dimension of the job. */
export interface Subject {
  readonly kind: 'point' | 'dimension';
  readonly id: string;
}

/** What would decide an undecided figure. */
export interface Decision {
  /** The ± at which the figure is decided one way or the other, mm. */
  readonly needed: number;
  readonly now: number;
  /** Readings in the order of their use, each with the ± expected once it and those before it are taken. */
  readonly steps: readonly { readonly target: Target; readonly plusMinus: number }[];
  /** The further control point that would gain most, and the ± with it, where one gains anything worth having. */
  readonly control?: { readonly pointId: string; readonly plusMinus: number };
  /** Readings decide it; holding another point decides it; no instrument in hand can; no instrument at all can. */
  readonly outcome: 'readings' | 'control' | 'instrumentCannot' | 'referenceCannot';
}

/** More readings than this for one figure are not a proposal. */
const MOST_READINGS = 6;
/** A control point that brings the ± to more than this share of what it is gains nothing worth having. */
const WORTH_HOLDING = 0.9;

/**
 * What to measure or to hold so that an undecided point or dimension is decided, supposing its deviation stays what it
 * is: guard bands no wider than the distance to the limit. Every instrument in hand on this job is tried. A point's
 * deviation hangs on the control points as on itself, so that readings of these count too, and so does a further
 * control point. Where even six more readings do not get there, no instrument in hand can decide; where the reference's
 * own spread is too wide, no instrument can.
 *
 * @returns undefined where the subject is not undecided
 */
export function whatDecides(job: Job, judgement: RoundJudgement, subject: Subject): Decision | undefined {
  const hangsOn = job.without(APART_FROM_ROUNDS);
  return once(decisionsOf(judgement), `${subject.kind} ${subject.id}`, () => decideAnew(hangsOn, judgement, subject));
}

/** Several parts of a page ask about the same figure, and the next page too where nothing was read. */
const decisionsOf = onceFor((_: RoundJudgement) => new Map<string, Decision | undefined>());

function decideAnew(job: Job, judgement: RoundJudgement, subject: Subject): Decision | undefined {
  const figure = subject.kind === 'point' ? pointFigure(judgement, subject.id) : dimensionFigure(judgement, subject.id);
  const { solution } = judgement.net;
  if (!figure || !solution) return undefined;
  const { deviation, limit, now, reference, wanted, trust } = figure;
  const needed = Math.abs(Math.abs(deviation) - limit);
  if (COVERAGE * reference >= needed) return { needed, now, steps: [], outcome: 'referenceCannot' };
  const candidates = candidatesFor(job, judgement);
  const known = new Map(candidates.map((candidate) => [candidate.reading.id, candidate]));
  const readings = candidates.map(({ reading }) => reading);
  const steps = proposeNext(solution, readings, [wanted], MOST_READINGS, false).map(({ reading, after }) => ({
    target: targetOf(job, known.get(reading.id)!, 'uncertain'),
    plusMinus: Math.hypot(after, COVERAGE * Math.sqrt(trust)),
  }));
  const control = subject.kind === 'point' ? furtherControl(job, judgement, subject.id, now) : undefined;
  const enough = steps.findIndex(({ plusMinus }) => plusMinus <= needed);
  const held = control && control.plusMinus <= needed;
  return {
    needed,
    now,
    steps: enough < 0 ? steps : steps.slice(0, enough + 1),
    ...(control ? { control } : {}),
    outcome: enough >= 0 ? 'readings' : held ? 'control' : 'instrumentCannot',
  };
}

/** Every figure of a page asks for the same candidates. */
const CANDIDATES = new WeakMap<RoundJudgement, Candidate[]>();

const candidatesFor = (job: Job, judgement: RoundJudgement): Candidate[] =>
  once(CANDIDATES, judgement, () => candidatesInHand(job, judgement, instrumentsInHand(job)));

interface Figure {
  readonly deviation: number;
  readonly limit: number;
  /** ±, mm. */
  readonly now: number;
  /** One standard deviation of the subject's own reference, mm. */
  readonly reference: number;
  /** What measuring makes surer. */
  readonly wanted: Wanted;
  /** Variance that no measuring takes away, mm². */
  readonly trust: number;
}

function pointFigure(judgement: RoundJudgement, id: string): Figure | undefined {
  const { points, references, alignment, located } = judgement;
  const judged = points.find(({ point }) => point.id === id)?.judged;
  if (judged?.verdict !== 'undecided' || !alignment.ok) return undefined;
  const axis = AXES.indexOf(judged.worstAxis) as 0 | 1 | 2;
  const paired = (of: string) => uncertainPoint(of, located, references);
  const { terms, trust } = deviationGradient(alignment.motion, alignment.controlIds.map(paired), paired(id), axis);
  return {
    deviation: judged.deviation.by[axis],
    limit: judged.limit,
    now: judged.axes[judged.worstAxis].plusMinus,
    reference: references.points.get(id)!.sd,
    wanted: { kind: 'sum', terms },
    trust,
  };
}

function dimensionFigure({ dimensions, references }: RoundJudgement, id: string): Figure | undefined {
  const each = dimensions.find(({ dimension }) => dimension.id === id);
  if (each?.judged?.verdict !== 'undecided') return undefined;
  const { dimension, judged } = each;
  const reference = references.dimensions.get(id)!.sd;
  return {
    deviation: judged.deviation,
    limit: judged.limit,
    now: judged.plusMinus,
    reference,
    trust: reference ** 2,
    wanted: {
      kind: 'pair',
      from: dimension.fromPointId,
      to: dimension.toPointId,
      measure: dimension.measure === 'level' ? 'plan' : 'distance',
    },
  };
}

/** Of the sound points not held yet the one whose holding would make a point's worst axis surest. */
function furtherControl(job: Job, judgement: RoundJudgement, id: string, now: number): Decision['control'] {
  const { alignment, located, references, points, round } = judgement;
  const { solution } = judgement.net;
  const judged = points.find(({ point }) => point.id === id)?.judged;
  if (!alignment.ok || !solution || !judged) return undefined;
  const axis = AXES.indexOf(judged.worstAxis) as 0 | 1 | 2;
  const paired = (of: string) => uncertainPoint(of, located, references);
  const held = alignment.controlIds.map(paired);
  const disturbed = disturbedPoints(job, round);
  let best: Decision['control'];
  for (const { point, control, judged: own } of points) {
    if (control || point.id === id || own?.verdict !== 'inside' || disturbed.has(point.id)) continue;
    const { terms, trust } = deviationGradient(alignment.motion, [...held, paired(point.id)], paired(id), axis);
    const plusMinus = COVERAGE * Math.hypot(wantedSd(solution, { kind: 'sum', terms }) ?? Infinity, Math.sqrt(trust));
    if (plusMinus < WORTH_HOLDING * now && (!best || plusMinus < best.plusMinus))
      best = { pointId: point.id, plusMinus };
  }
  return best;
}
