import type { Job } from '@/core/shell/job/entities';
import { byCode } from '@/core/shell/by-code';
import { JOB_TABLE_NAMES, type JobRows, type JobTable } from '@/core/shell/job/job-rows';
import { isoTime, type Queryable } from './database';
import { noteRemoval } from './journal/journalled';
import { columns, jsonOfJob, nameOf, rowsOfJob, TABLES, TIME_KEYS } from './table';

/** One line of the job list. */
export interface JobSummary extends Job {
  readonly pointCount: number;
  readonly roundCount: number;
  readonly readingCount: number;
  readonly lastReadingAt: string | null;
  readonly recordCount: number;
}

/** Which jobs are listed: those in whose names, owner or number a text stands, and so many of those in hand and put away each. */
export interface Sought {
  readonly find?: string;
  readonly most?: number;
}

/** What is looked through for a text, and how. */
const FOUND = `position(lower($1) in lower(concat_ws(' ', job.name, job.shell, job.identity_number, job.owner))) > 0`;

/** Jobs with what is in them, the one last measured first; counted are only those that are listed. */
export const listJobs = (db: Queryable, { find = '', most = 1_000_000 }: Sought = {}): Promise<JobSummary[]> =>
  db.query(
    `with found as (
       select id, put_away_at is not null as away, started_at,
         (select max(taken_at) from reading where reading.job_id = job.id) as last_reading_at
       from job where ${FOUND}
     ), listed as (
       select *, row_number() over (partition by away order by last_reading_at desc nulls first, started_at desc) as place
       from found
     )
     select ${columns('jobs')}, listed.last_reading_at,
       (select count(*)::int from point where point.job_id = job.id) as point_count,
       (select count(*)::int from round where round.job_id = job.id) as round_count,
       (select count(*)::int from reading where reading.job_id = job.id) as reading_count,
       (select count(*)::int from signed_record where signed_record.job_id = job.id) as record_count
     from listed join job on job.id = listed.id
     where place <= $2 order by away, place`,
    [find, most],
  );

/** How many jobs there are, and how many are found, in hand and put away. */
export async function countJobs(db: Queryable, find = ''): Promise<{ all: number; inHand: number; away: number }> {
  const [counted] = await db.query<{ all: number; inHand: number; away: number }>(
    `select count(*)::int as all, count(*) filter (where ${FOUND} and put_away_at is null)::int as in_hand,
       count(*) filter (where ${FOUND} and put_away_at is not null)::int as away
     from job`,
    [find],
  );
  return counted!;
}

/** All jobs by themselves, the newest first, and whether a record of each was signed. */
export const jobsAlone = (db: Queryable): Promise<(Job & { readonly isSigned: boolean })[]> =>
  db.query(
    `select ${columns('jobs')}, exists (select from signed_record where signed_record.job_id = job.id) as is_signed
     from job order by started_at desc, id`,
  );

export const listJobIds = async (db: Queryable): Promise<string[]> =>
  (await db.query<{ id: string }>('select id from job order by id')).map(({ id }) => id);

/**
 * Everything a job consists of, except the pictures themselves, in one round trip.
 *
 * @param last the job as it was read before: of a table that is as it was then its own rows are given, and where all are, the job
 *   itself, so that what was worked out of them is known again
 * @returns undefined where there is no such job
 */
export async function loadJob(db: Queryable, jobId: string, last?: JobRows): Promise<JobRows | undefined> {
  const read = await db.query<{ name: JobTable; text: string }>(LOAD_JOB, [jobId]);
  const texts = new Map(read.map(({ name, text }) => [name, text]));
  if (texts.get('jobs') === '[]') return undefined;
  const before = last && readAs.get(last);
  const isAsBefore = (table: JobTable) => before?.get(table) === texts.get(table);
  if (last && JOB_TABLE_NAMES.every(isAsBefore)) return last;
  const rowsOf = (table: JobTable) => (last && isAsBefore(table) ? last[table] : rowsIn(table, texts.get(table)!));
  const rows = Object.fromEntries(JOB_TABLE_NAMES.map((table) => [table, rowsOf(table)])) as unknown as JobRows;
  readAs.set(rows, texts);
  return rows;
}

/** What was read of each table, to compare with what is read next; shared by all bundles of the server, as the rows are. */
const shared = globalThis as typeof globalThis & { vinkelReadAs?: WeakMap<JobRows, ReadonlyMap<JobTable, string>> };
const readAs = (shared.vinkelReadAs ??= new WeakMap());

function rowsIn(table: JobTable, text: string): readonly unknown[] {
  const rows = JSON.parse(text) as Record<string, unknown>[];
  for (const key of TIME_KEYS[table])
    for (const row of rows) if (typeof row[key] === 'string') row[key] = isoTime(row[key]);
  return CODED.has(table) ? (rows as { code: string }[]).sort((a, b) => byCode(a.code, b.code)) : rows;
}

/** Tables read in the order of their codes, as people count and not as the database sorts. */
const CODED: ReadonlySet<JobTable> = new Set(['points', 'dimensions', 'seams', 'workItems']);

const LOAD_JOB = `select name, rows::text as text
  from (values ${JOB_TABLE_NAMES.map((table) => `('${table}', ${jsonOfJob(table)})`).join(',\n')}) as all_tables (name, rows)`;

/** Removes a whole job, all but the bytes of its pictures: the only delete that append-only rows allow. */
export async function removeJob(tx: Queryable, jobId: string): Promise<void> {
  await tx.query("select set_config('vinkel.removing', 'a job', true)");
  await tx.query('delete from job_export where job_id = $1', [jobId]);
  for (const table of JOB_TABLE_NAMES.toReversed()) {
    if (!TABLES[table].owner) continue;
    const name = nameOf(table);
    await tx.query(`delete from ${name} where ctid in (select ${name}.ctid from ${rowsOfJob(table)})`, [jobId]);
  }
  await tx.query("select set_config('vinkel.removing', '', true)");
  await noteRemoval(tx, jobId);
}
