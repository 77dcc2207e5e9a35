import { deviationOf, place, type Deviation } from '../../maths/rigid/fit';
import { axisDeviations, deviationCovariances } from '../../maths/rigid/uncertainty';
import { AXES, type Axis, type Position, type Vector } from '../../maths/geometry/vector';
import type { Dimension, Point, Round } from '../../shell/job/entities';
import type { JobRows } from '../../shell/job/job-rows';
import { chooseReferences, type ChosenReferences } from '../../shell/references/chosen';
import { judge, worstVerdict, type Judgement, type Verdict } from '../../maths/statistics/verdict';
import { predict } from '../../survey/prediction';
import { alignRound, uncertainPoint, type RoundAlignment } from '../align/align-round';
import { distanceBetween, measureRound, type LocatedPoint, type MeasuredRound } from '../observe/measured';
import { coordinatesOf, jointCovariance, solveRound, type RoundNet } from '../net/net';

/** Why a point has no deviation: the least that is missing. */
export type Lacking = 'notMeasured' | 'notLocated' | 'noReference' | 'notAligned';

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
    /** One standard deviation of each component, mm, chart axes. */
    readonly sd: Vector;
    readonly limit: number;
    readonly referenceId: string;
    readonly axes: Readonly<Record<Axis, Judgement>>;
    readonly worstAxis: Axis;
    readonly verdict: Verdict;
    readonly cannotDecide: boolean;
  };
}

export interface DimensionJudgement {
  readonly dimension: Dimension;
  readonly lacking?: 'notMeasured' | 'noReference';
  readonly measured?: {
    readonly value: number;
    readonly sd: number;
    /** From the whole net, or from readings of this length alone where the net does not hold it. */
    readonly from: 'net' | 'readings';
  };
  readonly judged?: Judgement & {
    readonly reference: number;
    readonly deviation: number;
    readonly limit: number;
    readonly referenceId: string;
  };
}

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

/**
 * Solves a round as one net, aligns it on its control points and judges every point and dimension of
 * the job by it.
 *
 * @param last coordinates of an earlier solution by point code, to start from
 */
export function judgeRound(rows: JobRows, round: Round, last?: ReadonlyMap<string, readonly number[]>): RoundJudgement {
  const known = JUDGED.get(rows) ?? new Map<string, RoundJudgement>();
  JUDGED.set(rows, known);
  const judgement = known.get(round.id) ?? judgeAnew(rows, round, last);
  known.set(round.id, judgement);
  return judgement;
}

/** Several parts of one page judge the same rows: each round is solved once for as long as the rows live. */
const JUDGED = new WeakMap<JobRows, Map<string, RoundJudgement>>();

function judgeAnew(
  rows: JobRows,
  round: Round,
  last: ReadonlyMap<string, readonly number[]> | undefined,
): RoundJudgement {
  const measured = measureRound(rows, round);
  const references = chooseReferences(rows);
  const net = solveRound(rows, round, references, last);
  const located = locatedPoints(rows, net);
  const controlIds = rows.roundControls
    .filter((control) => control.roundId === round.id)
    .map((control) => control.pointId);
  const alignment = alignRound(rows, round, controlIds, { located, references });
  return {
    round,
    measured,
    net,
    located,
    references,
    alignment,
    points: judgePoints(rows, { measured, net, located, references, alignment }, controlIds),
    dimensions: rows.dimensions.map((dimension) => judgeDimension(rows, dimension, { measured, net, references })),
  };
}

/** The points the net has determined, by their identities. */
function locatedPoints(rows: JobRows, { solution }: RoundNet): Map<string, LocatedPoint> {
  if (!solution) return new Map();
  const at = coordinatesOf(solution);
  const joint = jointCovariance(solution);
  return new Map(
    rows.points.flatMap(({ id: pointId, code }) => {
      const position = at.get(code);
      if (!position) return [];
      const own = joint(code, code);
      return [[pointId, { pointId, position, variance: [own[0]!, own[4]!, own[8]!] as Vector }]];
    }),
  );
}

type Basis = Pick<RoundJudgement, 'measured' | 'net' | 'located' | 'references' | 'alignment'>;

function judgePoints(rows: JobRows, basis: Basis, controlIds: readonly string[]): PointJudgement[] {
  const { measured, net, located, references, alignment } = basis;
  const looseAdvice = new Map(net.loose.map(({ id, advice }) => [id, advice]));
  const judgeable = rows.points.filter((point) => located.has(point.id) && references.points.has(point.id));
  const covariances = alignment.ok
    ? deviationCovariances(
        alignment.motion,
        alignment.controlIds.map((id) => uncertainPoint(id, basis)),
        judgeable.map((point) => uncertainPoint(point.id, basis)),
        jointById(rows, net),
      )
    : new Map<string, never>();
  return rows.points.map((point) => {
    const measurement = measured.points.get(point.id) ?? {};
    const read = AXES.filter((axis) => measurement[axis]);
    const common = { point, control: controlIds.includes(point.id), read };
    const advice = looseAdvice.get(point.code);
    if (!located.has(point.id))
      return advice
        ? { ...common, lacking: 'notLocated', advice }
        : { ...common, lacking: read.length > 0 ? 'notLocated' : 'notMeasured' };
    const chosen = references.points.get(point.id);
    if (!chosen) return { ...common, lacking: 'noReference' };
    const covariance = covariances.get(point.id);
    if (!alignment.ok || !covariance) return { ...common, lacking: 'notAligned' };
    const deviation = deviationOf(alignment.motion, uncertainPoint(point.id, basis));
    return {
      ...common,
      judged: judgeAxes(deviation, axisDeviations(covariance), chosen.row.tolerance, chosen.reference.id),
    };
  });
}

/** Joint covariances by the points' identities, 3×3 row major, mm². */
function jointById(rows: JobRows, { solution }: RoundNet): (a: string, b: string) => number[] {
  const codes = new Map(rows.points.map((point) => [point.id, point.code]));
  const joint = jointCovariance(solution!);
  return (a, b) => joint(codes.get(a)!, codes.get(b)!);
}

/** The limit applies to each axis and the worst axis rules. */
function judgeAxes(deviation: Deviation, sd: Vector, limit: number, referenceId: string): PointJudgement['judged'] {
  const components: Vector = [deviation.dx, deviation.dy, deviation.dz];
  const judgements = components.map((component, i) => judge(component, sd[i]!, limit));
  const verdict = worstVerdict(judgements.map((each) => each.verdict));
  const reach = (i: number) =>
    (judgements[i]!.verdict === verdict ? 1e6 : 0) + Math.abs(components[i]!) + judgements[i]!.plusMinus;
  const worst = [0, 1, 2].reduce((best, i) => (reach(i) > reach(best) ? i : best), 0);
  return {
    deviation,
    sd,
    limit,
    referenceId,
    axes: { x: judgements[0]!, y: judgements[1]!, z: judgements[2]! },
    worstAxis: AXES[worst]!,
    verdict,
    cannotDecide: judgements.some((each) => each.cannotDecide),
  };
}

function judgeDimension(
  rows: JobRows,
  dimension: Dimension,
  basis: Pick<Basis, 'measured' | 'net' | 'references'>,
): DimensionJudgement {
  const value = measuredLength(rows, dimension, basis);
  if (!value) return { dimension, lacking: 'notMeasured' };
  const chosen = basis.references.dimensions.get(dimension.id);
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

/** What the whole net says of a length; what was read of it alone where the net does not reach both ends. */
function measuredLength(
  rows: JobRows,
  dimension: Pick<Dimension, 'fromPointId' | 'toPointId' | 'measure'>,
  { measured, net: { solution } }: Pick<Basis, 'measured' | 'net'>,
): DimensionJudgement['measured'] {
  const [from, to] = [dimension.fromPointId, dimension.toPointId].map(
    (id) => rows.points.find((point) => point.id === id)!.code,
  ) as [string, string];
  const known = (code: string) => solution?.survey.points.some(({ id }) => id === code);
  if (solution && known(from) && known(to)) {
    const kind = dimension.measure === 'level' ? 'plan' : 'distance';
    const { value, variance } = predict(solution, { id: '', kind, from, to, value: 1, sigma: 1 });
    return { value, sd: Math.sqrt(variance), from: 'net' };
  }
  const read = distanceBetween(measured, dimension);
  return read && { value: read.value, sd: read.sd, from: 'readings' };
}

/** The length between any two points and its standard deviation, measured or not, mm. */
export const lengthBetween = (
  rows: JobRows,
  judgement: RoundJudgement,
  ends: Pick<Dimension, 'fromPointId' | 'toPointId' | 'measure'>,
): DimensionJudgement['measured'] => measuredLength(rows, ends, judgement);

/** Where a located point stands in the chart's axes, once the round is aligned. */
export function placedPosition(judgement: RoundJudgement, pointId: string): Position<'chart'> | undefined {
  const point = judgement.located.get(pointId);
  return point && judgement.alignment.ok ? place(judgement.alignment.motion, point.position) : undefined;
}
