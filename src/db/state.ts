import { readdir, stat } from 'node:fs/promises';

/** What every database folder of the engine holds; without one of these it would begin a new, empty one over the old. */
const ESSENTIAL = ['PG_VERSION', 'global/pg_control', 'base', 'pg_wal'];

export type FolderState =
  { readonly kind: 'none' } | { readonly kind: 'there' } | { readonly kind: 'damaged'; readonly why: string };

/** Looks at a database folder without opening it. */
export async function stateOf(databasePath: string): Promise<FolderState> {
  const names = await readdir(databasePath).catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT') return [];
    throw error;
  });
  if (names.length === 0) return { kind: 'none' };
  const lacking: string[] = [];
  for (const name of ESSENTIAL) {
    const found = await stat(/* turbopackIgnore: true */ `${databasePath}/${name}`).catch(() => undefined);
    if (!found || (found.isFile() && found.size === 0)) lacking.push(name);
  }
  return lacking.length === 0
    ? { kind: 'there' }
    : { kind: 'damaged', why: `${lacking.join(', ')} ${lacking.length === 1 ? 'is' : 'are'} missing` };
}
