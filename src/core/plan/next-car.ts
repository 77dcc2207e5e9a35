import { grouped } from '../maths/grouped';
import { copyOf } from '../shell/job/copy';
import { NEW_JOB, type Job as JobRow, type EarlierSpringBack, type WorkItem } from '../shell/job/entities';
import type { Job } from '../shell/job/job';
import { JOB_TABLE_NAMES, SHOP_TABLES, type JobRows } from '../shell/job/job-rows';

/** The next car of the same model, and who begins it. */
export interface NextCar {
  readonly fields: Pick<JobRow, 'id' | 'name' | 'shell' | 'identityNumber' | 'owner' | 'shop' | 'driverSide' | 'bench'>;
  readonly at: string;
  readonly author: string;
  readonly personId: string | null;
  readonly newId: () => string;
}

type Draft = { -readonly [Table in keyof JobRows]: JobRows[Table] };

type StepNeed = JobRows['stepNeeds'][number];

const EMPTY = Object.fromEntries(JOB_TABLE_NAMES.map((table) => [table, []])) as unknown as Draft;

/** Items of work that are of the model; a crack, a stiffener and a pull are of one car. */
const OF_THE_MODEL: readonly WorkItem['kind'][] = ['setUp', 'panel', 'stage', 'brace', 'joint', 'hung'];

/**
 * The second car starts from the first: a job with what was worked out on another of the same model and holds for this one too,
 * and nothing that was found, read or done on that car.
 *
 * Taken over: points, dimensions, seams and the chart's edition in use (as the first edition); set-ups with their stacks; the last
 * edition of the structure, its metal sound again; braces that were fitted; the cut plan with its joints, how they are welded and
 * their spots; panels and how they can be set; the steps, each with the time it took where that was booked; and what the metal came
 * home by. What was taken back on the first car stays away.
 *
 * @param springs what pulls came home by there, oldest first
 */
export function nextCar(
  job: Job,
  springs: readonly Omit<EarlierSpringBack, 'id' | 'jobId' | 'ordinal'>[],
  next: NextCar,
): JobRows {
  const taken = { ...EMPTY, ...ofTheShop(job), ...measured(job), ...planned(job) };
  const steps = stepsOf(job, new Set(taken.workItems.map(({ id }) => id)));
  const from: JobRows = {
    ...taken,
    ...steps,
    jobs: [{ ...job.row, ...NEW_JOB, ...bodyOf(job.row), ...next.fields, id: job.row.id }],
  };
  // The first identity that a copy asks for is the job's own.
  let isJob = true;
  const newId = () => {
    const id = isJob ? next.fields.id : next.newId();
    isJob = false;
    return id;
  };
  const { rows } = copyOf(from, newId);
  const { at, author, personId } = next;
  return {
    ...(anew(rows) as JobRows),
    jobs: rows.jobs.map((row) => ({ ...row, name: next.fields.name, startedAt: at, version: 1 })),
    references: rows.references.map((row) => ({ ...row, createdAt: at })),
    structures: rows.structures.map((row) => ({ ...row, edition: 1, at, author, personId })),
    workEvents: rows.braces.map(({ id }) => ({
      ...{
        id: next.newId(),
        itemId: id,
        kind: 'planned' as const,
        key: '',
        at,
        author,
        personId,
        reason: '',
        value: null,
      },
    })),
    springBacks: springs.map((row, ordinal) => ({ ...row, id: next.newId(), jobId: next.fields.id, ordinal })),
  };
}

const bodyOf = ({ body, wheelbase, track, height }: JobRow) => ({ body, wheelbase, track, height });

const ofTheShop = ({ rows }: Job): Partial<Draft> =>
  Object.fromEntries(SHOP_TABLES.map((table) => [table, rows[table]])) as Partial<Draft>;

/** What can be measured, and what is right. */
function measured(job: Job): Partial<Draft> {
  const { rows } = job;
  const seams = new Set(job.seams.map(({ id }) => id));
  const charts = rows.references.filter(({ kind, inUse }) => kind === 'chart' && inUse);
  const ofChart = <Row extends { readonly referenceId: string }>(list: readonly Row[]) =>
    list.filter(({ referenceId }) => charts.some(({ id }) => id === referenceId));
  const seamStations = rows.seamStations.filter(({ seamId }) => seams.has(seamId));
  const stations = new Set(seamStations.map(({ id }) => id));
  return {
    ...{
      points: rows.points,
      dimensions: rows.dimensions,
      memberLines: rows.memberLines,
      seams: job.seams,
      seamStations,
    },
    ...{ platformPoints: rows.platformPoints, shims: rows.shims },
    ...{ gaugeParts: rows.gaugeParts, partHoles: rows.partHoles, partChecks: rows.partChecks },
    references: charts.map((row) => ({ ...row, edition: 1, editionOf: null, rank: 0, roundId: null })),
    referencePoints: ofChart(rows.referencePoints),
    referenceDimensions: ofChart(rows.referenceDimensions),
    referenceStations: ofChart(rows.referenceStations).filter(({ stationId }) => stations.has(stationId)),
  };
}

/** What is planned to be done, as it was on the first car. */
function planned(job: Job): Partial<Draft> {
  const { rows } = job;
  const fitted = new Set(job.braceEvents.flatMap(({ braceId, kind }) => (kind === 'fitted' ? [braceId] : [])));
  const workItems = rows.workItems.filter(
    ({ id, kind }) => OF_THE_MODEL.includes(kind) && !job.withdrawal(id) && (kind !== 'brace' || fitted.has(id)),
  );
  const has = new Set(workItems.map(({ id }) => id));
  const own = <Row>(list: readonly Row[], idOf: (row: Row) => string) => list.filter((row) => has.has(idOf(row)));
  const panels = own(rows.panels, ({ id }) => id);
  // A joint of a panel that was taken back goes with it.
  const joints = own(rows.joints, ({ id }) => id).filter(({ panelId }) => has.has(panelId));
  const welds = new Set(joints.map(({ id }) => id));
  const ofHung = <Row extends { readonly hungId: string }>(list: readonly Row[]) => own(list, ({ hungId }) => hungId);
  const ofPanel = <Row extends { readonly panelId: string }>(list: readonly Row[]) =>
    own(list, ({ panelId }) => panelId);
  const orNone = (id: string | null) => (id !== null && has.has(id) ? id : null);
  const mounts = own(rows.mounts, ({ setUpId }) => setUpId);
  const mountIds = new Set(mounts.map(({ id }) => id));
  const seams = new Set(job.seams.map(({ id }) => id));
  const settings = ofHung(rows.panelSettings);
  const settingIds = new Set(settings.map(({ id }) => id));
  const stations = new Set(rows.seamStations.flatMap(({ id, seamId }) => (seams.has(seamId) ? [id] : [])));
  const templates = rows.templates.map((row) => ({ ...row, panelId: orNone(row.panelId) }));
  return {
    workItems: workItems.filter(({ id, kind }) => kind !== 'joint' || welds.has(id)),
    setUps: own(rows.setUps, ({ id }) => id),
    mounts: mounts.map((row) => ({ ...row, floor: null })),
    mountPieces: rows.mountPieces.filter(({ mountId }) => mountIds.has(mountId)),
    ...structureOf(job),
    stages: own(rows.stages, ({ id }) => id),
    panels: panels.map((row) => ({ ...row, ...UNDECIDED, stageId: orNone(row.stageId) })),
    ...{ panelPoints: ofPanel(rows.panelPoints), panelParts: ofPanel(rows.panelParts) },
    cutLines: ofPanel(rows.cutLines).map((row) => ({ ...row, readBack: null })),
    ...{ templates, templatePoints: rows.templatePoints },
    keepOuts: rows.keepOuts.map((row) => ({ ...row, panelId: orNone(row.panelId) })),
    braces: own(rows.braces, ({ id }) => id).map((row) => ({
      ...{ ...row, roundId: null, stageInId: orNone(row.stageInId), stageOutId: orNone(row.stageOutId) },
    })),
    braceDimensions: own(rows.braceDimensions, ({ braceId }) => braceId),
    joints,
    weldSeams: rows.weldSeams
      .filter(({ id }) => welds.has(id))
      .map((row) => ({
        ...row,
        inTurnWithId: row.inTurnWithId !== null && welds.has(row.inTurnWithId) ? row.inTurnWithId : null,
      })),
    weldStretches: rows.weldStretches.filter(({ seamId }) => welds.has(seamId)),
    hungPanels: own(rows.hungPanels, ({ id }) => id).map((row) => ({
      ...{ ...row, standIn: false, sure: false, floatsUntilId: orNone(row.floatsUntilId) },
    })),
    panelSeams: ofHung(rows.panelSeams).filter(({ seamId }) => seams.has(seamId)),
    panelSettings: settings.map((row) => ({ ...row, inNow: 0 })),
    settingEffects: rows.settingEffects.filter(
      ({ settingId, stationId }) => settingIds.has(settingId) && stations.has(stationId),
    ),
    bodyPackers: rows.bodyPackers.map((row) => ({ ...row, inNow: 0 })),
    packerEffects: rows.packerEffects.filter(({ stationId }) => stations.has(stationId)),
    openingCorners: ofHung(rows.openingCorners),
    panelJoints: ofHung(rows.panelJoints).map((row) => ({
      ...row,
      jointId: row.jointId !== null && welds.has(row.jointId) ? row.jointId : null,
    })),
    allowances: rows.allowances.flatMap((row) =>
      row.seamId === null || seams.has(row.seamId) ? [{ ...row, fitted: false }] : [],
    ),
    laps: rows.laps.flatMap((row) =>
      has.has(row.overId) && (row.underId === null || has.has(row.underId)) ? [{ ...row, done: false }] : [],
    ),
    fitChecks: rows.fitChecks.filter(({ hungId }) => hungId === null || has.has(hungId)),
  };
}

/** What was decided of one car's panel, for its metal and its owner's money. */
const UNDECIDED = { choice: null, reason: '', price: null, ownersWord: '', stressed: false } as const;

/** The last edition of the structure, its metal sound: rust is of one car. */
function structureOf({ rows }: Job): Partial<Draft> {
  const last = rows.structures.reduce<JobRows['structures'][number] | undefined>(
    (found, each) => (found && found.edition > each.edition ? found : each),
    undefined,
  );
  if (!last) return {};
  const own = <Row extends { readonly structureId: string }>(list: readonly Row[]) =>
    list.filter(({ structureId }) => structureId === last.id);
  return {
    structures: [last],
    nodes: own(rows.nodes),
    members: own(rows.members).map((row) => ({ ...row, condition: 1 })),
    shearPanels: own(rows.shearPanels).map((row) => ({ ...row, condition: 1 })),
  };
}

/** The steps that were not dropped, each with the time it took. */
function stepsOf(job: Job, items: ReadonlySet<string>): Partial<Draft> {
  const { rows } = job;
  const last = new Map(job.stepEvents.map(({ stepId, kind }) => [stepId, kind]));
  const booked = new Map<string, number>();
  for (const { stepId, minutes } of rows.bookings) booked.set(stepId, (booked.get(stepId) ?? 0) + minutes);
  const steps = rows.steps
    .filter(({ id }) => last.get(id) !== 'dropped')
    .map((step) => {
      const took = booked.get(step.id) ?? 0;
      const itemId = step.itemId !== null && items.has(step.itemId) ? step.itemId : null;
      return { ...step, itemId, minutes: took > 0 ? took : step.minutes, note: '', notBefore: null };
    });
  const ids = new Set(steps.map(({ id }) => id));
  return {
    steps,
    stepNeeds: needsAmong(rows.stepNeeds, ids),
    stepPeople: rows.stepPeople.filter(({ stepId }) => ids.has(stepId)),
  };
}

/** What steps need of one another; one that needed a dropped one needs what that needed. */
function needsAmong(needs: readonly StepNeed[], ids: ReadonlySet<string>): StepNeed[] {
  const of = grouped(needs, ({ stepId }) => stepId);
  const reached = (stepId: string, seen = new Set<string>()): string[] =>
    (of.get(stepId) ?? []).flatMap(({ needsId }) => {
      if (seen.has(needsId)) return [];
      seen.add(needsId);
      return ids.has(needsId) ? [needsId] : reached(needsId, seen);
    });
  return [...ids].flatMap((stepId) => reached(stepId).map((needsId) => ({ stepId, needsId })));
}

/** Rows that were edited on the first car have been edited by nobody here; those of the shop stay as they are. */
function anew(rows: JobRows): Partial<Draft> {
  const shop = new Set<string>(SHOP_TABLES);
  return Object.fromEntries(
    JOB_TABLE_NAMES.map((table) => [
      table,
      shop.has(table)
        ? rows[table]
        : (rows[table] as readonly object[]).map((row) => ('version' in row ? { ...row, version: 1 } : row)),
    ]),
  ) as Partial<Draft>;
}
