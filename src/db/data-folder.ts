import { closeSync, mkdirSync, openSync, readFileSync, ftruncateSync, writeSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { tryLock, unlock } from 'fs-native-extensions';

/** Another process has the data folder open. */
export class FolderInUse extends Error {
  constructor(folder: string, holder: string) {
    super(`The data folder ${folder} is in use by ${holder}. Stop that one first, or choose another folder.`);
    this.name = 'FolderInUse';
  }
}

/** What stands in the way of a folder, as the system says it, in words. */
const IN_WORDS: Readonly<Record<string, string>> = {
  EACCES: 'the program has no right to write there',
  EPERM: 'the program has no right to write there',
  EROFS: 'it lies on a disk that can only be read',
  ENOSPC: 'the disk is full',
  ENOTDIR: 'a part of its path is a file',
  EEXIST: 'there is a file of that name',
};

/** A data folder cannot be made, read or written. */
export class FolderUnusable extends Error {
  constructor(folder: string, code: string) {
    super(
      `The data folder ${folder} cannot be used: ${IN_WORDS[code]}. Choose another: VINKEL_DATA=/a/folder npm start`,
    );
    this.name = 'FolderUnusable';
  }
}

export interface LockedFolder {
  readonly path: string;
  readonly databasePath: string;
  /** The files of the journal. */
  readonly journalPath: string;
  /** The one file of a journal of the first format. */
  readonly firstJournalPath: string;
  readonly backupsPath: string;
  release(): void;
}

/**
 * Takes the data folder for this process alone. The lock is the operating system's and lives as
 * long as the process: one left by a killed process is free, a suspended holder keeps it.
 *
 * @throws FolderInUse naming the holder
 * @throws FolderUnusable saying what stands in the way
 */
export function lockFolder(folder: string): LockedFolder {
  const absolute = path.resolve(folder);
  const lockPath = path.join(absolute, 'lock');
  const descriptor = openLock(absolute, lockPath);
  if (!tryLock(descriptor)) {
    const holder = readFileSync(lockPath, 'utf8').trim() || 'another process';
    closeSync(descriptor);
    throw new FolderInUse(absolute, holder);
  }
  ftruncateSync(descriptor, 0);
  writeSync(descriptor, `process ${process.pid} on ${os.hostname()}, started ${new Date().toISOString()}`);
  return {
    path: absolute,
    databasePath: path.join(absolute, 'database'),
    journalPath: path.join(absolute, 'journal'),
    firstJournalPath: path.join(absolute, 'journal.jsonl'),
    backupsPath: path.join(absolute, 'backups'),
    release: () => {
      unlock(descriptor);
      closeSync(descriptor);
    },
  };
}

function openLock(folder: string, lockPath: string): number {
  try {
    mkdirSync(folder, { recursive: true });
    return openSync(lockPath, 'a+');
  } catch (error) {
    const { code = '' } = error as NodeJS.ErrnoException;
    throw code in IN_WORDS ? new FolderUnusable(folder, code) : error;
  }
}
