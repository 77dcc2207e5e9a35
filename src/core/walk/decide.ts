import type { InstrumentVersion, Round } from '../shell/job/entities';
import type { JobRows } from '../shell/job/job-rows';
import type { Wanted } from './propose';
import { COVERAGE } from '../maths/statistics/verdict';
import type { RoundJudgement } from '../round/judge/judgement';
import { standingReadings } from '../round/observe/measured';
import { targetsTowards, type Hands, type Target } from './targets';

/** What would decide an undecided figure. */
export interface Decision {
  /** The ± at which the figure is decided one way or the other, mm. */
  readonly needed: number;
  readonly now: number;
  /** Readings in the order of their use, each with the ± expected once it and those before it are taken. */
  readonly steps: readonly { readonly target: Target; readonly plusMinus: number }[];
  readonly outcome: 'readings' | 'instrumentCannot' | 'referenceCannot';
}

/** More readings than this for one figure are not a proposal. */
const MOST_READINGS = 6;

/**
 * What to measure so that an undecided point or dimension is decided, supposing its deviation stays what it
 * is: guard bands no wider than the distance to the limit. Where even six more readings with the instrument
 * in hand do not get there, the instrument cannot decide; where the reference's own spread is too wide, no
 * instrument can.
 *
 * @returns undefined where the subject is not undecided
 */
export function whatDecides(
  rows: JobRows,
  judgement: RoundJudgement,
  hands: Hands,
  subject: { readonly kind: 'point' | 'dimension'; readonly id: string },
): Decision | undefined {
  const figure =
    subject.kind === 'point' ? pointFigure(judgement, subject.id) : dimensionFigure(rows, judgement, subject.id);
  if (!figure) return undefined;
  const { deviation, limit, now, reference, wanted } = figure;
  const needed = Math.abs(Math.abs(deviation) - limit);
  if (COVERAGE * reference >= needed) return { needed, now, steps: [], outcome: 'referenceCannot' };
  const targets = targetsTowards(rows, judgement, hands, [wanted], MOST_READINGS);
  // Measuring shrinks by the share the net says; what the reference leaves uncertain stays.
  const measured = Math.sqrt(Math.max(0, now ** 2 - (COVERAGE * reference) ** 2));
  const steps = targets.map((target) => ({
    target,
    plusMinus: Math.hypot((measured * target.gain!.after) / (targets[0]!.gain!.before || 1), COVERAGE * reference),
  }));
  const enough = steps.findIndex(({ plusMinus }) => plusMinus <= needed);
  return enough < 0
    ? { needed, now, steps, outcome: 'instrumentCannot' }
    : { needed, now, steps: steps.slice(0, enough + 1), outcome: 'readings' };
}

interface Figure {
  readonly deviation: number;
  readonly limit: number;
  readonly now: number;
  /** One standard deviation of the reference, mm. */
  readonly reference: number;
  readonly wanted: Wanted;
}

function pointFigure({ points, references }: RoundJudgement, id: string): Figure | undefined {
  const each = points.find(({ point }) => point.id === id);
  if (each?.judged?.verdict !== 'undecided') return undefined;
  const { judged, point } = each;
  const deviation = { x: judged.deviation.dx, y: judged.deviation.dy, z: judged.deviation.dz }[judged.worstAxis];
  return {
    deviation,
    limit: judged.limit,
    now: judged.axes[judged.worstAxis].plusMinus,
    reference: references.points.get(id)!.sd,
    wanted: { kind: 'point', point: point.code },
  };
}

function dimensionFigure(rows: JobRows, { dimensions, references }: RoundJudgement, id: string): Figure | undefined {
  const each = dimensions.find(({ dimension }) => dimension.id === id);
  if (each?.judged?.verdict !== 'undecided') return undefined;
  const { dimension, judged } = each;
  const code = (pointId: string) => rows.points.find((point) => point.id === pointId)!.code;
  return {
    deviation: judged.deviation,
    limit: judged.limit,
    now: judged.plusMinus,
    reference: references.dimensions.get(id)!.sd,
    wanted: {
      kind: 'pair',
      from: code(dimension.fromPointId),
      to: code(dimension.toPointId),
      measure: dimension.measure === 'level' ? 'plan' : 'distance',
    },
  };
}

/** The instruments this round has been read with: the surest for lengths and for heights. */
export function handsUsed(rows: JobRows, round: Round): Hands {
  const versions = new Map(rows.instrumentVersions.map((version) => [version.id, version]));
  const used = (quantities: readonly string[]) =>
    standingReadings(rows, round)
      .filter(({ quantity }) => quantities.includes(quantity))
      .map((reading) => versions.get(reading.instrumentVersionId)!);
  const surest = (some: readonly InstrumentVersion[]) =>
    some.reduce<InstrumentVersion>(
      (best, each) => (spreadAt(each) < spreadAt(best) ? each : best),
      some[0] ?? versions.get(round.instrumentVersionId)!,
    );
  const [lengths, heights] = [surest(used(['distance'])), surest(used(['height']))];
  return {
    distance: (length) => lengths.sdConstant + (lengths.sdPerMetre * length) / 1000,
    height: heights.sdConstant,
  };
}

/** Spread at a metre and a half, a usual length, mm. */
const spreadAt = ({ sdConstant, sdPerMetre }: InstrumentVersion): number => sdConstant + 1.5 * sdPerMetre;
