import { JOB_TABLES } from '@/core/shell/job/job-rows';
import { camelRows, isoTime, isWrite, type Database, type Queryable } from '../database';
import { keysOf, tableNamed, TIME_KEYS } from '../table';
import type { JournalLine, TableChange } from './line';

interface Noted {
  readonly tableName: string;
  readonly gone: boolean;
  readonly rows: readonly Record<string, unknown>[];
  readonly number: string;
}

/** Empties what the transaction has noted, and raises the journal's number where that was anything. */
const TAKE_NOTED = `
  with noted as (delete from noted_change returning ordinal, table_name, gone, rows),
    marked as (update journal_mark set number = number + 1 where exists (select from noted_change) returning number)
  select table_name, gone, rows, (select number from marked)::text as number from noted order by ordinal`;

/** Which jobs a transaction changed; all of them where it was something of the shop's. */
export type ChangedJobs = ReadonlySet<string> | 'all';

/** What a transaction changed: its number, and the jobs it is of. */
export interface Changed {
  readonly number: number;
  readonly jobs: ChangedJobs;
}

/** What goes on around a transaction that writes. */
interface Around {
  /** Throws `DiskFull` where the disk has no room left, before anything is written. */
  readonly hasRoom?: () => Promise<void>;
  /** Keeps what was changed, before it is committed: in a journal, where the database does not keep one itself. */
  readonly keep: (line: JournalLine, jobs: ChangedJobs, tx: Queryable) => Promise<unknown>;
  /** Told once it is committed. */
  readonly changed: (change: Changed) => void;
}

/**
 * The same database, where what a transaction changed is kept before it commits, so that whatever was acknowledged can be
 * done again, and told of when it has.
 *
 * @param database one whose sessions note what they change: `vinkel.journal` is on in them
 */
export function journalled(database: Database, { hasRoom, keep, changed }: Around): Database {
  const transaction: Database['transaction'] = async (work) => {
    let change: Changed | undefined;
    const done = await database.transaction(async (tx) => {
      let wrote = false;
      const result = await work({
        query: async (sql, parameters) => {
          if (!wrote && isWrite(sql)) {
            await hasRoom?.();
            wrote = true;
          }
          return tx.query(sql, parameters);
        },
      });
      if (wrote) {
        const noted = await takeNoted(tx);
        if (noted) await keep(noted.line, noted.jobs, tx);
        change = noted && { number: noted.line.number, jobs: noted.jobs };
      }
      return result;
    });
    if (change) changed(change);
    return done;
  };
  return {
    transaction,
    query: (sql, parameters) =>
      isWrite(sql) ? transaction((tx) => tx.query(sql, parameters)) : database.query(sql, parameters),
    script: (sql) => database.script(sql),
    close: () => database.close(),
  };
}

/** What the transaction noted, and the jobs it is of, where it noted anything. */
async function takeNoted(tx: Queryable): Promise<{ line: JournalLine; jobs: ChangedJobs } | undefined> {
  const noted = await tx.query<Noted>(TAKE_NOTED);
  const [first] = noted;
  if (!first) return undefined;
  const line = { number: Number(first.number), at: new Date().toISOString(), changes: noted.map(changeOf) };
  return { line, jobs: jobsOf(noted) };
}

function jobsOf(noted: readonly Noted[]): ChangedJobs {
  const jobs = new Set<string>();
  for (const { tableName, rows } of noted)
    for (const row of rows) {
      const job = tableName === 'job' ? row.id : row.job_id;
      if (typeof job !== 'string') return 'all';
      jobs.add(job);
    }
  return jobs;
}

/** What was noted, with the names and times the program has. */
function changeOf({ tableName, gone, rows }: Noted): TableChange {
  const table = tableNamed(tableName);
  const keys = gone ? keysOf(table) : Object.keys(JOB_TABLES[table].shape);
  const times = new Set(TIME_KEYS[table]);
  const told = camelRows<Record<string, unknown>>(rows).map((row) =>
    Object.fromEntries(
      keys.map((key) => [key, times.has(key) && typeof row[key] === 'string' ? isoTime(row[key]) : row[key]]),
    ),
  );
  if (gone) return { table, gone: told } as TableChange;
  for (const row of told) {
    const read = JOB_TABLES[table].safeParse(row);
    const [issue] = read.error?.issues ?? [];
    if (issue) throw new Unkeepable(issue.path.join('.'), issue.message);
  }
  return { table, rows: told } as unknown as TableChange;
}

/** Something was written that its schema refuses: it could be read back neither from the journal nor from an export. */
export class Unkeepable extends Error {
  constructor(
    readonly field: string,
    readonly why: string,
  ) {
    super(`${field} cannot be kept: ${why}`);
    this.name = 'Unkeepable';
  }
}

/** Notes that a whole job is gone, for a transaction that removes it. */
export const noteRemoval = (tx: Queryable, jobId: string): Promise<unknown[]> =>
  tx.query(
    `insert into noted_change (table_name, gone, rows)
     select 'job', true, json_build_array(json_build_object('id', $1::uuid))
     where current_setting('vinkel.journal', true) = 'on'`,
    [jobId],
  );

/** By name: each bundle of the server has a class of its own. */
export const isUnkeepable = (error: unknown): error is Unkeepable => (error as Error)?.name === 'Unkeepable';
