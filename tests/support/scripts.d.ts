declare module '*/scripts/browser.mjs' {
  import type { Browser } from 'playwright-core';
  export function launch(more?: readonly string[]): Promise<Browser>;
}

declare module '*/scripts/demo-archive.mjs' {
  export const DEMO_JOBS: string;
  export function demoArchive(name: string): Promise<Uint8Array<ArrayBuffer>>;
  export function loadDemoJobs(address: string): Promise<void>;
}

declare module '*/scripts/ensure.mjs' {
  export function ensureBuild(): void;
}

declare module '*/scripts/data-folder.mjs' {
  export function refuseIfTaken(folder: string): Promise<void>;
  export function clearFolder(folder: string): Promise<void>;
}

declare module '*/scripts/kernel.mjs' {
  export function compileKernel(): string;
}

declare module '*/scripts/trial-server.mjs' {
  export const somePort: () => number;
}
