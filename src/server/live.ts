import { AsyncLocalStorage } from 'node:async_hooks';
import type { Changed } from '@/db/journal/journalled';
import { passed, type LiveEvent, type Passed, type Source, type WindowHere } from '@/formats/live';

/** An open window of a job. */
export interface Listener extends WindowHere {
  readonly jobId: string;
  /** False as soon as they may not any more. */
  readonly mayHear: () => Promise<boolean>;
  readonly hear: (event: LiveEvent) => void;
  readonly end: () => void;
}

/** Windows of another process that has not said for so long that they are there are gone, ms. */
const SILENT = 60_000;

/**
 * Tells every open window of a job what happens to it, at once; remembers nothing. Where several processes are at one
 * database each tells the others what its windows are to know.
 */
export class Live {
  private readonly listeners = new Set<Listener>();
  private readonly watchers = new Set<(change: Changed) => void>();
  private readonly source = new AsyncLocalStorage<Source>();
  private readonly afar = new Map<string, { readonly at: number; readonly windows: readonly WindowHere[] }>();
  private pass: ((message: Passed) => void) | undefined;

  constructor(private readonly clock: () => number = Date.now) {}

  /** What is written meanwhile comes from there. */
  from<T>(source: Source, work: () => Promise<T>): Promise<T> {
    return this.source.run(source, work);
  }

  /** Where what is being written now comes from. */
  writing(): Source | undefined {
    return this.source.getStore();
  }

  /** Opens a window's ear; gives the way to close it. */
  listen(listener: Listener): () => void {
    this.listeners.add(listener);
    this.sayWhoIsHere(listener.jobId);
    return () => {
      if (this.listeners.delete(listener)) this.sayWhoIsHere(listener.jobId);
    };
  }

  /** Hears what is written in this process, until the way back is called. */
  watch(hear: (change: Changed) => void): () => void {
    this.watchers.add(hear);
    return () => void this.watchers.delete(hear);
  }

  /** Rows were written in this process. */
  changed(change: Changed): void {
    for (const hear of this.watchers) hear(change);
    this.tellOf(change, this.writing());
  }

  /** One window of a job tells the others something. */
  relay(jobId: string, window: string, event: LiveEvent): void {
    this.tellOthers(jobId, window, event);
    this.pass?.({ kind: 'relayed', jobId, window, event });
  }

  /** From now on there are other processes, which are told by this; each is told at once who is here. */
  join(pass: (message: Passed) => void): void {
    this.pass = pass;
    this.sayAll();
    pass({ kind: 'who' });
  }

  /** Says again who is here, so that it is known that they still are. */
  sayAll(): void {
    for (const jobId of new Set([...this.listeners].map(({ jobId }) => jobId))) this.sayWhoIsHere(jobId);
  }

  /** Another process tells something. */
  hear(from: string, message: unknown): void {
    const read = passed.safeParse(message);
    if (!read.success) return;
    const told = read.data;
    if (told.kind === 'changed') this.tellOf({ number: told.revision, jobs: jobsOf(told.jobs) }, told.source);
    else if (told.kind === 'relayed') this.tellOthers(told.jobId, told.window, told.event as LiveEvent);
    else if (told.kind === 'who') this.sayAll();
    else {
      this.afar.set(`${from} ${told.jobId}`, { at: this.clock(), windows: told.windows });
      this.tellWhoIsHere(told.jobId);
    }
  }

  /** Something may have been missed: every window is told where the data stands. */
  catchUp(revision: number): void {
    this.tellOf({ number: revision, jobs: 'all' }, undefined);
  }

  private tellOf({ number, jobs }: Changed, source: Source | undefined): void {
    for (const listener of this.listeners)
      if ((jobs === 'all' || jobs.has(listener.jobId)) && listener.window !== (source?.window || undefined))
        void this.tell(listener, { kind: 'rows', revision: number, tape: source?.tape ?? false });
  }

  private tellOthers(jobId: string, window: string, event: LiveEvent): void {
    for (const listener of this.listeners)
      if (listener.jobId === jobId && listener.window !== window) void this.tell(listener, event);
  }

  private sayWhoIsHere(jobId: string): void {
    const windows = this.here(jobId).map(({ window, name }) => ({ window, name }));
    this.pass?.({ kind: 'here', jobId, windows });
    this.tellWhoIsHere(jobId);
  }

  private tellWhoIsHere(jobId: string): void {
    const here = this.here(jobId);
    const all: WindowHere[] = [...here, ...this.elsewhere(jobId)];
    for (const listener of here) {
      const names = all.flatMap(({ window, name }) => (window === listener.window ? [] : [name]));
      const others = [...new Set(names)].sort().map((name) => ({
        name,
        windows: names.filter((each) => each === name).length,
      }));
      void this.tell(listener, { kind: 'here', others });
    }
  }

  private here(jobId: string): Listener[] {
    return [...this.listeners].filter((each) => each.jobId === jobId);
  }

  /** Windows of the job in other processes. */
  private elsewhere(jobId: string): WindowHere[] {
    const found: WindowHere[] = [];
    for (const [key, { at, windows }] of this.afar)
      if (this.clock() - at > SILENT) this.afar.delete(key);
      else if (key.endsWith(` ${jobId}`)) found.push(...windows);
    return found;
  }

  private async tell(listener: Listener, event: LiveEvent): Promise<void> {
    if (await listener.mayHear().catch(() => false)) listener.hear(event);
    else listener.end();
  }
}

const jobsOf = (jobs: readonly string[] | 'all') => (jobs === 'all' ? jobs : new Set(jobs));

const shared = globalThis as typeof globalThis & { vinkelLive?: Live };

/** One a process, shared by all bundles of the server. */
export const live = (): Live => (shared.vinkelLive ??= new Live());
