import { existsSync, readdirSync, rmSync } from 'node:fs';
import path from 'node:path';

/** The program's own lock of a data folder; loaded only now, since the scripts install their packages first. */
async function lock(folder) {
  const { tsImport } = await import('tsx/esm/api');
  const { lockFolder } = await tsImport('../src/db/data-folder.ts', import.meta.url);
  return lockFolder(folder);
}

/** Refuses a folder that another process has, before anything is built over its head. */
export async function refuseIfTaken(folder) {
  if (existsSync(folder)) (await lock(folder)).release();
}

/** Empties a data folder that nobody has; the lock itself stays, so that nobody can take it meanwhile. */
export async function clearFolder(folder) {
  if (!existsSync(folder)) return;
  const locked = await lock(folder);
  for (const name of readdirSync(folder))
    if (name !== 'lock') rmSync(path.join(folder, name), { recursive: true, force: true });
  locked.release();
}

/** Ends the process with the sentence of what stands in the way. */
export function giveUp(error) {
  console.error(error.message);
  process.exit(3);
}
