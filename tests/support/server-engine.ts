import type { TestProject } from 'vitest/node';
import { startCluster } from './postgres';

declare module 'vitest' {
  export interface ProvidedContext {
    /** The database server that the use cases run on; none where they run on a folder. */
    readonly server: string;
  }
}

/** Starts one server for the tests of the use cases: each file has a database of its own there. */
export async function setup({ provide }: TestProject): Promise<() => Promise<void>> {
  const cluster = await startCluster();
  provide('server', cluster.url);
  return () => cluster.remove();
}
