import { putLast } from '@/core/maths/once';
import { JOB_TABLE_NAMES, type JobRows } from '@/core/shell/job/job-rows';
import type { SentRows } from './serve';
import type { TaskName } from './tasks';

/** States of one job a worker keeps, and jobs. */
const STATES = 3;
const JOBS = 3;

interface KnownJob {
  /** Rows by their keys, the last used last. */
  readonly states: Map<string, JobRows>;
  /** What was done with them: what that takes is known by now. */
  readonly did: Set<TaskName>;
}

const jobOf = (rows: JobRows): string => rows.jobs[0]?.id ?? '';
const same = (one: JobRows, other: JobRows): number =>
  JOB_TABLE_NAMES.filter((table) => one[table] === other[table]).length;

/** The rows a worker has: which of them to send, which to forget, and how much it knows of what is asked. */
export class KnownRows {
  /** By the jobs' ids, the last used last. */
  private readonly jobs = new Map<string, KnownJob>();

  /** More where less is to be sent and worked out: first whether it did that task with the job, then how many tables it has. */
  worth(task: TaskName, rows: JobRows): number {
    const known = this.jobs.get(jobOf(rows));
    if (!known) return 0;
    const tables = Math.max(...[...known.states.values()].map((state) => same(state, rows)));
    return 1 + tables + (known.did.has(task) ? JOB_TABLE_NAMES.length : 0);
  }

  /** What is to be sent to it with a task, as if it were sent now; rows it knows are not. */
  take(task: TaskName, key: string, rows: JobRows): { readonly rows?: SentRows; readonly forget: readonly string[] } {
    const id = jobOf(rows);
    const known = this.jobs.get(id) ?? { states: new Map<string, JobRows>(), did: new Set<TaskName>() };
    const sent = known.states.has(key) ? undefined : difference(rows, known.states);
    known.did.add(task);
    const forget = putLast(known.states, key, rows, STATES).map(([state]) => state);
    for (const [, { states }] of putLast(this.jobs, id, known, JOBS)) forget.push(...states.keys());
    return { ...(sent ? { rows: sent } : {}), forget };
  }
}

/** What differs from the nearest state: tables, or what was added to them, and where the others are. */
function difference(rows: JobRows, states: ReadonlyMap<string, JobRows>): SentRows {
  const [nearest] = [...states].toReversed().sort(([, a], [, b]) => same(rows, b) - same(rows, a));
  if (!nearest) return { tables: rows };
  const [rest, known] = nearest;
  const changed = JOB_TABLE_NAMES.filter((table) => rows[table] !== known[table]);
  const longer = changed.filter((table) => goesOn(known[table], rows[table]));
  const others = changed.filter((table) => !longer.includes(table));
  const more = longer.map((table) => [table, rows[table].slice(known[table].length)]);
  return {
    tables: Object.fromEntries(others.map((table) => [table, rows[table]])),
    rest,
    ...(longer.length > 0 ? { more: Object.fromEntries(more) as Partial<JobRows> } : {}),
  };
}

/** A table begins with the very rows of another. */
const goesOn = (before: readonly object[], now: readonly object[]): boolean =>
  before.length > 0 && before.every((row, i) => row === now[i]);
