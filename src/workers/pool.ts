import { JOB_TABLE_NAMES, type JobRows } from '@/core/shell/job/job-rows';
import { ROWS_KEPT, type SentRows, type TaskMessage, type TaskRequest } from './serve';
import type { TaskInput, TaskName, TaskResult } from './tasks';

/** A worker as the pool sees it, in the browser or in a thread of the server. */
export interface Channel {
  post(request: TaskRequest): void;
  end(): void;
}

export interface TaskOptions {
  readonly signal?: AbortSignal;
  readonly onProgress?: (share: number) => void;
  /** Longer than this it is ended, ms. */
  readonly budget?: number;
}

/** A task was ended because somebody asked for that or because it took too long. */
export class TaskEnded extends Error {
  constructor(readonly why: 'cancelled' | 'tooLong') {
    super(why === 'cancelled' ? 'the task was cancelled' : 'the task took too long and was ended');
  }
}

const USUAL_BUDGET = 60_000;
/** A task nobody waits for any more may run on so long, ms. */
const GRACE = 1500;

interface Job {
  readonly request: Omit<TaskRequest, 'rows'>;
  readonly rows: JobRows;
  readonly options: TaskOptions;
  readonly resolve: (result: unknown) => void;
  readonly reject: (error: Error) => void;
  detach: () => void;
}

interface Worker {
  channel: Channel;
  /** The rows it has by their keys, the last used last. */
  has: Map<string, JobRows>;
  doing?: Job;
  timer?: ReturnType<typeof setTimeout>;
}

/** The tables that differ from those of the rows a worker was given last, and where the others are. */
function toSend(rows: JobRows, has: ReadonlyMap<string, JobRows>): SentRows {
  const last = [...has].at(-1);
  if (!last) return { tables: rows };
  const [rest, known] = last;
  const changed = JOB_TABLE_NAMES.filter((table) => rows[table] !== known[table]);
  return { tables: Object.fromEntries(changed.map((table) => [table, rows[table]])), rest };
}

/**
 * A few workers that share the tasks: one at a time each, first come first served, a task going to a worker that has its
 * rows already where one is free. Cancelling takes a task out of the queue, or ends the worker that runs it and starts
 * another in its place.
 */
export class TaskPool {
  private readonly workers: Worker[] = [];
  private readonly queue: Job[] = [];
  private lastId = 0;

  /**
   * @param start makes a worker that answers to `receive`; `failed` where it cannot be started or dies
   * @param most  workers at once
   */
  constructor(
    private readonly start: (receive: (message: TaskMessage) => void, failed: (error: Error) => void) => Channel,
    private readonly most: number,
  ) {}

  /** @param rowsKey the same for the same rows: they are sent to each worker once */
  run<Name extends TaskName>(
    task: Name,
    rows: JobRows,
    rowsKey: string,
    input: TaskInput<Name>,
    options: TaskOptions = {},
  ): Promise<TaskResult<Name>> {
    return new Promise<unknown>((resolve, reject) => {
      const { signal } = options;
      if (signal?.aborted) return reject(new TaskEnded('cancelled'));
      const request = { id: ++this.lastId, task, input, rowsKey };
      const job: Job = { request, rows, options, resolve, reject, detach: () => undefined };
      const cancel = () => this.cancel(job);
      signal?.addEventListener('abort', cancel);
      job.detach = () => signal?.removeEventListener('abort', cancel);
      this.queue.push(job);
      this.next();
    }) as Promise<TaskResult<Name>>;
  }

  /** Ends all workers; what they were doing is cancelled. */
  close(): void {
    for (const job of this.queue.splice(0)) this.settle(job, () => job.reject(new TaskEnded('cancelled')));
    for (const worker of [...this.workers]) this.end(worker, new TaskEnded('cancelled'));
  }

  private next(): void {
    const [job] = this.queue;
    if (!job) return;
    const worker = this.freeWorker(job.request.rowsKey);
    if (!worker) return;
    this.queue.shift();
    const { rowsKey } = job.request;
    const rows = worker.has.has(rowsKey) ? undefined : toSend(job.rows, worker.has);
    worker.has.delete(rowsKey);
    worker.has.set(rowsKey, job.rows);
    for (const oldest of worker.has.keys()) if (worker.has.size > ROWS_KEPT) worker.has.delete(oldest);
    worker.doing = job;
    worker.timer = setTimeout(() => this.end(worker, new TaskEnded('tooLong')), job.options.budget ?? USUAL_BUDGET);
    worker.channel.post(rows ? { ...job.request, rows } : job.request);
    this.next();
  }

  private freeWorker(rowsKey: string): Worker | undefined {
    const free = this.workers.filter(({ doing }) => !doing);
    const knowing = free.find(({ has }) => has.has(rowsKey));
    if (knowing) return knowing;
    return this.workers.length < this.most && free.length === 0 ? this.startWorker() : free[0];
  }

  private startWorker(): Worker {
    const worker = { has: new Map<string, JobRows>() } as unknown as Worker;
    worker.channel = this.start(
      (message) => this.receive(worker, message),
      (error) => this.end(worker, error),
    );
    this.workers.push(worker);
    return worker;
  }

  private receive(worker: Worker, message: TaskMessage): void {
    const { doing } = worker;
    if (doing?.request.id !== message.id) return;
    if (message.kind === 'progress') return doing.options.onProgress?.(message.share);
    this.release(worker);
    this.settle(doing, () => {
      if (message.kind === 'done') return doing.resolve(message.result);
      const error = new Error(message.message);
      if (message.stack) error.stack = message.stack;
      doing.reject(error);
    });
    this.next();
  }

  private cancel(job: Job): void {
    const i = this.queue.indexOf(job);
    if (i >= 0) {
      this.queue.splice(i, 1);
      return this.settle(job, () => job.reject(new TaskEnded('cancelled')));
    }
    const worker = this.workers.find(({ doing }) => doing === job);
    if (!worker) return;
    this.settle(job, () => job.reject(new TaskEnded('cancelled')));
    // What is nearly done may finish: ending its worker would throw away what that one has learnt of the round.
    clearTimeout(worker.timer);
    worker.timer = setTimeout(() => this.end(worker, new TaskEnded('cancelled')), GRACE);
  }

  private end(worker: Worker, error: Error): void {
    const { doing } = worker;
    const i = this.workers.indexOf(worker);
    if (i >= 0) this.workers.splice(i, 1);
    this.release(worker);
    worker.channel.end();
    if (doing) this.settle(doing, () => doing.reject(error));
    this.next();
  }

  private release(worker: Worker): void {
    clearTimeout(worker.timer);
    worker.doing = undefined;
  }

  private settle(job: Job, how: () => void): void {
    job.detach();
    how();
  }
}
