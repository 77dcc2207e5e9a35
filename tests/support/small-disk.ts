import { execFileSync } from 'node:child_process';
import { mkdirSync } from 'node:fs';

/**
 * A disk of so many bytes at a place, where this machine lets one be made.
 *
 * @returns what takes it away again; undefined where none can be made
 */
export function smallDisk(at: string, bytes: number, options = ''): (() => void) | undefined {
  mkdirSync(at, { recursive: true });
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', `size=${bytes}${options}`, 'tmpfs', at], { stdio: 'ignore' });
    return () => execFileSync('umount', ['-l', at]);
  } catch {
    return undefined;
  }
}
