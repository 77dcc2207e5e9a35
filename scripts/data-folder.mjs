import { existsSync, readdirSync, rmSync } from 'node:fs';
import path from 'node:path';

/** The program's own lock of a data folder, as it was built; from its source where nothing was built yet. */
async function lock(folder) {
  const { lockFolder } = existsSync(path.join(import.meta.dirname, '../dist/data-folder.mjs'))
    ? await import('../dist/data-folder.mjs')
    : await fromSource();
  return lockFolder(folder);
}

/** Loaded only now, since the scripts install their packages first. */
async function fromSource() {
  const { tsImport } = await import('tsx/esm/api');
  return tsImport('../src/db/data-folder.ts', import.meta.url);
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
