import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import { norm, scale, subtract, type Vector } from '../maths/geometry/vector';
import { COVERAGE } from '../maths/statistics/verdict';
import type { LocatedPoint } from '../round/align/align-round';
import type { RoundJudgement } from '../round/judge/judgement';
import { pointsThatGo } from '../shell/cut-metal';
import { spreadOf } from '../shell/instruments';
import type { Job } from '../shell/job/job';

/** A reading that is to be taken while its point is still there: a length to a point that stays, or its height. */
export interface BeforeCut {
  readonly quantity: 'distance' | 'height';
  readonly otherId?: string;
  /** What it should come to by the last round, mm. */
  readonly expected: number;
}

/** A point that leaves with a panel, and how well its place can be found again from what stays. */
export interface LeavingPoint {
  readonly pointId: string;
  /** ± wanted in every direction, mm. */
  readonly limit: number;
  /** ± by what is recorded already, mm; absent where some direction is open. */
  readonly now?: number;
  /** ± once the readings below are taken too; absent where even they leave some direction open. */
  readonly then?: number;
  /** The readings to take first, each of which is needed; none where what is recorded is enough. */
  readonly take: readonly BeforeCut[];
  readonly outcome: 'recorded' | 'readings' | 'notEnough' | 'notLocated';
}

/** What dies with a panel. */
export interface PanelLoss {
  readonly panelId: string;
  readonly part: string;
  readonly points: readonly LeavingPoint[];
  /** Dimensions that lose an end. */
  readonly dimensionIds: readonly string[];
}

/** Where no chart says how near a point must come, mm. */
const USUAL_LIMIT = 2;
/** A tape is put to points this near and this far, mm. */
const REACH = [150, 3500] as const;
const MOST_READINGS = 8;

interface Candidate {
  readonly reading: BeforeCut;
  /** Direction it fixes, and 1/mm² along it. */
  readonly along: Vector;
  readonly weight: number;
  readonly recorded: boolean;
}

/**
 * What leaves with each panel that is to be cut, and what must be read of it first. After the cut a point of the new panel is put
 * where its recorded lengths to points that stay, and its recorded height, have it: each was read once and is read again, so
 * that it tells 1/(2σ² + uᵀΣu) along its line, Σ what the round knows of the other end. Readings are added that shrink the
 * worst direction most, then those are dropped without which the limit is kept as well.
 *
 * @param judgement of the last round of the job's own shell
 */
export function lossesBeforeCut(job: Job, judgement: RoundJudgement): PanelLoss[] {
  const gone = pointsThatGo(job);
  return job.panels.map(({ id, part }) => {
    const own = job.rows.panelPoints.filter(({ panelId, fate }) => panelId === id && fate === 'goes');
    const ids = new Set(own.map(({ pointId }) => pointId));
    return {
      panelId: id,
      part,
      points: own.map(({ pointId }) => leaving(job, judgement, pointId, gone)),
      dimensionIds: job.rows.dimensions.flatMap((each) =>
        ids.has(each.fromPointId) || ids.has(each.toPointId) ? [each.id] : [],
      ),
    };
  });
}

function leaving(
  job: Job,
  judgement: RoundJudgement,
  pointId: string,
  gone: ReadonlyMap<string, string>,
): LeavingPoint {
  const limit = judgement.references.points.get(pointId)?.row.tolerance ?? USUAL_LIMIT;
  const point = judgement.located.get(pointId);
  if (!point) return { pointId, limit, take: [], outcome: 'notLocated' };
  const candidates = candidatesFor(job, judgement, point, gone);
  const recorded = candidates.filter((each) => each.recorded);
  const known = information(recorded);
  const now = plusMinus(known);
  const common = { pointId, limit, ...(now === Infinity ? {} : { now }) };
  if (now <= limit) return { ...common, take: [], outcome: 'recorded' };
  const taken = needed(
    known,
    candidates.filter((each) => !each.recorded),
    limit,
  );
  const then = plusMinus(information(taken, known));
  return {
    ...common,
    ...(then === Infinity ? {} : { then }),
    take: taken.map(({ reading }) => reading),
    outcome: then <= limit ? 'readings' : 'notEnough',
  };
}

function candidatesFor(
  job: Job,
  { round, located }: RoundJudgement,
  { pointId, position }: LocatedPoint,
  gone: ReadonlyMap<string, string>,
): Candidate[] {
  const version = job.version(round.instrumentVersionId);
  const standing = job.standingReadings(round);
  const isRead = (otherId: string) =>
    standing.some(
      ({ quantity, pointId: a, toPointId: b }) =>
        quantity === 'distance' && ((a === pointId && b === otherId) || (a === otherId && b === pointId)),
    );
  const lengths = [...located.values()].flatMap((other): Candidate[] => {
    if (other.pointId === pointId || gone.has(other.pointId)) return [];
    const by = subtract(position, other.position);
    const length = norm(by);
    if (length < REACH[0] || length > REACH[1]) return [];
    const along = scale(by, 1 / length);
    const variance = 2 * spreadOf(version, length) ** 2 + spreadAlong(other, along);
    return [
      {
        reading: { quantity: 'distance', otherId: other.pointId, expected: length },
        ...{ along, weight: 1 / variance, recorded: isRead(other.pointId) },
      },
    ];
  });
  const height: Candidate = {
    reading: { quantity: 'height', expected: position[2] },
    along: [0, 0, 1],
    weight: 1 / (2 * spreadOf(version, position[2]) ** 2),
    recorded: standing.some((reading) => reading.quantity === 'height' && reading.pointId === pointId),
  };
  return [...lengths, height];
}

const spreadAlong = ({ covariance }: LocatedPoint, along: Vector): number => {
  let sum = 0;
  for (let r = 0; r < 3; r++) for (let c = 0; c < 3; c++) sum += along[r]! * covariance[3 * r + c]! * along[c]!;
  return Math.max(0, sum);
};

/** What some readings tell of a place: Σ w·u·uᵀ, 1/mm². */
function information(readings: readonly Candidate[], before: Matrix = Matrix.zeros(3, 3)): Matrix {
  const sum = before.clone();
  for (const { along, weight } of readings)
    for (let r = 0; r < 3; r++)
      for (let c = 0; c < 3; c++) sum.set(r, c, sum.get(r, c) + weight * along[r]! * along[c]!);
  return sum;
}

/** A direction that less than this is told of is open, 1/mm². */
const OPEN = 1e-6;

/** ± of the worst direction, mm. */
function plusMinus(told: Matrix): number {
  const least = Math.min(...new EigenvalueDecomposition(told, { assumeSymmetric: true }).realEigenvalues);
  return least < OPEN ? Infinity : COVERAGE / Math.sqrt(least);
}

/** Readings that bring the ± within a limit, each of them needed. */
function needed(known: Matrix, candidates: readonly Candidate[], limit: number): Candidate[] {
  const taken: Candidate[] = [];
  const figure = (chosen: readonly Candidate[]) => {
    const values = new EigenvalueDecomposition(information(chosen, known), { assumeSymmetric: true }).realEigenvalues;
    // Where directions are still open, the sum of what is told of all of them, each at most a little, leads on.
    return values.reduce((sum, value) => sum + 1 / (Math.max(value, 0) + OPEN), 0);
  };
  while (plusMinus(information(taken, known)) > limit && taken.length < MOST_READINGS) {
    const left = candidates.filter((each) => !taken.includes(each));
    if (left.length === 0) break;
    taken.push(left.reduce((best, each) => (figure([...taken, each]) < figure([...taken, best]) ? each : best)));
  }
  for (const each of [...taken]) {
    const rest = taken.filter((other) => other !== each);
    if (plusMinus(information(rest, known)) <= limit) taken.splice(taken.indexOf(each), 1);
  }
  return taken;
}
