import type { JobRows } from '@/core/shell/job/job-rows';
import { Job } from '@/core/shell/job/job';
import { TASKS, type TaskName } from './tasks';

/** A task to do. Rows are sent once and named after that. */
export interface TaskRequest {
  readonly id: number;
  readonly task: TaskName;
  readonly input: unknown;
  readonly rowsKey: string;
  readonly rows?: JobRows;
}

export type TaskMessage =
  | { readonly id: number; readonly kind: 'done'; readonly result: unknown }
  | { readonly id: number; readonly kind: 'failed'; readonly message: string; readonly stack?: string }
  | { readonly id: number; readonly kind: 'progress'; readonly share: number };

/** Rows of so many states of jobs are kept: those of the last pages looked at. */
export const ROWS_KEPT = 4;

/** What both kinds of worker do with a message: runs the task on the rows it names and posts what comes of it. */
export function taskServer(post: (message: TaskMessage) => void): (request: TaskRequest) => void {
  const jobs = new Map<string, Job>();
  return ({ id, task, input, rowsKey, rows }) => {
    const job = rows ? Job.of(rows) : jobs.get(rowsKey);
    if (job) {
      jobs.delete(rowsKey);
      jobs.set(rowsKey, job);
      for (const oldest of jobs.keys()) if (jobs.size > ROWS_KEPT) jobs.delete(oldest);
    }
    try {
      if (!job) throw new Error(`the rows of ${rowsKey} never came`);
      const run = TASKS[task] as (job: Job, input: unknown, running: { progress(share: number): void }) => unknown;
      post({
        id,
        kind: 'done',
        result: run(job, input, { progress: (share) => post({ id, kind: 'progress', share }) }),
      });
    } catch (error) {
      const { message, stack } = error as Error;
      post({ id, kind: 'failed', message, ...(stack ? { stack } : {}) });
    }
  };
}
