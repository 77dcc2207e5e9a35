import type { TestProject } from 'vitest/node';
import { ensureBuild } from '../../scripts/ensure.mjs';
import { Server } from './server';

declare module 'vitest' {
  export interface ProvidedContext {
    /** Where the server answers that browser tests share. */
    readonly shared: string;
  }
}

/** Builds once before the browser tests, and starts the server that those share which neither stop it nor look into its folder. */
export async function setup({ provide }: TestProject): Promise<() => Promise<void>> {
  ensureBuild();
  const server = await Server.start();
  provide('shared', server.address);
  return () => server.remove();
}
