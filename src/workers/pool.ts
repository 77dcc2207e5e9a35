import type { JobRows } from '@/core/shell/job/job-rows';
import { KnownRows } from './known-rows';
import type { TaskMessage, TaskRequest } from './serve';
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
  readonly request: Omit<TaskRequest, 'rows' | 'forget'>;
  readonly rows: JobRows;
  readonly options: TaskOptions;
  readonly resolve: (result: unknown) => void;
  readonly reject: (error: Error) => void;
  detach: () => void;
}

interface Worker {
  channel: Channel;
  readonly known: KnownRows;
  doing?: Job;
  timer?: ReturnType<typeof setTimeout>;
}

/**
 * A few workers that share the tasks: one at a time each, first come first served, a task going to the free worker that
 * knows most of its job. Cancelling takes a task out of the queue, or ends the worker that runs it and starts
 * another in its place.
 */
export class TaskPool {
  private readonly workers: Worker[] = [];
  private readonly queue: Job[] = [];
  private readonly keys = new WeakMap<JobRows, string>();
  private lastId = 0;
  private lastKey = 0;

  /**
   * @param start makes a worker that answers to `receive`; `failed` where it cannot be started or dies
   * @param most  workers at once
   */
  constructor(
    private readonly start: (receive: (message: TaskMessage) => void, failed: (error: Error) => void) => Channel,
    private readonly most: number,
  ) {}

  /** The same rows are sent to each worker once; of others of the same job what is not the same. */
  run<Name extends TaskName>(
    task: Name,
    rows: JobRows,
    input: TaskInput<Name>,
    options: TaskOptions = {},
  ): Promise<TaskResult<Name>> {
    return new Promise<unknown>((resolve, reject) => {
      const { signal } = options;
      if (signal?.aborted) return reject(new TaskEnded('cancelled'));
      const request = { id: ++this.lastId, task, input, rowsKey: this.keyOf(rows) };
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
    const worker = this.freeWorker(job);
    if (!worker) return;
    this.queue.shift();
    const { request } = job;
    const sent = worker.known.take(request.task, request.rowsKey, job.rows);
    worker.doing = job;
    worker.timer = setTimeout(() => this.end(worker, new TaskEnded('tooLong')), job.options.budget ?? USUAL_BUDGET);
    worker.channel.post({ ...request, ...sent });
    this.next();
  }

  private keyOf(rows: JobRows): string {
    const key = this.keys.get(rows) ?? `rows ${++this.lastKey}`;
    this.keys.set(rows, key);
    return key;
  }

  private freeWorker({ request, rows }: Job): Worker | undefined {
    const free = this.workers.filter(({ doing }) => !doing);
    if (free.length === 0) return this.workers.length < this.most ? this.startWorker() : undefined;
    const worth = new Map(free.map((worker) => [worker, worker.known.worth(request.task, rows)]));
    return free.reduce((best, worker) => (worth.get(worker)! > worth.get(best)! ? worker : best));
  }

  private startWorker(): Worker {
    const worker = { known: new KnownRows() } as unknown as Worker;
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
