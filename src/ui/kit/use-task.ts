'use client';

import { useEffect, useState } from 'react';
import { markWorking } from './ready';
import type { JobRows } from '@/core/shell/job/job-rows';
import { AskedAhead } from '@/workers/asked-ahead';
import { TaskEnded, TaskPool, type Channel } from '@/workers/pool';
import type { TaskMessage } from '@/workers/serve';
import type { TaskInput, TaskName, TaskResult } from '@/workers/tasks';

/** One for what follows the hand, one for what takes longer. */
const WORKERS = 2;

function startWorker(receive: (message: TaskMessage) => void, failed: (error: Error) => void): Channel {
  const worker = new Worker(new URL('../../workers/task.worker.ts', import.meta.url), { type: 'module' });
  worker.onmessage = ({ data }: MessageEvent<TaskMessage>) => receive(data);
  worker.onerror = () => failed(new Error('the computation could not be started: load the page again'));
  return { post: (request) => worker.postMessage(request), end: () => worker.terminate() };
}

let pool: TaskPool | undefined;

/** Runs a task in the pool of this window. */
export const runTask = <Name extends TaskName>(
  task: Name,
  rows: JobRows,
  input: TaskInput<Name>,
  options: { readonly signal?: AbortSignal; readonly onProgress?: (share: number) => void } = {},
): Promise<TaskResult<Name>> => (pool ??= new TaskPool(startWorker, WORKERS)).run(task, rows, input, options);

const ahead = new AskedAhead((task, rows, input, options) => runTask(task, rows, input, options));

/** Asks what a page is going to ask as soon as it is drawn with these rows. */
export const askAhead = <Name extends TaskName>(task: Name, rows: JobRows, input: TaskInput<Name>): void =>
  ahead.ask(task, rows, input);

export interface TaskState<T> {
  /** The last result there is; of the rows and input before while `busy`. */
  readonly value?: T;
  readonly busy: boolean;
  readonly failure?: string;
  /** 0 … 1, where the task says. */
  readonly progress?: number;
}

interface Answer<T> {
  readonly rows: JobRows;
  readonly asked: string;
  readonly value?: T;
  readonly failure?: string;
}

/**
 * The result of a task on some rows, worked out anew when these or the input change; what is asked meanwhile takes the
 * place of what was asked before. With no input nothing is asked.
 *
 * @param delay wait so long for a newer question, ms
 */
export function useTask<Name extends TaskName>(
  task: Name,
  rows: JobRows,
  input: TaskInput<Name> | null,
  delay = 0,
): TaskState<TaskResult<Name>> {
  const [answer, setAnswer] = useState<Answer<TaskResult<Name>>>();
  const [progress, setProgress] = useState<number>();
  const asked = input === null ? '' : JSON.stringify(input ?? {});
  useEffect(() => {
    if (asked === '') return undefined;
    const control = new AbortController();
    const over = markWorking();
    const ask = async () => {
      try {
        const options = { signal: control.signal, onProgress: setProgress };
        const question = JSON.parse(asked) as TaskInput<Name>;
        const value = await (ahead.takeUp(task, rows, question, control.signal) ??
          runTask(task, rows, question, options));
        setAnswer({ rows, asked, value });
      } catch (error) {
        if (error instanceof TaskEnded && error.why === 'cancelled') return;
        setAnswer((last) => ({ rows, asked, value: last?.value, failure: (error as Error).message }));
      }
      setProgress(undefined);
      over();
    };
    // Before the browser draws, and after everything else that this change brings about: what it supersedes is not asked.
    if (delay === 0) queueMicrotask(() => (control.signal.aborted ? undefined : void ask()));
    const timer = delay === 0 ? undefined : setTimeout(() => void ask(), delay);
    return () => {
      over();
      clearTimeout(timer);
      control.abort();
    };
  }, [task, rows, asked, delay]);
  const current = answer?.rows === rows && answer.asked === asked;
  return {
    ...(answer?.value === undefined ? {} : { value: answer.value }),
    busy: asked !== '' && !current,
    ...(current && answer.failure ? { failure: answer.failure } : {}),
    ...(progress === undefined ? {} : { progress }),
  };
}
