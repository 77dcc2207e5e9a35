import { closeSync, existsSync, openSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';

/**
 * Does something with a data folder while no server has it.
 *
 * @throws where one has it, naming the holder
 */
async function whileNobodyHas(folder, work) {
  const lockPath = path.join(folder, 'lock');
  if (!existsSync(lockPath)) return work();
  // Loaded only now: the scripts that use this install their packages first.
  const { tryLock, unlock } = await import('fs-native-extensions');
  const descriptor = openSync(lockPath, 'a+');
  try {
    if (!tryLock(descriptor)) {
      const holder = readFileSync(lockPath, 'utf8').trim() || 'another process';
      throw new Error(`The data folder ${folder} is in use by ${holder}. Stop that one first.`);
    }
    work();
    unlock(descriptor);
  } finally {
    closeSync(descriptor);
  }
}

/** Refuses a folder that another process has, before anything is built over its head. */
export const refuseIfTaken = (folder) => whileNobodyHas(folder, () => undefined);

/** Empties a data folder that nobody has; the lock itself stays, so that nobody can take it meanwhile. */
export const clearFolder = (folder) =>
  whileNobodyHas(folder, () => {
    if (!existsSync(folder)) return;
    for (const name of readdirSync(folder))
      if (name !== 'lock') rmSync(path.join(folder, name), { recursive: true, force: true });
  });

/** Ends the process with the sentence of what stands in the way. */
export function giveUp(error) {
  console.error(error.message);
  process.exit(3);
}
