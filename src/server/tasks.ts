import { existsSync } from 'node:fs';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { Job } from '@/core/shell/job/job';
import type { JobRows } from '@/core/shell/job/job-rows';
import { TaskPool, type Channel, type TaskOptions } from '@/workers/pool';
import { TASKS, type TaskInput, type TaskName, type TaskResult } from '@/workers/tasks';
import type { TaskMessage } from '@/workers/serve';

/** Where `scripts/bundle.mjs` puts the thread. */
const THREAD = path.join(process.cwd(), 'dist/task-thread.mjs');
const THREADS = 2;
/** Results kept: pages of the job last looked at. */
const KEPT = 64;

function startThread(receive: (message: TaskMessage) => void, failed: (error: Error) => void): Channel {
  // Not `new Worker`: the server's own build would look for the file, which is made after it, and take in a copy.
  const thread = Reflect.construct(Worker, [THREAD]);
  thread.on('message', receive);
  thread.on('error', failed);
  thread.unref();
  return { post: (request) => thread.postMessage(request), end: () => void thread.terminate() };
}

/** One pool a process, shared by all bundles of the server: module state would be one each. */
const shared = globalThis as typeof globalThis & {
  vinkelTasks?: TaskPool;
  vinkelResults?: Map<string, Promise<unknown>>;
};

/** Rows of a job as they were at a revision: `key` is the same for the same rows. */
export interface RowsAt {
  readonly rows: JobRows;
  readonly key: string;
}

/**
 * Runs a task in a thread of the server, away from the database. The same task on the same state of a job is computed
 * once: several pages ask for it. Where nothing was built (tests of use cases), it runs here.
 */
export function runTask<Name extends TaskName>(
  task: Name,
  { rows, key }: RowsAt,
  input: TaskInput<Name>,
  options: TaskOptions = {},
): Promise<TaskResult<Name>> {
  const results = (shared.vinkelResults ??= new Map());
  const named = `${key} ${task} ${JSON.stringify(input ?? null)}`;
  const known = results.get(named);
  if (known) return known as Promise<TaskResult<Name>>;
  const result = existsSync(THREAD)
    ? (shared.vinkelTasks ??= new TaskPool(startThread, THREADS)).run(task, rows, key, input, options)
    : runHere(task, rows, input);
  results.set(named, result);
  for (const oldest of results.keys()) if (results.size > KEPT) results.delete(oldest);
  result.catch(() => results.delete(named));
  return result;
}

async function runHere<Name extends TaskName>(
  task: Name,
  rows: JobRows,
  input: TaskInput<Name>,
): Promise<TaskResult<Name>> {
  const run = TASKS[task] as unknown as (
    job: Job,
    input: TaskInput<Name>,
    running: { progress(): void },
  ) => TaskResult<Name>;
  return run(Job.of(rows), input, { progress: () => undefined });
}
