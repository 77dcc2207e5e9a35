import { existsSync } from 'node:fs';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { once, putLast } from '@/core/maths/once';
import { Job } from '@/core/shell/job/job';
import type { JobRows } from '@/core/shell/job/job-rows';
import { TaskPool, type Channel, type TaskOptions } from '@/workers/pool';
import { TASKS, type TaskInput, type TaskName, type TaskResult } from '@/workers/tasks';
import type { TaskMessage } from '@/workers/serve';

/** Where `scripts/bundle.mjs` puts the thread. */
const THREAD = path.join(process.cwd(), 'dist/task-thread.mjs');
const THREADS = 2;
/** Results kept of one state of a job. */
const KEPT = 32;

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
  vinkelResults?: WeakMap<JobRows, Map<string, Promise<unknown>>>;
};

/**
 * Runs a task in a thread of the server, away from the database. The same task on the same rows is computed once: several pages
 * ask for it. Where nothing was built (tests of use cases), it runs here.
 */
export function runTask<Name extends TaskName>(
  task: Name,
  rows: JobRows,
  input: TaskInput<Name>,
  options: TaskOptions = {},
): Promise<TaskResult<Name>> {
  const results = once((shared.vinkelResults ??= new WeakMap()), rows, () => new Map<string, Promise<unknown>>());
  const named = `${task} ${JSON.stringify(input ?? null)}`;
  const known = results.get(named);
  if (known) return known as Promise<TaskResult<Name>>;
  const result = existsSync(THREAD)
    ? (shared.vinkelTasks ??= new TaskPool(startThread, THREADS)).run(task, rows, input, options)
    : runHere(task, rows, input);
  putLast(results, named, result, KEPT);
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
