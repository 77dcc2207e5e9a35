import { spawnSync } from 'node:child_process';
import { rmSync } from 'node:fs';

/**
 * Removes what a test has made: what the system still holds for a moment is asked for again. The system's own command
 * takes a tenth of the time for the thousand files of a database.
 */
export function removeAll(folder: string): void {
  if (spawnSync('rm', ['-rf', folder]).status !== 0)
    rmSync(folder, { recursive: true, force: true, maxRetries: 10, retryDelay: 100 });
}
