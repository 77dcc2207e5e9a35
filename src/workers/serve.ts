import { emptyJobRows, type JobRows } from '@/core/shell/job/job-rows';
import { Job } from '@/core/shell/job/job';
import { TASKS, type Running, type TaskName } from './tasks';

/** Rows of a job: all tables, or what differs from rows the worker has. */
export interface SentRows {
  readonly tables: Partial<JobRows>;
  /** Key of the rows that the other tables are taken from; absent where all are sent. */
  readonly rest?: string;
  /** What has been added at the end of tables that are otherwise those of the rest: a line of a tape is. */
  readonly more?: Partial<JobRows>;
}

/** A task to do. Rows are sent once and named after that. */
export interface TaskRequest {
  readonly id: number;
  readonly task: TaskName;
  readonly input: unknown;
  readonly rowsKey: string;
  readonly rows?: SentRows;
  /** Keys of rows that are not asked for again. */
  readonly forget: readonly string[];
}

export type TaskMessage =
  | { readonly id: number; readonly kind: 'done'; readonly result: unknown }
  | { readonly id: number; readonly kind: 'failed'; readonly message: string; readonly stack?: string }
  | { readonly id: number; readonly kind: 'progress'; readonly share: number };

/** What both kinds of worker do with a message: runs the task on the rows it names and posts what comes of it. */
export function taskServer(
  post: (message: TaskMessage) => void,
  means: Pick<Running, 'solver'> = {},
): (request: TaskRequest) => Promise<void> {
  const jobs = new Map<string, Job>();
  const whole = ({ tables, rest, more = {} }: SentRows): JobRows => {
    const others = rest === undefined ? emptyJobRows() : jobs.get(rest)?.rows;
    if (!others) throw new Error(`the rows of ${rest} never came`);
    const longer = (Object.keys(more) as (keyof JobRows)[]).map((table) => [
      table,
      [...others[table], ...more[table]!],
    ]);
    return { ...others, ...tables, ...(Object.fromEntries(longer) as Partial<JobRows>) };
  };
  const jobFor = (rowsKey: string, rows: SentRows | undefined): Job | undefined => {
    const job = rows ? Job.of(whole(rows)) : jobs.get(rowsKey);
    if (job) jobs.set(rowsKey, job);
    return job;
  };
  return async ({ id, task, input, rowsKey, rows, forget }) => {
    try {
      const job = jobFor(rowsKey, rows);
      for (const key of forget) jobs.delete(key);
      if (!job) throw new Error(`the rows of ${rowsKey} never came`);
      const run = TASKS[task] as (job: Job, input: unknown, running: Running) => unknown;
      post({
        id,
        kind: 'done',
        result: await run(job, input, { ...means, progress: (share) => post({ id, kind: 'progress', share }) }),
      });
    } catch (error) {
      const { message, stack } = error as Error;
      post({ id, kind: 'failed', message, ...(stack ? { stack } : {}) });
    }
  };
}
