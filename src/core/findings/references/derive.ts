import { fitSelected } from '../../maths/rigid/fit';
import { findUndisturbed } from '../../maths/search/undisturbed';
import {
  add,
  distance,
  levelDistance,
  mapAxes,
  motion,
  position,
  type Frame,
  type Position,
  type Vector,
} from '../../maths/geometry/vector';
import type { Dimension, Round } from '../../shell/job/entities';
import { Job } from '../../shell/job/job';
import type { RoundJudgement } from '../../round/judge/judgement';
import { judgeRound } from '../../round/judge/judge-round';
import {
  centrePoints,
  inItsAxes,
  meanSd,
  mirrorPairs,
  placeRound,
  type PlacedIn,
  type PlacedRound,
} from '../../round/judge/placed';
import { carried } from '../../maths/symmetry/vehicle-axes';
import { fitCentrePlane, mirrored, planeSd, SIDES_DIFFER } from '../../maths/symmetry/centre-plane';
import { positionOf } from '../../shell/references/chosen';
import { measuredGaps, mirroredGaps, sisterGaps, type GapFigure } from './gap-figures';
import { sisterMean, sisterSpread, type SisterFigure } from './sister-cars';

/** What a new reference will say, before it has identities: millimetres, chart axes. */
export interface ReferenceDraft {
  readonly points: readonly { readonly pointId: string; readonly at: Vector; readonly sd: number }[];
  readonly dimensions: readonly { readonly dimensionId: string; readonly value: number; readonly sd: number }[];
  readonly stations: readonly GapFigure[];
  /** One standard deviation of the whole, mm. */
  readonly trust: number;
  /** How it was computed, in plain words. */
  readonly how: string;
}

export type DraftResult =
  { readonly ok: true; readonly draft: ReferenceDraft } | { readonly ok: false; readonly reason: string };

/** The job a round is judged in when a reference is made of it: with no reference that could have come from it. */
export const byChartAlone = ({ rows }: Job): Job =>
  Job.of({
    ...rows,
    references: rows.references.filter(({ kind }) => kind === 'chart' || kind === 'keptPart'),
    referenceChoices: [],
  });

/** This shell as an earlier round found it. */
export function fromEarlierRound(job: Job, round: Round): DraftResult {
  const alone = byChartAlone(job);
  const judgement = judgeRound(alone, round);
  const result = placeRound(alone, judgement);
  const gaps = measuredGaps(judgement);
  // Gaps need no place: a caliper alone before it is taken apart is a reference.
  if (!result.ok && gaps.length === 0) return result;
  const points = result.ok ? inItsAxes(result.placed, pointsOf) : [];
  const how = `round ${round.number}, ${round.name}, as it was measured`;
  return draft(points, measuredLengths(judgement), how, gaps);
}

const pointsOf = <F extends Frame>(placed: PlacedIn<F>): ReferenceDraft['points'] =>
  [...placed.positions].map(([pointId, at]) => ({ pointId, at, sd: meanSd(placed, pointId) }));

/**
 * The good side as it was measured and its mirror image on the other; centre points brought onto the plane.
 * The spread is that of measuring, of the plane (twice, since a mirror image moves by twice its plane) and
 * of how far production let the sides differ.
 */
export function fromMirror(job: Job, round: Round, good: 'left' | 'right'): DraftResult {
  const alone = byChartAlone(job);
  const judgement = judgeRound(alone, round);
  const gaps = mirroredGaps(job, judgement, good);
  const result = placeRound(alone, judgement);
  const how = `the ${good} side of round ${round.number} and its mirror image; damage that is the same on both sides does not show`;
  if (!result.ok) return gaps.length > 0 ? draft([], [], how, gaps) : result;
  const pairs = mirrorPairs(job);
  if (pairs.length === 0)
    return {
      ok: false,
      reason: 'no pair of points is meant to match left to right: give points of both sides codes that end in L and R',
    };
  const points = inItsAxes(result.placed, (placed) => mirrorImage(placed, pairs, centrePoints(job), good));
  if (!points.ok) return points;
  return draft(points.points, lengthsOf(job, points.points), how, gaps);
}

function mirrorImage<F extends Frame>(
  placed: PlacedIn<F>,
  pairs: ReturnType<typeof mirrorPairs>,
  centre: readonly string[],
  good: 'left' | 'right',
): { readonly ok: true; readonly points: ReferenceDraft['points'] } | { readonly ok: false; readonly reason: string } {
  const fit = fitCentrePlane({ ...placed, pairs, centre });
  if (!fit.ok) return fit;
  const { plane } = fit;
  const sides = pairs.flatMap(({ left, right }) => {
    const [from, to] = good === 'left' ? [left, right] : [right, left];
    const at = placed.positions.get(from);
    if (!at) return [];
    const sd = meanSd(placed, from);
    return [
      { pointId: from, at, sd },
      { pointId: to, at: mirrored(plane, at), sd: Math.hypot(sd, 2 * planeSd(plane, at), SIDES_DIFFER) },
    ];
  });
  const middle = centre.flatMap((pointId) => {
    const at = placed.positions.get(pointId);
    if (!at) return [];
    const image = mirrored(plane, at);
    const on = mapAxes((axis) => (at[axis] + image[axis]) / 2);
    return [{ pointId, at: on, sd: Math.hypot(meanSd(placed, pointId), planeSd(plane, at)) }];
  });
  return { ok: true, points: [...sides, ...middle] };
}

/**
 * Sister cars: each round placed in this shell's axes through the chosen points, then the mean of the cars
 * and the spread production let them have.
 *
 * @param through points that carry one car onto the other where there is no chart; empty lets the search
 *   for the largest agreeing set choose
 */
export function fromSisterCars(job: Job, rounds: readonly Round[], through: ReadonlySet<string>): DraftResult {
  const first = rounds[0];
  if (!first) return { ok: false, reason: 'no round of a sister car is chosen: open one, or bring one in from a file' };
  const alone = byChartAlone(job);
  const judged = rounds.map((round) => judgeRound(alone, round));
  const cars: PlacedRound[] = [];
  for (const judgement of judged) {
    const result = placeRound(alone, judgement);
    if (!result.ok) return result;
    const { placed } = result;
    const [base] = cars;
    const onFirst = placed.axes === 'vehicle' && base?.axes === 'vehicle' ? broughtOnto(base, placed, through) : placed;
    if (!onFirst)
      return {
        ok: false,
        reason: `round ${judgement.round.number} has too few points in common with round ${first.number} to be brought onto it: choose three that both have`,
      };
    cars.push(onFirst);
  }
  const ids = [...new Set(cars.flatMap(({ positions }) => [...positions.keys()]))];
  const figures = ids.map((id) =>
    [0, 1, 2].map((axis): SisterFigure => ({
      values: cars.flatMap((car) => {
        const at = car.positions.get(id);
        return at ? [{ value: at[axis]!, sd: Math.sqrt(Math.max(0, car.joint.block(id)[4 * axis]!)) }] : [];
      }),
    })),
  );
  const spread = sisterSpread(figures.flat());
  const points = ids.map((pointId, i) => {
    const means = figures[i]!.map((figure) => sisterMean(figure, spread));
    return {
      pointId,
      at: mapAxes((axis) => means[axis]!.value),
      sd: Math.sqrt(means.reduce((sum, { sd }) => sum + sd ** 2 / 3, 0)),
    };
  });
  const lengths = job.rows.dimensions.flatMap((dimension) => {
    const values = judged.flatMap(({ dimensions }) => {
      const measured = dimensions.find((each) => each.dimension.id === dimension.id)?.measured;
      return measured ? [{ value: measured.value, sd: measured.sd }] : [];
    });
    return values.length > 0 ? [{ dimensionId: dimension.id, ...sisterMean({ values }, spread) }] : [];
  });
  const count = cars.length === 1 ? 'one sister car' : `the mean of ${cars.length} sister cars`;
  return draft(
    points,
    lengths,
    `${count}; production taken to scatter by ${spread.production.toFixed(1)} mm (one standard deviation)`,
    sisterGaps(judged),
  );
}

/** Another car without a chart in the axes of the first, through points both have. */
function broughtOnto(
  first: PlacedIn<'vehicle'>,
  car: PlacedIn<'vehicle'>,
  through: ReadonlySet<string>,
): PlacedIn<'vehicle'> | undefined {
  const common = [...car.positions.keys()].filter((id) => first.positions.has(id));
  const pairs = common.map((id) => ({
    id,
    measured: position<'theirs'>(car.positions.get(id)!),
    reference: first.positions.get(id)!,
  }));
  const chosen = pairs.filter(({ id }) => through.has(id));
  const search = findUndisturbed(pairs, 5);
  const fit = fitSelected(
    (chosen.length >= 3 ? chosen : search.ok ? pairs.filter(({ id }) => search.used.includes(id)) : pairs).map(
      (pair) => ({ ...pair, sigma: 1 }),
    ),
  );
  if (!fit.ok) return undefined;
  const onto = motion<'vehicle', 'vehicle'>(fit.motion.rotation, fit.motion.translation);
  return { axes: 'vehicle', positions: carried(onto, car.positions), joint: car.joint.turned(onto) };
}

/** An offset from what is judged by now, agreed with the owner: a widened arch, a mounting moved. */
export function fromPlannedChange(job: Job, pointIds: readonly string[], offset: Vector): DraftResult {
  const { points, dimensions } = job.references;
  const covered = pointIds.filter((id) => points.has(id));
  if (covered.length === 0) return { ok: false, reason: 'none of the chosen points has a reference to be offset from' };
  const before = new Map([...points].map(([id, { row }]) => [id, positionOf(row)]));
  const after = new Map(
    [...before].map(([id, at]) => [id, covered.includes(id) ? position<'chart'>(add(at, offset)) : at]),
  );
  const lengths = job.rows.dimensions.flatMap((dimension) => {
    const chosen = dimensions.get(dimension.id);
    const [was, is] = [between(dimension, before), between(dimension, after)];
    const changed = chosen && was !== undefined && is !== undefined && Math.abs(is - was) > 0.005;
    return changed ? [{ dimensionId: dimension.id, value: chosen.row.value + is - was, sd: chosen.sd }] : [];
  });
  const moved = covered.map((pointId) => ({ pointId, at: after.get(pointId)!, sd: points.get(pointId)!.sd }));
  return draft(
    moved,
    lengths,
    `${offset.map((value) => (value < 0 ? '−' : '+') + Math.abs(value).toFixed(1)).join(' / ')} mm from what was judged by before`,
  );
}

export function draft(
  points: ReferenceDraft['points'],
  dimensions: ReferenceDraft['dimensions'],
  how: string,
  stations: ReferenceDraft['stations'] = [],
): DraftResult {
  const sds = [...points, ...dimensions, ...stations].map(({ sd }) => sd);
  const trust = Math.sqrt(sds.reduce((sum, sd) => sum + sd ** 2, 0) / Math.max(1, sds.length));
  return { ok: true, draft: { points, dimensions, stations, trust, how } };
}

const measuredLengths = ({ dimensions }: RoundJudgement): ReferenceDraft['dimensions'] =>
  dimensions.flatMap(({ dimension, measured }) =>
    measured ? [{ dimensionId: dimension.id, value: measured.value, sd: measured.sd }] : [],
  );

const between = <F extends Frame>(
  dimension: Pick<Dimension, 'fromPointId' | 'toPointId' | 'measure'>,
  at: ReadonlyMap<string, Position<F>>,
): number | undefined => {
  const [from, to] = [at.get(dimension.fromPointId), at.get(dimension.toPointId)];
  return from && to ? (dimension.measure === 'level' ? levelDistance : distance)(from, to) : undefined;
};

/** The job's lengths as positions give them, each as sure as its two ends. */
export function lengthsOf(job: Job, points: ReferenceDraft['points']): ReferenceDraft['dimensions'] {
  const at = new Map(points.map((point) => [point.pointId, position<'chart'>(point.at)]));
  const sd = new Map(points.map((point) => [point.pointId, point.sd]));
  return job.rows.dimensions.flatMap((dimension) => {
    const value = between(dimension, at);
    const ends = [sd.get(dimension.fromPointId), sd.get(dimension.toPointId)];
    return value === undefined ? [] : [{ dimensionId: dimension.id, value, sd: Math.hypot(ends[0]!, ends[1]!) }];
  });
}
