import { readFile, writeFile } from 'node:fs/promises';
import path from 'node:path';

const MARK = 'moved-to';

/** The database of a folder was moved to a server: what is in the folder is as it was then. */
export class FolderMoved extends Error {
  constructor(folder: string, server: string) {
    super(
      `The data of ${folder} was moved to ${server}: name that server in VINKEL_DATABASE. To go on in the folder all the same, as it was before, remove ${path.join(folder, MARK)}.`,
    );
    this.name = 'FolderMoved';
  }
}

export async function movedTo(folder: string): Promise<FolderMoved | undefined> {
  const server = await readFile(path.join(folder, MARK), 'utf8').catch(() => undefined);
  return server === undefined ? undefined : new FolderMoved(folder, server.trim());
}

export const markMoved = (folder: string, server: string): Promise<void> =>
  writeFile(path.join(folder, MARK), `${server}\n`, { flush: true });
