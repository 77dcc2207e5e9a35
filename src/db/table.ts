import { JOB_TABLES, type JobTable, type RowOf } from '@/core/shell/job/job-rows';
import { snake, type Queryable } from './database';

/** Names of the tables in the database, by the name their rows have in the program. */
export const TABLE: Readonly<Record<JobTable, string>> = {
  jobs: 'job',
  instruments: 'instrument',
  instrumentVersions: 'instrument_version',
  points: 'point',
  dimensions: 'dimension',
  memberLines: 'member_line',
  seams: 'seam',
  seamStations: 'seam_station',
  features: 'feature',
  shellStates: 'shell_state',
  supports: 'support',
  rounds: 'round',
  roundControls: 'round_control',
  references: 'reference',
  referencePoints: 'reference_point',
  referenceDimensions: 'reference_dimension',
  referenceStations: 'reference_station',
  referenceRounds: 'reference_round',
  referenceChoices: 'reference_choice',
  pulls: 'pull',
  pullEvents: 'pull_event',
  readings: 'reading',
  readingStrikes: 'reading_strike',
  readingKeeps: 'reading_keep',
  pointConditions: 'point_condition',
  braces: 'brace',
  braceDimensions: 'brace_dimension',
  braceEvents: 'brace_event',
  steps: 'step',
  stepEvents: 'step_event',
  logEntries: 'log_entry',
  logSubjects: 'log_subject',
  photographs: 'photograph',
  signedRecords: 'signed_record',
};

const keysOf = (table: JobTable): string[] => Object.keys(JOB_TABLES[table].shape);

/** The columns of a table, for a select: `job.id, job.name, …`. */
export const columns = (table: JobTable): string =>
  keysOf(table)
    .map((key) => `${TABLE[table]}.${snake(key)}`)
    .join(', ');

/** Rows a statement: enough that statements do not count, few enough that their text stays small. */
const ROWS_A_STATEMENT = 5000;

/**
 * Inserts rows. With `skipExisting` a row whose identity is already there is left as it is, which
 * makes a repeated delivery harmless.
 */
export async function insert<T extends JobTable>(
  tx: Queryable,
  table: T,
  rows: readonly RowOf<T>[],
  { skipExisting = false } = {},
): Promise<void> {
  const keys = keysOf(table);
  const list = keys.map(snake).join(', ');
  for (let start = 0; start < rows.length; start += ROWS_A_STATEMENT) {
    const some = rows.slice(start, start + ROWS_A_STATEMENT) as readonly Record<string, unknown>[];
    const records = some.map((row) => Object.fromEntries(keys.map((key) => [snake(key), row[key] ?? null])));
    // One parameter with all rows, many times as fast here as a parameter for every cell. The schema is
    // named because `point` alone would be PostgreSQL's own type of that name.
    await tx.query(
      `insert into ${TABLE[table]} (${list})
       select ${list} from jsonb_populate_recordset(null::public.${TABLE[table]}, $1::jsonb)
       ${skipExisting ? 'on conflict do nothing' : ''}`,
      [JSON.stringify(records)],
    );
  }
}

/** Tables whose rows a user may edit: they carry a version. */
export type EditableTable =
  | 'jobs'
  | 'points'
  | 'dimensions'
  | 'seams'
  | 'referencePoints'
  | 'referenceDimensions'
  | 'referenceStations'
  | 'rounds'
  | 'braces'
  | 'pulls'
  | 'steps';

/** One row by its identity. */
export async function rowById<T extends EditableTable>(
  tx: Queryable,
  table: T,
  id: string,
): Promise<RowOf<T> | undefined> {
  const [row] = await tx.query<RowOf<T>>(`select ${columns(table)} from ${TABLE[table]} where id = $1`, [id]);
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
  const keys = keysOf(table).filter((key) => key !== 'id' && key !== 'version');
  const [written] = await tx.query<RowOf<T>>(
    `update ${TABLE[table]}
     set ${keys.map((key, i) => `${snake(key)} = $${i + 3}`).join(', ')}, version = version + 1
     where id = $1 and version = $2
     returning ${columns(table)}`,
    [id, version, ...keys.map((key) => (row as Record<string, unknown>)[key])],
  );
  if (written) return { ok: true, row: written };
  const current = await rowById(tx, table, id);
  return { ok: false, current };
}
