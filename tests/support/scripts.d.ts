declare module '*/scripts/demo-archive.mjs' {
  export function demoArchive(name: string): Promise<Uint8Array<ArrayBuffer>>;
  export function loadDemoJobs(address: string): Promise<void>;
}

declare module '*/scripts/ensure.mjs' {
  export function ensureBuild(): void;
}
