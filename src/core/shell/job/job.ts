import { grouped } from '../../maths/grouped';
import { once } from '../../maths/once';
import type { Vector } from '../../maths/geometry/vector';
import { BODIES } from '../bodies';
import { morphed } from '../bodies/body';
import { byCode } from '../by-code';
import { mirroredCode } from '../mirrored-code';
import { chooseReferences, referencesOfClosed, type ChosenReferences } from '../references/chosen';
import * as entity from './entities';
import { JOB_TABLE_NAMES, theJob, type JobRows, type JobTable, type Tables } from './job-rows';

/**
 * A job's rows, indexed once: everything that is looked up by its identity, code or owner is looked up here. Rows are
 * never changed in place, so that an index lives as long as its rows do.
 */
export class Job {
  private readonly pointById: ReadonlyMap<string, entity.Point>;
  private readonly pointByCode: ReadonlyMap<string, entity.Point>;
  private readonly dimensionById: ReadonlyMap<string, entity.Dimension>;
  private readonly versionById: ReadonlyMap<string, entity.InstrumentVersion>;
  private readonly readingById: ReadonlyMap<string, entity.Reading>;
  private readonly struck: ReadonlySet<string>;
  private readonly kept: ReadonlySet<string>;
  private readonly readingsOf: ReadonlyMap<string, readonly entity.Reading[]>;
  private readonly ofPull: ReadonlyMap<string, readonly entity.Reading[]>;
  private readonly stationsOf: ReadonlyMap<string, readonly entity.SeamStation[]>;
  private readonly opposites: ReadonlyMap<string, entity.Point>;
  private readonly takenBack: ReadonlyMap<string, entity.Withdrawal>;
  /** Braces that stand: those taken back are left out, here and below. */
  readonly braces: readonly entity.CodedBrace[];
  readonly braceEvents: readonly entity.BraceEvent[];
  readonly panels: readonly entity.Panel[];
  readonly stages: readonly entity.CutStage[];
  readonly pulls: readonly entity.CodedPull[];
  readonly pullEvents: readonly entity.PullEvent[];
  readonly stepEvents: readonly entity.StepEvent[];
  readonly seams: readonly entity.Seam[];
  readonly hungPanels: readonly entity.CalledPanel[];
  readonly cracks: readonly entity.CalledItem<entity.Crack>[];
  readonly stiffeners: readonly entity.CalledItem<entity.Stiffener>[];
  /** How each panel is held, through time. */
  readonly holdingEvents: readonly entity.HoldingEvent[];
  /** The log as it stands: without entries taken back, and without those a later one corrects. */
  readonly logEntries: readonly entity.LogEntry[];
  private readonly itemById: ReadonlyMap<string, entity.WorkItem>;
  private onBody: ReadonlyMap<string, Vector> | undefined;
  private readonly ofClosed = new Map<string, ChosenReferences>();
  private chosen: ChosenReferences | undefined;
  private readonly narrower = new Map<readonly JobTable[], Job>();

  private constructor(readonly rows: JobRows) {
    this.pointById = byId(rows.points);
    this.pointByCode = new Map(rows.points.map((point) => [point.code, point]));
    this.dimensionById = byId(rows.dimensions);
    this.versionById = byId(rows.instrumentVersions);
    this.readingById = byId(rows.readings);
    this.struck = new Set(rows.readingStrikes.map(({ readingId }) => readingId));
    this.kept = new Set(rows.readingKeeps.map(({ readingId }) => readingId));
    const valid = rows.readings.filter(({ id }) => !this.struck.has(id));
    this.readingsOf = grouped(
      valid.filter(({ pullId }) => pullId === null),
      ({ roundId }) => roundId,
    );
    this.ofPull = grouped(
      valid.filter(({ pullId }) => pullId !== null),
      ({ pullId }) => pullId!,
    );
    this.stationsOf = grouped(rows.seamStations, ({ seamId }) => seamId);
    const last = new Map(rows.withdrawals.map((each) => [each.rowId, each]));
    this.takenBack = new Map([...last].filter(([, { kind }]) => kind === 'withdrawn'));
    const stands = ({ id }: { readonly id: string }) => !this.takenBack.has(id);
    const corrected = new Set(rows.logEntries.filter(stands).map(({ supersedes }) => supersedes));
    this.itemById = byId(rows.workItems);
    const called = rows.braces.filter(stands).map((brace) => ({
      ...brace,
      code: this.itemById.get(brace.id)!.code,
      // What was told of it in words before it could be a section stands in its note.
      section: rows.sections.find(({ id }) => id === brace.sectionId)?.name ?? brace.note,
    }));
    this.braces = called.toSorted((a, b) => byCode(a.code, b.code));
    this.pulls = rows.pulls
      .filter(stands)
      .map((pull) => ({ ...pull, code: this.itemById.get(pull.id)!.code }))
      .toSorted((a, b) => byCode(a.code, b.code));
    const happened = rows.workEvents.filter(stands);
    this.braceEvents = eventsOf(happened, this.braces, entity.BRACE_EVENTS).map(({ itemId, key: _, ...event }) => ({
      ...event,
      braceId: itemId,
    }));
    this.pullEvents = eventsOf(happened, this.pulls, entity.PULL_EVENTS).map(({ itemId, key: _, ...event }) => ({
      ...event,
      pullId: itemId,
    }));
    this.stages = rows.stages.filter(stands);
    const ordinal = new Map(this.stages.map((stage) => [stage.id, stage.ordinal]));
    const order = ({ id, stageId, ordinal: own }: entity.Panel) =>
      `${ordinal.get(stageId ?? '') ?? 999} ${own} ${this.itemById.get(id)?.name ?? ''}`;
    this.panels = rows.panels.filter(stands).toSorted((a, b) => byCode(order(a), order(b)));
    this.stepEvents = rows.stepEvents.filter(stands);
    this.seams = rows.seams.filter(stands);
    this.hungPanels = rows.hungPanels
      .filter(stands)
      .map((panel) => ({ ...panel, code: this.itemById.get(panel.id)!.code, name: this.itemById.get(panel.id)!.name }))
      .toSorted((a, b) => byCode(a.code, b.code));
    this.holdingEvents = eventsOf(happened, this.hungPanels, entity.HOLDING_RUNGS).map(({ itemId, key, ...event }) => ({
      ...event,
      hungId: itemId,
      joint: key,
    }));
    const codedItems = <Row extends { readonly id: string }>(list: readonly Row[]) =>
      list
        .filter(stands)
        .map((row) => ({ ...row, code: this.itemById.get(row.id)!.code }))
        .toSorted((a, b) => byCode(a.code, b.code));
    this.cracks = codedItems(rows.cracks);
    this.stiffeners = codedItems(rows.stiffeners);
    this.logEntries = rows.logEntries.filter((entry) => stands(entry) && !corrected.has(entry.id));
    this.opposites = oppositePoints(rows.points);
  }

  private static readonly known = new WeakMap<JobRows, Job>();

  /** The job of some rows; the same one for the same rows. */
  static of(rows: JobRows): Job {
    const known = Job.known.get(rows);
    if (known) return known;
    const job = new Job(rows);
    Job.known.set(rows, job);
    return job;
  }

  /** By what is left out: the rows last asked for, the newest first. */
  private static readonly lastNarrowed = new Map<readonly JobTable[], readonly JobRows[]>();

  /**
   * The job as if some of its tables were empty, for what hangs on nothing in them: the same one for as long as every other table is
   * the same, so that what is worked out of it is kept while those change.
   *
   * @param tables one list for one purpose
   */
  without(tables: readonly JobTable[]): Job {
    return once(this.narrower, tables, () => this.narrowed(tables));
  }

  private narrowed(tables: readonly JobTable[]): Job {
    const before = Job.lastNarrowed.get(tables) ?? [];
    const left = JOB_TABLE_NAMES.filter((table) => !tables.includes(table));
    const rows =
      before.find((known) => left.every((table) => known[table] === this.rows[table])) ??
      ({ ...this.rows, ...Object.fromEntries(tables.map((table) => [table, []])) } as JobRows);
    Job.lastNarrowed.set(tables, [rows, ...before.filter((known) => known !== rows)].slice(0, STATES_KEPT));
    return Job.of(rows);
  }

  get row(): entity.Job {
    return theJob(this.rows);
  }

  /** @throws where the identity is no point's: the rows are not whole */
  point(id: string): entity.Point {
    return found(this.pointById.get(id), 'point', id);
  }

  pointOf(id: string | null | undefined): entity.Point | undefined {
    return id ? this.pointById.get(id) : undefined;
  }

  pointCalled(code: string): entity.Point | undefined {
    return this.pointByCode.get(code);
  }

  /** What a point is called; its identity where it is none of this job's. */
  code(pointId: string): string {
    return this.pointById.get(pointId)?.code ?? pointId;
  }

  /** The point on the other side: `S2L` and `S2R`. */
  opposite(pointId: string): entity.Point | undefined {
    return this.opposites.get(pointId);
  }

  dimension(id: string): entity.Dimension {
    return found(this.dimensionById.get(id), 'dimension', id);
  }

  version(id: string): entity.InstrumentVersion {
    return found(this.versionById.get(id), 'instrument version', id);
  }

  instrument({ instrumentId }: Pick<entity.InstrumentVersion, 'instrumentId'>): entity.Instrument {
    return found(
      this.rows.instruments.find(({ id }) => id === instrumentId),
      'instrument',
      instrumentId,
    );
  }

  round(id: string): entity.Round | undefined {
    return this.rows.rounds.find((round) => round.id === id);
  }

  stateOf({ stateId }: Pick<entity.Round, 'stateId'>): entity.ShellState {
    return found(
      this.rows.shellStates.find(({ id }) => id === stateId),
      'state',
      stateId,
    );
  }

  supportOf({ supportId }: Pick<entity.Round, 'supportId'>): entity.Support {
    return found(
      this.rows.supports.find(({ id }) => id === supportId),
      'support',
      supportId,
    );
  }

  reading(id: string): entity.Reading | undefined {
    return this.readingById.get(id);
  }

  /** Somebody decided to keep it though it is doubtful. */
  isKept(readingId: string): boolean {
    return this.kept.has(readingId);
  }

  /** How something written was taken back; undefined where it stands. */
  withdrawal(rowId: string): entity.Withdrawal | undefined {
    return this.takenBack.get(rowId);
  }

  /** The readings of a round that have not been struck, pulls' own left out, in the order they were taken. */
  standingReadings({ id }: Pick<entity.Round, 'id'>): readonly entity.Reading[] {
    return this.readingsOf.get(id) ?? [];
  }

  /** The further plates a pull's bar goes through. */
  platesOf({ id }: Pick<entity.Pull, 'id'>): readonly entity.Plate[] {
    return this.rows.plates.filter(({ itemId }) => itemId === id);
  }

  /** The readings of a pull that have not been struck. */
  pullReadings({ id }: Pick<entity.Pull, 'id'>): readonly entity.Reading[] {
    return this.ofPull.get(id) ?? [];
  }

  stations({ id }: Pick<entity.Seam, 'id'>): readonly entity.SeamStation[] {
    return this.stationsOf.get(id) ?? [];
  }

  /** Where the picture of the body has the place a point was chosen at, brought to this shell's size; rough, chart axes. */
  placeOnBody(pointId: string): Vector | undefined {
    const place = this.pointById.get(pointId)?.place;
    const { body, wheelbase, track, height } = this.row;
    if (!place || !body) return undefined;
    this.onBody ??= morphed(BODIES[body], { wheelbase, track, height });
    return this.onBody.get(place);
  }

  /** An item of work: a brace, a panel, a stage. */
  item(id: string): entity.WorkItem {
    return found(this.itemById.get(id), 'item of work', id);
  }

  /** How the shell is planned to stand, in the order it was: on clamps first, on stands later. */
  get setUps(): readonly entity.SetUp[] {
    return this.rows.setUps.toSorted((a, b) => byCode(this.item(a.id).code, this.item(b.id).code));
  }

  /** How it stands now: the last set-up of which anything was built; the first where nobody ticked anything. */
  get setUpNow(): entity.SetUp | undefined {
    const built = new Set(this.rows.workEvents.flatMap(({ itemId, kind }) => (kind === 'ticked' ? [itemId] : [])));
    return this.setUps.findLast(({ id }) => built.has(id)) ?? this.setUps[0];
  }

  /** The rounds taken on the job's own shell. */
  get ownRounds(): readonly entity.Round[] {
    return ownRounds(this.rows);
  }

  /** For every subject the reference it is judged by. */
  get references(): ChosenReferences {
    return (this.chosen ??= chooseReferences(this.rows));
  }

  /** The same for a round: one that is closed keeps what was spoken of when it was measured. */
  referencesOf({ closedAt }: Pick<entity.Round, 'closedAt'>): ChosenReferences {
    if (closedAt === null) return this.references;
    const known = this.ofClosed.get(closedAt) ?? referencesOfClosed(this.rows, this.references, closedAt);
    this.ofClosed.set(closedAt, known);
    return known;
  }
}

/** Jobs, or states of one, that are looked at in turn. */
const STATES_KEPT = 4;

/** The rounds taken on a job's own shell, not on a sister car's. */
export const ownRounds = ({ rounds }: Tables<'rounds'>): readonly entity.Round[] =>
  rounds.filter(({ shell }) => shell === '');

/** Points that are each other's mirror image, by the sides they are on and their codes. */
function oppositePoints(points: readonly entity.Point[]): Map<string, entity.Point> {
  const byCode = new Map(points.map((point) => [point.code, point]));
  return new Map(
    points.flatMap((point) => {
      const other = byCode.get(mirroredCode(point.code, point.side));
      return other && other.side === OTHER_SIDE[point.side] ? [[point.id, other] as const] : [];
    }),
  );
}

/** What happened to some items, of the kinds that can happen to them. */
function eventsOf<Kind extends string>(
  events: readonly entity.WorkEvent[],
  items: readonly { readonly id: string }[],
  kinds: readonly Kind[],
) {
  const ids = new Set(items.map(({ id }) => id));
  const isOf = (kind: string): kind is Kind => (kinds as readonly string[]).includes(kind);
  return events.flatMap(({ id, itemId, key, kind, at, author, reason: note }) =>
    ids.has(itemId) && isOf(kind) ? [{ id, itemId, key, kind, at, author, note }] : [],
  );
}

const OTHER_SIDE = { left: 'right', right: 'left', centre: undefined } as const;

const byId = <Row extends { readonly id: string }>(rows: readonly Row[]): Map<string, Row> =>
  new Map(rows.map((row) => [row.id, row]));

function found<Row>(row: Row | undefined, what: string, id: string): Row {
  if (!row) throw new Error(`the rows hold no ${what} ${id}`);
  return row;
}
