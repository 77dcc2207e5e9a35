import { position, type Vector } from '../../maths/geometry/vector';
import type { Built, PlannedMount } from '../../plan/set-up/build';
import { level, type LevelPoint, type LevelResult, type LevelSupport } from '../../plan/set-up/level';
import type { Weight } from '../../plan/set-up/loads';
import type { ShellWeight } from '../../plan/set-up/weight';
import { judgeRound } from '../../round/judge/judge-round';
import type { PointMeasurement } from '../../round/observe/measured';
import type { Round, SetUp, ShelfItem } from '../../shell/job/entities';
import { Job } from '../../shell/job/job';

/** The levelling by one round's readings. */
export interface Levelled {
  readonly roundId: string;
  readonly open: boolean;
  readonly result: LevelResult;
  /** The undisturbed points, each with the height read since the support was last adjusted. */
  readonly points: readonly LevelledPoint[];
  /** What stands on the mounts, and where these are, chart axes. */
  readonly weight: Weight;
  readonly seats: readonly { readonly id: string; readonly x: number; readonly y: number }[];
}

export interface LevelledPoint {
  readonly id: string;
  readonly code: string;
  readonly chart: Vector;
  readonly height?: number;
}

/** When the support was last adjusted: what was read before was read of a shell that stood otherwise. */
const adjustedAt = (job: Job, { id }: SetUp): string =>
  job.rows.workEvents.filter((event) => event.itemId === id && event.kind === 'adjusted').at(-1)?.at ?? '';

/** Mounts that somebody felt carry nothing since the support was last adjusted. */
function idleMounts(job: Job, { id }: SetUp, since: string): ReadonlySet<string> {
  const felt = job.rows.workEvents.filter(
    ({ itemId, kind, at }) => itemId === id && at > since && (kind === 'idle' || kind === 'carrying'),
  );
  const last = new Map(felt.map(({ key, kind }) => [key, kind]));
  return new Set([...last].flatMap(([key, kind]) => (kind === 'idle' ? [key] : [])));
}

/** What a set-up stands on, for its levelling. */
export interface OnMounts {
  readonly built: Built;
  readonly places: readonly PlannedMount[];
  readonly items: readonly ShelfItem[];
  readonly weight: ShellWeight;
}

/** What to turn at each mount by the heights, widths and lengths read of undisturbed points since it was last turned. */
export function levellingOf(
  job: Job,
  setUp: SetUp,
  { built, places, items, weight }: OnMounts,
  round: Round,
): Levelled | undefined {
  if (built.mounts.length < 3) return undefined;
  const since = adjustedAt(job, setUp);
  const readings = job.rows.readings.filter((each) => each.roundId !== round.id || each.takenAt > since);
  const { measured, references } = judgeRound(Job.of({ ...job.rows, readings }), round);
  const control = job.rows.roundControls.filter(({ roundId }) => roundId === round.id).map(({ pointId }) => pointId);
  const chosen = control.length >= 3 ? control : job.rows.points.map(({ id }) => id);
  const known = chosen.filter((id) => references.points.has(id));
  const points = known.flatMap((id): LevelPoint[] => {
    const { row } = references.points.get(id)!;
    const read = measured.points.get(id);
    if (!read) return [];
    return [
      {
        id,
        wanted: position<'chart'>([row.x, row.y, row.z]),
        read,
      },
    ];
  });
  const idle = idleMounts(job, setUp, since);
  const pieces = items.filter(({ kind }) => kind === 'piece');
  const shims = pieces.map(({ code, height, count }) => ({ name: code, height, count }));
  const place = new Map(places.map(({ id, at }) => [id, at]));
  const supports = built.mounts.map(({ id, headId, lift }): LevelSupport => {
    const [x, y] = place.get(id)!;
    const head = items.find((item) => item.id === headId);
    const travel = head && lift !== undefined ? ([-lift, head.travel - lift] as const) : undefined;
    const felt = idle.has(id) ? { carries: false } : {};
    return {
      id,
      x,
      y,
      ...felt,
      ...(travel ? { travel } : {}),
      ...(head?.threadPitch ? { pitch: head.threadPitch } : { shims }),
    };
  });
  return {
    roundId: round.id,
    open: round.closedAt === null,
    result: level(points, supports, { height: 'free', weight: weight.centre }),
    points: known.map((id) => {
      const { x, y, z } = references.points.get(id)!.row;
      return { id, code: job.code(id), chart: [x, y, z] as Vector, ...heightOf(measured.points.get(id)) };
    }),
    weight: { kilograms: weight.kilograms, x: weight.centre[0], y: weight.centre[1] },
    seats: supports.map(({ id, x, y }) => ({ id, x, y })),
  };
}

const heightOf = (read: PointMeasurement | undefined) => (read?.z ? { height: read.z.value } : {});
