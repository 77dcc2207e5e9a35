import { AsyncLocalStorage } from 'node:async_hooks';
import type { ChangedJobs } from '@/db/journal/journalled';
import type { LiveEvent } from '@/formats/live';

/** An open window of a job. */
export interface Listener {
  readonly jobId: string;
  /** Its own mark: it hears nothing it said itself. */
  readonly window: string;
  /** Who looks at it. */
  readonly name: string;
  /** False as soon as they may not any more. */
  readonly mayHear: () => Promise<boolean>;
  readonly hear: (event: LiveEvent) => void;
  readonly end: () => void;
}

/** Where what is being written comes from: a window, and whether it is a line of a tape. */
interface Source {
  readonly window: string;
  readonly tape: boolean;
}

/** Tells every open window of a job what happens to it, at once; remembers nothing. */
export class Live {
  private readonly listeners = new Set<Listener>();
  private readonly source = new AsyncLocalStorage<Source>();

  /** What is written meanwhile comes from there. */
  from<T>(source: Source, work: () => Promise<T>): Promise<T> {
    return this.source.run(source, work);
  }

  /** Opens a window's ear; gives the way to close it. */
  listen(listener: Listener): () => void {
    this.listeners.add(listener);
    this.tellWhoIsHere(listener.jobId);
    return () => {
      if (this.listeners.delete(listener)) this.tellWhoIsHere(listener.jobId);
    };
  }

  /** Rows were written. */
  changed(jobs: ChangedJobs, revision: number): void {
    const source = this.source.getStore();
    for (const listener of this.listeners)
      if ((jobs === 'all' || jobs.has(listener.jobId)) && listener.window !== (source?.window || undefined))
        void this.tell(listener, { kind: 'rows', revision, tape: source?.tape ?? false });
  }

  /** One window of a job tells the others something. */
  relay(jobId: string, window: string, event: LiveEvent): void {
    for (const listener of this.listeners)
      if (listener.jobId === jobId && listener.window !== window) void this.tell(listener, event);
  }

  private tellWhoIsHere(jobId: string): void {
    const here = [...this.listeners].filter((each) => each.jobId === jobId);
    for (const listener of here) {
      const names = here.flatMap(({ window, name }) => (window === listener.window ? [] : [name]));
      const others = [...new Set(names)].sort().map((name) => ({
        name,
        windows: names.filter((each) => each === name).length,
      }));
      void this.tell(listener, { kind: 'here', others });
    }
  }

  private async tell(listener: Listener, event: LiveEvent): Promise<void> {
    if (await listener.mayHear()) listener.hear(event);
    else listener.end();
  }
}

const shared = globalThis as typeof globalThis & { vinkelLive?: Live };

/** One a process, shared by all bundles of the server. */
export const live = (): Live => (shared.vinkelLive ??= new Live());
