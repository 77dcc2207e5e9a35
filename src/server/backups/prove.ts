import { rmSync } from 'node:fs';
import { mkdtemp, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { makeDatabase } from '@/db/new-database';
import { PROOF } from './manifest';
import { differences, restoreBackup } from './restore';

export interface Proof {
  readonly backup: string;
  /** A folder on a disk with room for a copy of it all. */
  readonly scratchIn: string;
}

/**
 * Proves a backup: restores it into an empty database of its own, takes every job out again and compares. Pictures are
 * held against their checksums on the way in.
 *
 * @throws in words where it is not what was backed up
 */
export async function proveBackup({ backup, scratchIn }: Proof): Promise<void> {
  const scratch = await mkdtemp(path.join(scratchIn, 'scratch-proof-'));
  try {
    const database = await makeDatabase(path.join(scratch, 'database'));
    try {
      await restoreBackup(database, backup);
      const differing = await differences(database, backup);
      if (differing.length > 0) throw new Error(`not the same after restoring: ${differing.join(', ')}`);
    } finally {
      await database.close();
    }
    await writeFile(path.join(backup, PROOF), JSON.stringify({ at: new Date().toISOString() }), { flush: true });
  } finally {
    // At once: a thousand files to remove would stand in one queue with what the rest of the program has to write.
    rmSync(scratch, { recursive: true, force: true });
  }
}
