import { rmSync } from 'node:fs';

/** Removes what a test has made: what the system still holds for a moment is asked for again. */
export const removeAll = (folder: string): void =>
  rmSync(folder, { recursive: true, force: true, maxRetries: 10, retryDelay: 100 });
