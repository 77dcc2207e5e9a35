import {
  add,
  centroid,
  mapAxes,
  place,
  position,
  scale,
  type Position,
  type Vector,
} from '../../maths/geometry/vector';
import { fitSelected } from '../../maths/rigid/fit';
import { checkedParts } from '../../shell/gauges';
import type { Reading, Round } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { placementOf } from '../../shell/set-up';
import { referencePosition } from '../../shell/references/chosen';
import type { PositionReading, SurveyPoint } from '../../survey/survey';

/** All heads of a round stand on one bench. */
export const BENCH_BODY = 'bench';

/** The place a gauge says its point is at, if it enters: in axes of the body at its start. */
type GaugeReading = PositionReading & { readonly body: NonNullable<PositionReading['body']> };

const TOWARD: Readonly<Record<NonNullable<Reading['toward']>, Vector>> = {
  front: [-1, 0, 0],
  rear: [1, 0, 0],
  left: [0, -1, 0],
  right: [0, 1, 0],
  up: [0, 0, 1],
  down: [0, 0, -1],
};

/** No head is placed better than this, one standard deviation, mm. */
const FINEST_SD = 0.05;
/** How well somebody sees how far a hole is beside its bolt, one standard deviation, mm; and how far it may be the other ways. */
const BESIDE_SD = 0.7;
const OTHER_WAYS_SD = 10;

/** Which gauges know where they say a point is, and whether that was checked. */
export interface Gauged {
  readonly reading: Reading;
  /** Where it stands itself, axes of its body at its start, mm. */
  readonly at: Vector;
  readonly says: GaugeReading;
}

/**
 * The heads of a round as places on one rigid bench, whether or not they enter. How the bench stands in the round's axes
 * brings six unknowns that all heads share; on the bench each head stands where the chart has its point, or as much higher
 * as its height was found when it was checked. A head that enters holds its hole within its clearance c: evenly anywhere
 * in it when it enters freely (sd = c/√3), within half of it when tight (c/√12).
 */
export function headsOf(job: Job, round: Pick<Round, 'setUpId'> | undefined, readings: readonly Reading[]): Gauged[] {
  const heads = readings.flatMap((reading) => {
    if (reading.quantity !== 'fixture' || reading.partHoleId !== null) return [];
    const at = referencePosition(job.references, reading.pointId!);
    return at ? [{ reading, at: add(at, [0, 0, builtHigher(job, round, reading.pointId!, at) ?? 0]) }] : [];
  });
  const middle = middleOf(heads.map(({ at }) => at));
  return heads.map(({ reading, at }) => {
    const sd = Math.max(FINEST_SD, reading.value / Math.sqrt(reading.fit === 'tight' ? 12 : 3));
    return { reading, at, says: says(reading, at, [sd, sd, sd], BENCH_BODY, middle) };
  });
}

/** How much higher than planned the head under a point was found when it was checked, mm; undefined where nobody did. */
export function builtHigher(
  job: Job,
  round: Pick<Round, 'setUpId'> | undefined,
  pointId: string,
  at: Position<'chart'>,
): number | undefined {
  const { rows } = job;
  const setUp = rows.setUps.find(({ id }) => id === round?.setUpId) ?? job.setUpNow;
  const mount = rows.mounts.find((each) => each.setUpId === setUp?.id && each.pointId === pointId);
  const checked = rows.workEvents.filter(({ kind, key }) => kind === 'checked' && key === mount?.id).at(-1);
  return setUp && checked?.value != null
    ? checked.value - (place(placementOf(setUp), at)[2] - (mount?.floor ?? 0))
    : undefined;
}

/** A part needs so many holes read for anybody to know how it stands. */
const FEWEST_HOLES = 3;

/**
 * The holes of real parts that are bolted up as gauges, those that go in and those that do not, of parts that are known
 * to be straight: each part is laid on the starting points by a rigid fit of the holes that were read, and brings six
 * unknowns of its own. *Centred* holds the point within the play of the bolt (c/√12), *beside* says how far it is one way.
 */
export function holesOf(job: Job, readings: readonly Reading[], points: readonly SurveyPoint[]): Gauged[] {
  const start = new Map(points.map((point) => [point.id, point.start]));
  return checkedParts(job.rows).flatMap(({ part, holes, unchecked, bent }): Gauged[] => {
    if (bent) return [];
    const own = new Map(holes.filter(({ id }) => !unchecked.includes(id)).map((hole) => [hole.id, hole]));
    const read = readings.flatMap((reading) => {
      const hole = own.get(reading.partHoleId ?? '');
      const at = start.get(reading.pointId ?? '');
      return hole && at ? [{ reading, hole, at }] : [];
    });
    const entering = read.filter(({ reading }) => reading.fit !== 'none');
    const fit =
      new Set(entering.map(({ hole }) => hole)).size >= FEWEST_HOLES
        ? fitSelected<'theirs', 'round'>(
            entering.map(({ reading, hole: { x, y, z }, at }) => ({
              ...{ id: reading.id, measured: position([x, y, z]), reference: position(at), sigma: 1 },
            })),
          )
        : undefined;
    if (!fit?.ok) return [];
    const placed = read.map(({ hole: { x, y, z } }) => place(fit.motion, position<'theirs'>([x, y, z])));
    const middle = middleOf(placed);
    return read.map(({ reading, hole }, i) => {
      const way = reading.toward ? TOWARD[reading.toward] : undefined;
      const beside = way ? scale(way, reading.value) : ([0, 0, 0] as const);
      const sds = mapAxes((k) => {
        const play = way ? (way[k] === 0 ? OTHER_WAYS_SD : BESIDE_SD) : hole.clearance / Math.sqrt(12);
        return Math.hypot(play, part.sd);
      });
      return { reading, at: placed[i]!, says: says(reading, add(placed[i]!, beside), sds, part.id, middle) };
    });
  });
}

const middleOf = (places: readonly Vector[]): Vector =>
  places.length === 0
    ? [0, 0, 0]
    : centroid(
        places,
        places.map(() => 1),
      );

const says = ({ id, pointId }: Reading, value: Vector, sigma: Vector, body: string, middle: Vector): GaugeReading => ({
  ...{ id, kind: 'position', point: pointId!, value, sigma },
  body: { id: body, middle },
});

/** Gauges that say where their points are: those that go in. */
export const entering = (gauges: readonly Gauged[]): PositionReading[] =>
  gauges.flatMap(({ reading, says: said }) => (reading.fit === 'none' ? [] : [said]));
