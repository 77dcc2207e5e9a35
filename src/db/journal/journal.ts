import { mkdir, open, readdir, rm, type FileHandle } from 'node:fs/promises';
import path from 'node:path';
import { numberOf, readLine, writeLine, type JournalLine } from './line';

/** The disk the data lies on has no room left: nothing was written. */
export class DiskFull extends Error {
  /** As the system says it: bundles of the server have classes of their own, and do not know each other's. */
  readonly code = 'ENOSPC';
  constructor() {
    super('the disk is full: make room on it, then go on; nothing that was acknowledged is lost');
    this.name = 'DiskFull';
  }
}

/**
 * The journal: one line for every transaction that changed rows, on the disk before it is acknowledged. PGlite never
 * calls fsync, so after a power cut the database may lack the last minutes; the journal does not. It lies in files, each
 * named by the number of its first line; a backup that was proved lets the ones before it go.
 */
export interface Journal {
  /**
   * Writes a line through to the disk.
   *
   * @throws DiskFull where there is no room; the file is then as it was before
   */
  append(line: JournalLine): Promise<void>;
  /** Begins a new file with the line to come. */
  rotate(nextNumber: number): Promise<void>;
  /** Removes the files whose lines all have numbers up to this one. */
  forgetUpTo(number: number): Promise<void>;
  close(): Promise<void>;
}

const nameOf = (number: number): string => `${String(number).padStart(12, '0')}.jsonl`;

/** The files of a journal, oldest first, with the number of each one's first line. */
export async function journalFiles(folder: string): Promise<{ readonly path: string; readonly first: number }[]> {
  const names = await readdir(folder).catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT') return [];
    throw error;
  });
  return names
    .filter((name) => /^\d{12}\.jsonl$/.test(name))
    .sort()
    .map((name) => ({ path: path.join(folder, name), first: Number.parseInt(name, 10) }));
}

/** How a file is opened for appending; a test puts a disk of its own size behind it. */
export type OpenFile = (path: string) => Promise<FileHandle>;

/** Opens the journal for appending. What a crash tore off at its end was never acknowledged and is cut away. */
export async function openJournal(
  folder: string,
  nextNumber: number,
  openFile: OpenFile = (file) => open(file, 'a+'),
): Promise<Journal> {
  await mkdir(folder, { recursive: true });
  const last = (await journalFiles(folder)).at(-1);
  let current = last?.first ?? nextNumber;
  let file = await openFile(path.join(folder, nameOf(current)));
  await mendEnd(file);
  let size = (await file.stat()).size;
  // Whether bytes of a line that failed may still stand behind `size`.
  let torn = false;

  const cutBack = async () => {
    torn = true;
    await file.truncate(size);
    await file.datasync();
    torn = false;
  };
  return {
    append: async (line) => {
      const bytes = Buffer.from(writeLine(line));
      if (torn) await cutBack();
      try {
        await file.appendFile(bytes);
        await file.datasync();
        size += bytes.length;
      } catch (error) {
        await cutBack().catch(() => undefined);
        throw isFull(error) ? new DiskFull() : error;
      }
    },
    rotate: async (number) => {
      if (size === 0) return;
      const next = await openFile(path.join(folder, nameOf(number)));
      await file.close();
      [file, current, size] = [next, number, 0];
    },
    forgetUpTo: async (number) => {
      const files = await journalFiles(folder);
      for (const [i, each] of files.entries()) {
        const next = files[i + 1];
        if (next && next.first <= number + 1 && each.first !== current) await rm(each.path);
      }
    },
    close: () => file.close(),
  };
}

/** What the system says where nothing more fits: the disk, the user's share of it, or the largest file it allows. */
const FULL = ['ENOSPC', 'EDQUOT', 'EFBIG'];

/** Whether something failed because nothing more fits on the disk. */
export const isFull = (error: unknown): boolean => FULL.includes((error as NodeJS.ErrnoException)?.code ?? '');

const CHUNK = 64 * 1024;

/** A last line without its end is ended where it is whole, and cut away where it is not. */
async function mendEnd(file: FileHandle): Promise<void> {
  const { size } = await file.stat();
  let tail = Buffer.alloc(0);
  let start = size;
  while (start > 0 && !tail.includes(0x0a)) {
    const length = Math.min(CHUNK, start);
    start -= length;
    const chunk = Buffer.alloc(length);
    await file.read(chunk, 0, length, start);
    tail = Buffer.concat([chunk, tail]);
  }
  const end = tail.lastIndexOf(0x0a);
  const rest = tail.subarray(end + 1);
  if (rest.length === 0) return;
  if (isWhole(rest.toString())) return file.appendFile('\n');
  await file.truncate(start + end + 1);
  await file.datasync();
}

function isWhole(line: string): boolean {
  try {
    return numberOf(line) === readLine(line).number;
  } catch {
    return false;
  }
}
