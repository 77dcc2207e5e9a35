import { deviationOf, type Deviation } from '../../maths/rigid/fit';
import { axisDeviations, deviationCovariances } from '../../maths/rigid/uncertainty';
import { AXES, place, type Axis, type Covariance, type Position, type Vector } from '../../maths/geometry/vector';
import type { Dimension, Point, Round } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import type { ChosenReferences } from '../../shell/references/chosen';
import { judge, worstVerdict, type Judgement, type Verdict } from '../../maths/statistics/verdict';
import { jointOf, predict } from '../../survey/prediction';
import { pointIndex } from '../../survey/survey';
import { uncertainPoint, type LocatedPoint, type RoundAlignment } from '../align/align-round';
import { distanceBetween, type MeasuredRound } from '../observe/measured';
import type { RoundNet } from '../net/net';

/** Why a point has no deviation: the least that is missing. */
export type Lacking = 'notMeasured' | 'notLocated' | 'noReference' | 'notAligned' | 'onSpit';

export interface PointJudgement {
  readonly point: Point;
  readonly control: boolean;
  /** The axes read so far. */
  readonly read: readonly Axis[];
  readonly lacking?: Lacking;
  /** What a point that is not located is short of. */
  readonly advice?: string;
  readonly judged?: {
    readonly deviation: Deviation;
    /** Of the deviation. */
    readonly covariance: Covariance<'chart'>;
    /** One standard deviation of each component, mm, chart axes. */
    readonly sd: Vector;
    readonly limit: number;
    readonly referenceId: string;
    readonly axes: Readonly<Record<Axis, Judgement>>;
    readonly worstAxis: Axis;
    readonly verdict: Verdict;
    readonly tooCoarse: boolean;
  };
}

export interface DimensionJudgement {
  readonly dimension: Dimension;
  readonly lacking?: 'notMeasured' | 'noReference' | 'onSpit';
  readonly measured?: MeasuredLength;
  readonly judged?: Judgement & {
    readonly reference: number;
    readonly deviation: number;
    readonly limit: number;
    readonly referenceId: string;
  };
}

export interface MeasuredLength {
  readonly value: number;
  readonly sd: number;
  /** From the whole net, or from readings of this length alone where the net does not hold it. */
  readonly from: 'net' | 'readings';
}

/** A round judged: plain data, so that it can be computed in one thread and read in another. */
export interface RoundJudgement {
  readonly round: Round;
  readonly measured: MeasuredRound;
  readonly net: RoundNet;
  readonly located: ReadonlyMap<string, LocatedPoint>;
  readonly references: ChosenReferences;
  readonly alignment: RoundAlignment;
  readonly points: readonly PointJudgement[];
  readonly dimensions: readonly DimensionJudgement[];
}

/** What the stages before it have made of a round. */
export type Aligned = Omit<RoundJudgement, 'points' | 'dimensions'>;

/** Judges every point and dimension of the job by an aligned round. */
export function judgeAligned(job: Job, aligned: Aligned, controlIds: readonly string[]): RoundJudgement {
  const points = judgePoints(job, aligned, new Set(controlIds));
  const dimensions = job.rows.dimensions.map((dimension) => judgeDimension(dimension, aligned));
  // A spit is for access, not for truth: the shell hangs otherwise than on what it will be judged on.
  if (job.supportOf(aligned.round).kind !== 'spit') return { ...aligned, points, dimensions };
  return { ...aligned, points: points.map(withoutVerdict), dimensions: dimensions.map(withoutVerdict) };
}

function withoutVerdict<T extends { readonly judged?: unknown }>({ judged, ...rest }: T): Omit<T, 'judged'> {
  return judged === undefined ? rest : { ...rest, lacking: 'onSpit' };
}

function judgePoints(job: Job, aligned: Aligned, control: ReadonlySet<string>): PointJudgement[] {
  const { measured, net, located, references, alignment } = aligned;
  const looseAdvice = new Map(net.loose.map(({ id, advice }) => [id, advice]));
  const paired = (id: string) => uncertainPoint(id, located, references);
  const covariances = covariancesOf(job, aligned);
  return job.rows.points.map((point) => {
    const measurement = measured.points.get(point.id) ?? {};
    const read = AXES.filter((axis) => measurement[axis]);
    const common = { point, control: control.has(point.id), read };
    const advice = looseAdvice.get(point.id);
    if (!located.has(point.id))
      return advice
        ? { ...common, lacking: 'notLocated', advice }
        : { ...common, lacking: read.length > 0 ? 'notLocated' : 'notMeasured' };
    const chosen = references.points.get(point.id);
    if (!chosen) return { ...common, lacking: 'noReference' };
    const covariance = covariances.get(point.id);
    if (!alignment.ok || !covariance) return { ...common, lacking: 'notAligned' };
    const deviation = deviationOf(alignment.motion, paired(point.id));
    return { ...common, judged: judgeAxes(deviation, covariance, chosen.row.tolerance, chosen.reference.id) };
  });
}

/** Covariance of every point's deviation, the alignment's own uncertainty in it. */
function covariancesOf(
  job: Job,
  { alignment, located, references, net: { solution } }: Aligned,
): ReadonlyMap<string, Covariance<'chart'>> {
  if (!alignment.ok || !solution) return new Map();
  const judgeable = job.rows.points.filter(({ id }) => located.has(id) && references.points.has(id));
  const joint = jointOf<'round'>(solution);
  return deviationCovariances(
    alignment.motion,
    alignment.controlIds.map((id) => uncertainPoint(id, located, references)),
    judgeable.map(({ id }) => uncertainPoint(id, located, references)),
    (a, b) => joint.block(a, b),
  );
}

/** The limit applies to each axis and the worst axis rules. */
function judgeAxes(
  deviation: Deviation,
  covariance: Covariance<'chart'>,
  limit: number,
  referenceId: string,
): PointJudgement['judged'] {
  const components = deviation.by;
  const sd = axisDeviations(covariance);
  const judgements = mapJudgements(components, sd, limit);
  const verdict = worstVerdict(judgements.map((each) => each.verdict));
  const reach = (i: number) =>
    (judgements[i]!.verdict === verdict ? 1e6 : 0) + Math.abs(components[i]!) + judgements[i]!.plusMinus;
  const worst = [0, 1, 2].reduce((best, i) => (reach(i) > reach(best) ? i : best), 0);
  return {
    deviation,
    covariance,
    sd,
    limit,
    referenceId,
    axes: { x: judgements[0]!, y: judgements[1]!, z: judgements[2]! },
    worstAxis: AXES[worst]!,
    verdict,
    tooCoarse: judgements.some((each) => each.tooCoarse),
  };
}

const mapJudgements = (components: Vector, sd: Vector, limit: number): Judgement[] =>
  components.map((component, i) => judge(component, sd[i]!, limit));

function judgeDimension(dimension: Dimension, aligned: Aligned): DimensionJudgement {
  const value = lengthBetween(aligned, dimension);
  if (!value) return { dimension, lacking: 'notMeasured' };
  const chosen = aligned.references.dimensions.get(dimension.id);
  if (!chosen) return { dimension, measured: value, lacking: 'noReference' };
  const deviation = value.value - chosen.row.value;
  const sd = Math.hypot(value.sd, chosen.sd);
  return {
    dimension,
    measured: value,
    judged: {
      ...judge(deviation, sd, chosen.row.tolerance),
      reference: chosen.row.value,
      deviation,
      limit: chosen.row.tolerance,
      referenceId: chosen.reference.id,
    },
  };
}

/**
 * The length between any two points, mm: what the whole net says of it, measured or not; what was read of it alone
 * where the net does not reach both ends.
 */
export function lengthBetween(
  { measured, net: { solution } }: Pick<Aligned, 'measured' | 'net'>,
  ends: Pick<Dimension, 'fromPointId' | 'toPointId' | 'measure'>,
): MeasuredLength | undefined {
  const { fromPointId: from, toPointId: to } = ends;
  const index = solution && pointIndex(solution.survey);
  if (solution && index!.has(from) && index!.has(to)) {
    const kind = ends.measure === 'level' ? 'plan' : 'distance';
    const { value, variance } = predict(solution, { id: '', kind, from, to, value: 1, sigma: 1 });
    return { value, sd: Math.sqrt(variance), from: 'net' };
  }
  const read = distanceBetween(measured, ends);
  return read && { value: read.value, sd: read.sd, from: 'readings' };
}

/** Where a located point stands in the chart's axes, once the round is aligned. */
export function placedPosition(
  { located, alignment }: Pick<Aligned, 'located' | 'alignment'>,
  pointId: string,
): Position<'chart'> | undefined {
  const point = located.get(pointId);
  return point && alignment.ok ? place(alignment.motion, point.position) : undefined;
}

/** The joint covariance of a judged round's points along the axes of its zero planes. */
export const roundJoint = ({ net: { solution } }: Pick<Aligned, 'net'>) => solution && jointOf<'round'>(solution);
