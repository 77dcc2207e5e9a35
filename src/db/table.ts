import type { z } from 'zod';
import { JOB_TABLE_NAMES, JOB_TABLES, type JobTable, type RowOf } from '@/core/shell/job/job-rows';
import { snake, type Queryable } from './database';

/** A table of the database: everything that is known of it besides its rows' schema, which is in `JOB_TABLES`. */
interface Table {
  readonly name: string;
  /** What its rows belong to: the job itself, or rows of another table by the key that names them; the shop's have none. */
  readonly owner?: 'job' | readonly [key: string, table: JobTable];
  /** The order rows are read in: columns of its own or of its owner. */
  readonly order?: string;
  /** What tells its rows apart, where it is not `id`. */
  readonly key?: readonly string[];
}

const ofJob = (name: string, order?: string): Table => ({ name, owner: 'job', ...(order ? { order } : {}) });
const of = (name: string, owner: string, table: JobTable, order?: string): Table => ({
  name,
  owner: [owner, table],
  ...(order ? { order } : {}),
});
/** One whose rows are a pair of others, or one row to each of its owner's. */
const keyed = (name: string, key: readonly [string, ...string[]], table: JobTable): Table => ({
  ...of(name, snake(key[0]), table),
  key,
});

/** The one place a table is described. */
export const TABLES: Readonly<Record<JobTable, Table>> = {
  jobs: { name: 'job', owner: 'job' },
  instruments: { name: 'instrument', order: 'name' },
  instrumentVersions: { name: 'instrument_version', order: 'number' },
  benches: { name: 'bench', order: 'name' },
  benchVersions: { name: 'bench_version', order: 'number' },
  shelfItems: { name: 'shelf_item', order: 'kind, height desc, code' },
  sections: { name: 'section', order: 'width, height, wall, id' },
  people: { name: 'person', order: 'kind, name' },
  closedDays: { name: 'closed_day', order: 'day, kind' },
  points: ofJob('point'),
  dimensions: ofJob('dimension'),
  memberLines: ofJob('member_line'),
  seams: ofJob('seam'),
  seamStations: of('seam_station', 'seam_id', 'seams', 'seam.code, seam_station.number'),
  shellStates: ofJob('shell_state', 'reached_at'),
  supports: ofJob('support'),
  rounds: ofJob('round', 'number'),
  roundControls: keyed('round_control', ['roundId', 'pointId'], 'rounds'),
  roundEvents: of('round_event', 'round_id', 'rounds', 'round_event.at'),
  references: ofJob('reference', 'rank, created_at'),
  referencePoints: of('reference_point', 'reference_id', 'references'),
  referenceDimensions: of('reference_dimension', 'reference_id', 'references'),
  referenceStations: of('reference_station', 'reference_id', 'references'),
  referenceRounds: keyed('reference_round', ['referenceId', 'roundId'], 'references'),
  referenceChoices: ofJob('reference_choice', 'at'),
  pulls: ofJob('pull'),
  strokes: of('stroke', 'pull_id', 'pulls', 'stroke.ordinal, stroke.at'),
  springBacks: ofJob('spring_back', 'ordinal'),
  holds: of('hold', 'item_id', 'workItems'),
  plates: of('plate', 'item_id', 'workItems'),
  hungPanels: ofJob('hung_panel'),
  panelSeams: keyed('panel_seam', ['hungId', 'seamId'], 'hungPanels'),
  panelSettings: of('panel_setting', 'hung_id', 'hungPanels', 'panel_setting.ordinal'),
  settingEffects: keyed('setting_effect', ['settingId', 'stationId'], 'panelSettings'),
  shims: ofJob('shim', 'thickness'),
  bodyPackers: ofJob('body_packer', 'name'),
  packerEffects: keyed('packer_effect', ['packerId', 'stationId'], 'bodyPackers'),
  panelMeasures: of('panel_measure', 'hung_id', 'hungPanels'),
  openingCorners: keyed('opening_corner', ['hungId', 'corner'], 'hungPanels'),
  allowances: ofJob('allowance', 'name'),
  panelJoints: { ...keyed('panel_joint', ['hungId', 'name'], 'hungPanels'), order: 'panel_joint.name' },
  letGos: of('let_go', 'hung_id', 'hungPanels', 'let_go.at'),
  fixings: of('fixing', 'hung_id', 'hungPanels', 'fixing.name'),
  laps: ofJob('lap'),
  fitChecks: ofJob('fit_check', 'kind, place'),
  fitReadings: of('fit_reading', 'check_id', 'fitChecks', 'fit_reading.at'),
  trims: of('panel_trim', 'hung_id', 'hungPanels', 'panel_trim.place'),
  stages: ofJob('stage', 'ordinal'),
  panels: ofJob('panel'),
  panelPoints: keyed('panel_point', ['panelId', 'pointId'], 'panels'),
  platformPoints: { ...ofJob('platform_point'), key: ['pointId'] },
  gaugeParts: ofJob('gauge_part', 'code'),
  partHoles: of('part_hole', 'gauge_part_id', 'gaugeParts', 'part_hole.code'),
  partChecks: of('part_check', 'gauge_part_id', 'gaugeParts'),
  readings: of('reading', 'round_id', 'rounds', 'round.number, reading.sequence'),
  readingStrikes: of('reading_strike', 'reading_id', 'readings', 'reading_strike.struck_at'),
  readingKeeps: of('reading_keep', 'reading_id', 'readings', 'reading_keep.at'),
  pointConditions: of('point_condition', 'round_id', 'rounds', 'point_condition.at'),
  braces: ofJob('brace'),
  braceDimensions: keyed('brace_dimension', ['braceId', 'dimensionId'], 'braces'),
  steps: ofJob('step', 'ordinal'),
  stepEvents: of('step_event', 'step_id', 'steps', 'step_event.at'),
  stepNeeds: keyed('step_need', ['stepId', 'needsId'], 'steps'),
  stepPeople: keyed('step_person', ['stepId', 'personId'], 'steps'),
  bookings: of('booking', 'step_id', 'steps', 'booking.at'),
  timers: ofJob('timer', 'rings_at'),
  logEntries: ofJob('log_entry', 'at'),
  logSubjects: of('log_subject', 'entry_id', 'logEntries'),
  photographs: ofJob('photograph', 'at'),
  signedRecords: ofJob('signed_record', 'number'),
  changes: ofJob('change', 'at'),
  withdrawals: ofJob('withdrawal', 'at'),
  findingDetails: keyed('finding_detail', ['entryId'], 'logEntries'),
  decisionDetails: keyed('decision_detail', ['entryId'], 'logEntries'),
  partTags: ofJob('part_tag', 'number'),
  morningChecks: ofJob('morning_check', 'at'),
  morningReadings: of('morning_reading', 'morning_check_id', 'morningChecks'),
  workItems: ofJob('work_item'),
  workEvents: of('work_event', 'item_id', 'workItems', 'work_event.at'),
  setUps: ofJob('set_up'),
  mounts: of('mount', 'set_up_id', 'setUps', 'mount.ordinal'),
  mountPieces: of('mount_piece', 'mount_id', 'mounts', 'mount_piece.ordinal'),
  structures: ofJob('structure', 'edition'),
  nodes: of('node', 'structure_id', 'structures'),
  members: of('member', 'structure_id', 'structures'),
  shearPanels: of('shear_panel', 'structure_id', 'structures'),
  pressTests: ofJob('press_test', 'at'),
  panelParts: keyed('panel_part', ['panelId', 'code'], 'panels'),
  joints: ofJob('joint'),
  weldSeams: ofJob('weld_seam'),
  weldStretches: of('weld_stretch', 'seam_id', 'weldSeams', 'weld_stretch.starts'),
  weldMarks: of('weld_mark', 'seam_id', 'weldSeams', 'weld_mark.at'),
  cracks: ofJob('crack'),
  stiffeners: ofJob('stiffener'),
  axleReadings: ofJob('axle_reading', 'at'),
  cutLines: of('cut_line', 'panel_id', 'panels', 'cut_line.label'),
  templates: ofJob('template', 'name'),
  templatePoints: of('template_point', 'template_id', 'templates', 'template_point.ordinal'),
  keepOuts: ofJob('keep_out', 'name'),
  adviceTaken: ofJob('advice_taken', 'at'),
  removalChecks: ofJob('removal_check', 'at'),
  removalReadings: of('removal_reading', 'check_id', 'removalChecks'),
};

export const nameOf = (table: JobTable): string => TABLES[table].name;

/** The table of the program that a table of the database holds. */
export const tableNamed = (name: string): JobTable => TABLE_NAMED.get(name)!;
const TABLE_NAMED: ReadonlyMap<string, JobTable> = new Map(JOB_TABLE_NAMES.map((table) => [TABLES[table].name, table]));

/** The keys that tell the rows of a table apart. */
export const keysOf = (table: JobTable): readonly string[] => TABLES[table].key ?? ['id'];

const fieldsOf = (table: JobTable): string[] => Object.keys(JOB_TABLES[table].shape);

/** The columns of a table, for a select: `job.id, job.name, …`. */
export const columns = (table: JobTable): string =>
  fieldsOf(table)
    .map((key) => `${nameOf(table)}.${snake(key)}`)
    .join(', ');

/** `from … where …` of the rows of a job, `$1` the job: down the owners to the job. */
export function rowsOfJob(table: JobTable): string {
  const joins: string[] = [];
  let at: JobTable = table;
  for (;;) {
    const { name, owner } = TABLES[at];
    if (owner === undefined) return `${nameOf(table)} where true or $1::uuid is null`;
    if (owner === 'job') {
      const key = at === 'jobs' ? 'id' : 'job_id';
      return `${[nameOf(table), ...joins].join(' ')} where ${name}.${key} = $1::uuid`;
    }
    const [key, above] = owner;
    joins.push(`join ${nameOf(above)} on ${nameOf(above)}.id = ${name}.${key}`);
    at = above;
  }
}

/** One table's rows of a job as one JSON array, keys as the program has them. */
export function jsonOfJob(table: JobTable): string {
  const { order } = TABLES[table];
  const fields = fieldsOf(table).map((key) => `'${key}', ${nameOf(table)}.${snake(key)}`);
  return `(select coalesce(json_agg(json_build_object(${fields.join(', ')})${order ? ` order by ${order}` : ''}), '[]')
    from ${rowsOfJob(table)})`;
}

/** The keys of a table that hold times, as their schemas say. */
export const TIME_KEYS: Readonly<Record<JobTable, readonly string[]>> = Object.fromEntries(
  JOB_TABLE_NAMES.map((table) => [
    table,
    Object.entries(JOB_TABLES[table].shape).flatMap(([key, field]) => (isTime(field as z.ZodType) ? [key] : [])),
  ]),
) as never;

function isTime(field: z.ZodType): boolean {
  const { type, innerType, format } = field.def as unknown as { type: string; innerType?: z.ZodType; format?: string };
  return innerType ? isTime(innerType) : type === 'string' && format === 'datetime';
}

/** Rows a statement: enough that statements do not count, few enough that their text stays small. */
const ROWS_A_STATEMENT = 5000;

/**
 * Inserts rows. With `skipExisting` a row whose identity is already there is left as it is, which
 * makes a repeated delivery harmless.
 */
export const insert = <T extends JobTable>(
  tx: Queryable,
  table: T,
  rows: readonly RowOf<T>[],
  { skipExisting = false } = {},
): Promise<void> => write(tx, table, rows, skipExisting ? 'on conflict do nothing' : '');

/** Writes rows as they are to be, whether they are there or not; one that is just so already is not touched. */
export function put<T extends JobTable>(tx: Queryable, table: T, rows: readonly RowOf<T>[]): Promise<void> {
  const keys = keysOf(table);
  const rest = fieldsOf(table).filter((field) => !keys.includes(field));
  const list = (of: string) => rest.map((field) => `${of}.${snake(field)}`).join(', ');
  const change =
    rest.length === 0
      ? 'nothing'
      : `update set ${rest.map((field) => `${snake(field)} = excluded.${snake(field)}`).join(', ')}
         where (${list(nameOf(table))}) is distinct from (${list('excluded')})`;
  return write(tx, table, rows, `on conflict (${keys.map(snake).join(', ')}, shop_id) do ${change}`);
}

async function write<T extends JobTable>(
  tx: Queryable,
  table: T,
  rows: readonly RowOf<T>[],
  onConflict: string,
): Promise<void> {
  const fields = fieldsOf(table);
  const list = fields.map(snake).join(', ');
  for (let start = 0; start < rows.length; start += ROWS_A_STATEMENT) {
    const some = rows.slice(start, start + ROWS_A_STATEMENT) as readonly Record<string, unknown>[];
    const records = some.map((row) => Object.fromEntries(fields.map((key) => [snake(key), row[key] ?? null])));
    // One parameter with all rows, many times as fast here as a parameter for every cell. The schema is
    // named because `point` alone would be PostgreSQL's own type of that name.
    await tx.query(
      `insert into ${nameOf(table)} (${list})
       select ${list} from jsonb_populate_recordset(null::public.${nameOf(table)}, $1::jsonb)
       ${onConflict}`,
      [JSON.stringify(records)],
    );
  }
}

/** Removes the rows with these keys. */
export async function removeByKey(
  tx: Queryable,
  table: JobTable,
  gone: readonly Readonly<Record<string, string>>[],
): Promise<void> {
  const keys = keysOf(table);
  for (const row of gone)
    await tx.query(
      `delete from ${nameOf(table)} where ${keys.map((key, i) => `${snake(key)} = $${i + 1}`).join(' and ')}`,
      keys.map((key) => row[key]),
    );
}

/** Tables whose rows a user may edit: they carry a version. */
export type EditableTable =
  | 'jobs'
  | 'points'
  | 'dimensions'
  | 'seams'
  | 'hungPanels'
  | 'referencePoints'
  | 'referenceDimensions'
  | 'referenceStations'
  | 'rounds'
  | 'braces'
  | 'pulls'
  | 'steps'
  | 'partTags'
  | 'setUps'
  | 'gaugeParts'
  | 'workItems'
  | 'panels'
  | 'stages'
  | 'joints'
  | 'templates'
  | 'weldSeams'
  | 'cracks'
  | 'stiffeners';

/** One row by its identity. */
export async function rowById<T extends EditableTable>(
  tx: Queryable,
  table: T,
  id: string,
): Promise<RowOf<T> | undefined> {
  const [row] = await tx.query<RowOf<T>>(`select ${columns(table)} from ${nameOf(table)} where id = $1`, [id]);
  return row;
}

export type UpdateResult<Row> =
  { readonly ok: true; readonly row: Row } | { readonly ok: false; readonly current: Row | undefined };

/**
 * Writes an edited row if nobody changed it since `row.version` was read, and raises its version.
 *
 * @returns the row as written; or, where another edit came first, the row as it is now
 */
export async function update<T extends EditableTable>(
  tx: Queryable,
  table: T,
  row: RowOf<T>,
): Promise<UpdateResult<RowOf<T>>> {
  const { id, version } = row as { id: string; version: number };
  const keys = fieldsOf(table).filter((key) => key !== 'id' && key !== 'version');
  const [written] = await tx.query<RowOf<T>>(
    `update ${nameOf(table)}
     set ${keys.map((key, i) => `${snake(key)} = $${i + 3}`).join(', ')}, version = version + 1
     where id = $1 and version = $2
     returning ${columns(table)}`,
    [id, version, ...keys.map((key) => (row as Record<string, unknown>)[key])],
  );
  if (written) return { ok: true, row: written };
  const current = await rowById(tx, table, id);
  return { ok: false, current };
}
