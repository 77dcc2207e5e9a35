import { statfs } from 'node:fs/promises';
import { DiskFull } from '@/db/journal/journal';

/**
 * Room that is left alone on the disk, bytes: the database engine writes its own log in pieces of 16 MB and stops for
 * good when one does not fit, so that nothing is begun that could come to that.
 */
const KEPT_FREE = 64 * 1024 * 1024;

/** Whether the disk a folder lies on has room for so many bytes more. */
export async function hasRoom(folder: string, bytes = 0): Promise<boolean> {
  const { bavail, bsize } = await statfs(folder);
  return bavail * bsize - bytes >= KEPT_FREE;
}

/** @throws DiskFull where it has not */
export async function needRoom(folder: string, bytes = 0): Promise<void> {
  if (!(await hasRoom(folder, bytes))) throw new DiskFull();
}
