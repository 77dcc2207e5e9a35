import type { Vector } from '../../maths/geometry/vector';
import { buildSetUp, type Built, type PlannedMount } from '../../plan/set-up/build';
import { chooseMounts, type Against, type MountCandidate, type MountProposal } from '../../plan/set-up/choose-mounts';
import { floorLine, type FloorLine } from '../../plan/set-up/floor-line';
import { alongBench, fittedPlacement, type Placement } from '../../plan/set-up/placement';
import { grouped } from '../../maths/grouped';
import { estimateWeight, type Extent, type ShellWeight } from '../../plan/set-up/weight';
import { supportTie, type SupportTie } from '../../findings/support-tie';
import { uncertainPoint } from '../../round/align/align-round';
import { judgeRound } from '../../round/judge/judge-round';
import type { RoundJudgement } from '../../round/judge/judgement';
import { conditionsOf } from '../../round/observe/conditions';
import { placementOf } from '../../shell/set-up';
import { plannedPanels, type PlannedPanel } from './cut';
import { gaugesOf, platformOf, type GaugesPage, type PlatformPage } from './gauges';
import { levellingOf, type Levelled } from './levelling';
import { pointsThatGo } from '../../shell/cut-metal';
import { benchAt, newestBenches, type ListedBench } from '../../shell/benches';
import type { Mount, MountPiece, SetUp, WorkEvent, WorkItem } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';

export interface SetUpPoint extends MountCandidate {
  readonly code: string;
  readonly name: string;
  readonly holeDiameter: number | null;
}

export interface PlannedSetUp {
  readonly setUp: SetUp;
  readonly item: WorkItem;
  readonly bench: ListedBench;
  readonly mounts: readonly Mount[];
  readonly pieces: readonly MountPiece[];
  /** Mounts that were built and ticked off. */
  readonly ticked: readonly string[];
  readonly built: Built;
  readonly levelling?: Levelled;
  /** Mounts that stand on metal to be cut. */
  readonly tie?: SupportTie;
  /** A centre line on the floor, where one was laid. */
  readonly line?: FloorLine;
  /** Heights that mounts were found at when they were checked, mm. */
  readonly checked: ReadonlyMap<string, number>;
  /** Where the last round has found the shell on the bench. */
  readonly found?: { readonly round: string; readonly placement: Placement };
}

/** What the place for setting up shows. */
export interface SetUpPage {
  readonly benches: readonly ListedBench[];
  readonly points: readonly SetUpPoint[];
  /** Lines of the shell drawn for orientation, chart axes. */
  readonly lines: readonly (readonly [Vector, Vector])[];
  readonly extent: Extent;
  readonly estimated: ShellWeight;
  /** How the shell was, is and will be stood, in this order. */
  readonly setUps: readonly { readonly id: string; readonly name: string; readonly now: boolean }[];
  readonly four: readonly MountProposal[];
  readonly three: readonly MountProposal[];
  readonly planned?: PlannedSetUp;
  readonly gauges: GaugesPage;
  readonly panels: readonly PlannedPanel[];
  readonly platform: PlatformPage;
  /** The last round of the job's own shell: what is read here goes into it while it is open. */
  readonly roundId?: string;
}

/** Points no higher over the lowest than this share of the shell's height can be stood on. */
const LOW = 0.2;
const SETS = 3;

/** @param shown which set-up, by its identity; how the shell stands now where it is not said */
export function setUpPage(job: Job, shown?: string): SetUpPage {
  const stands = standingOf(job);
  const { extent, points, places, estimated } = stands;
  const lines = job.rows.memberLines.flatMap(({ fromPointId, toPointId }) => {
    const [from, to] = [places.get(fromPointId), places.get(toPointId)];
    return from && to ? [[from, to] as const] : [];
  });
  const { setUps, setUpNow } = job;
  const setUp = setUps.find(({ id }) => id === shown) ?? setUpNow;
  const whole = setUp && plannedOf(job, setUp, stands);
  // What is read is read of the shell as it stands.
  const { levelling, ...plan } = whole ?? {};
  const planned = whole && (setUp === setUpNow || !levelling ? whole : (plan as PlannedSetUp));
  const weight = setUp ? weightOf(setUp, estimated) : estimated;
  return {
    benches: newestBenches(job.rows),
    setUps: setUps.map(({ id }) => ({ id, name: job.item(id).name, now: id === setUpNow?.id })),
    ...{ points, lines, extent, estimated },
    four: chooseMounts(points, { extent, weight }, 4, SETS),
    three: chooseMounts(points, { extent, weight }, 3, SETS),
    ...(planned ? { planned } : {}),
    gauges: gaugesOf(job, stands.judgement),
    panels: plannedPanels(job),
    platform: platformOf(job),
    ...(stands.judgement ? { roundId: stands.judgement.round.id } : {}),
  };
}

/** What the shell could stand on, and what is known of it. */
interface ShellStanding {
  readonly places: ReadonlyMap<string, Vector>;
  readonly extent: Extent;
  readonly estimated: ShellWeight;
  /** Points low on the shell, and those it stands on. */
  readonly points: readonly SetUpPoint[];
  /** The last round of the job's own shell. */
  readonly judgement: RoundJudgement | undefined;
}

function standingOf(job: Job): ShellStanding {
  const round = job.ownRounds.at(-1);
  const judgement = round && judgeRound(job, round);
  const all = job.rows.points.flatMap((point) => {
    const at = chartPlace(job, point.id, judgement);
    return at ? [{ point, at }] : [];
  });
  const extent = extentOf(all.map(({ at }) => at));
  const top = extent.from[2] + LOW * (extent.to[2] - extent.from[2]);
  const conditions = round ? conditionsOf(job, round) : new Map<string, string>();
  const mounted = new Set(job.rows.mounts.map(({ pointId }) => pointId));
  const points = all
    .filter(({ point, at }) => at[2] <= top || mounted.has(point.id))
    .map(({ point, at }): SetUpPoint => {
      const { id, code, name, holeDiameter } = point;
      return { id, code, name, holeDiameter, at, against: againstOf(job, id, conditions.get(id), judgement) };
    });
  const places = new Map(all.map(({ point, at }) => [point.id, at]));
  return { places, extent, estimated: estimateWeight(extent), points, judgement };
}

/** Where a point is, chart axes: by its reference, by the last round, or by the picture of the body. */
function chartPlace(job: Job, pointId: string, judgement: RoundJudgement | undefined): Vector | undefined {
  const row = job.references.points.get(pointId)?.row;
  if (row) return [row.x, row.y, row.z];
  return judgement?.located.get(pointId)?.position ?? job.placeOnBody(pointId);
}

function extentOf(places: readonly Vector[]): Extent {
  const along = (axis: number, pick: (...values: number[]) => number, none: number) =>
    places.length === 0 ? none : places.reduce((best, at) => pick(best, at[axis]!), places[0]![axis]!);
  return {
    from: [along(0, Math.min, 0), along(1, Math.min, -700), along(2, Math.min, 0)],
    to: [along(0, Math.max, 3500), along(1, Math.max, 700), along(2, Math.max, 1300)],
  };
}

const HINDERS: Readonly<Record<string, Against>> = {
  buried: 'buried',
  suspension: 'suspension',
  gone: 'gone',
  rusty: 'rust',
  worn: 'rust',
  oval: 'rust',
};

function againstOf(
  job: Job,
  pointId: string,
  condition: string | undefined,
  judgement: RoundJudgement | undefined,
): Against[] {
  const against = new Set<Against>();
  const hinders = condition === undefined ? undefined : HINDERS[condition];
  if (hinders) against.add(hinders);
  if (judgement?.points.find(({ point }) => point.id === pointId)?.judged?.verdict === 'outside') against.add('moved');
  const entries = new Set(
    job.rows.logSubjects.filter((each) => each.pointId === pointId).map(({ entryId }) => entryId),
  );
  const found = job.rows.findingDetails.filter(({ entryId }) => entries.has(entryId));
  const standing = new Set(job.logEntries.map(({ id }) => id));
  if (found.some(({ sort, entryId }) => sort === 'rust' && standing.has(entryId))) against.add('rust');
  if (pointsThatGo(job).has(pointId)) against.add('toBeCut');
  return [...against];
}

/** What a shell weighs on its set-up: as typed, where something was. */
export const weightOf = ({ kilograms, centreX, centreY }: SetUp, estimated: ShellWeight): ShellWeight => ({
  kilograms: kilograms ?? estimated.kilograms,
  centre: [centreX ?? estimated.centre[0], centreY ?? estimated.centre[1], estimated.centre[2]],
});

function plannedOf(job: Job, setUp: SetUp, standing: ShellStanding): PlannedSetUp | undefined {
  const { points, estimated, judgement } = standing;
  const { rows } = job;
  const item = rows.workItems.find(({ id }) => id === setUp.id);
  const bench = benchAt(rows, setUp.benchVersionId);
  if (!item || !bench) return undefined;
  const { version, items } = bench;
  const mounts = rows.mounts.filter(({ setUpId }) => setUpId === setUp.id);
  const weight = weightOf(setUp, estimated);
  const on = { version, items, placement: placementOf(setUp) };
  const ids = new Set(mounts.map(({ id }) => id));
  const ticks = new Map(
    rows.workEvents
      .filter(({ itemId, kind }) => itemId === setUp.id && (kind === 'ticked' || kind === 'unticked'))
      .map(({ key, kind }) => [key, kind]),
  );
  const pieces = rows.mountPieces.filter(({ mountId }) => ids.has(mountId));
  const places = plannedMounts({ mounts, pieces }, points);
  const built = buildSetUp(on, places, weight);
  const levelling = judgement && levellingOf(job, setUp, { built, places, items, weight }, judgement.round);
  return {
    setUp,
    item,
    bench,
    mounts,
    pieces,
    ticked: [...ticks].filter(([key, kind]) => kind === 'ticked' && ids.has(key)).map(([key]) => key),
    built,
    checked: checkedHeights(rows.workEvents, setUp.id),
    ...tieOf(job, setUp),
    ...lineOf(setUp, standing, places),
    ...(levelling ? { levelling } : {}),
    ...foundBy(judgement, setUp),
  };
}

function tieOf(job: Job, setUp: SetUp): Pick<PlannedSetUp, 'tie'> {
  const tie = supportTie(job, setUp);
  return tie ? { tie } : {};
}

function lineOf(
  { lineFromId, lineToId }: SetUp,
  standing: ShellStanding,
  mounts: readonly PlannedMount[],
): Pick<PlannedSetUp, 'line'> {
  const [from, to] = [standing.places.get(lineFromId ?? ''), standing.places.get(lineToId ?? '')];
  const line = from && to && floorLine(from, to, mounts);
  return line ? { line } : {};
}

const checkedHeights = (events: readonly WorkEvent[], setUpId: string): ReadonlyMap<string, number> =>
  new Map(
    events.flatMap(({ itemId, kind, key, value }) =>
      itemId === setUpId && kind === 'checked' && value !== null ? [[key, value] as const] : [],
    ),
  );

function foundBy(judgement: RoundJudgement | undefined, { x, y, z }: SetUp): Pick<PlannedSetUp, 'found'> {
  if (!judgement?.alignment.ok) return {};
  const { round, alignment, located, references } = judgement;
  const control = alignment.controlIds.map((id) => uncertainPoint(id, located, references));
  const placement = alongBench(fittedPlacement(alignment.motion, control), [x, y, z]);
  return { found: { round: round.name, placement } };
}

/** Mounts with where they are, and what stands there: those whose point is nowhere yet are left out. */
export function plannedMounts(
  { mounts, pieces }: Pick<PlannedSetUp, 'mounts' | 'pieces'>,
  points: readonly SetUpPoint[],
): PlannedMount[] {
  const byId = new Map(points.map((point) => [point.id, point]));
  const under = grouped(pieces, ({ mountId }) => mountId);
  return mounts.flatMap(({ id, pointId, hole, floor, x, y, z, headId }): PlannedMount[] => {
    const pieceIds = (under.get(id) ?? []).map(({ shelfItemId }) => shelfItemId);
    const there = {
      ...{ id, hole },
      ...(floor === null ? {} : { floor }),
      ...(headId === null ? {} : { standing: { headId, pieceIds } }),
    };
    const point = pointId === null ? undefined : byId.get(pointId);
    if (point) return [{ ...there, at: point.at, holeDiameter: point.holeDiameter }];
    return x === null || y === null || z === null ? [] : [{ ...there, at: [x, y, z], holeDiameter: null }];
  });
}

/** The levelling of a job's last set-up by its last round, as it stands; undefined where there is neither. */
export function levellingNow(job: Job): Levelled | undefined {
  const setUp = job.setUpNow;
  return setUp && plannedOf(job, setUp, standingOf(job))?.levelling;
}
