import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { FolderInUse, lockFolder } from '@/db/data-folder';
import { clearFolder, refuseIfTaken } from '../../scripts/data-folder.mjs';
import { removeAll } from '../support/remove';

let folder: string;
const children: ChildProcess[] = [];
beforeEach(() => {
  folder = mkdtempSync(path.join(os.tmpdir(), 'vinkel-data-'));
});
afterEach(() => {
  for (const child of children.splice(0)) child.kill('SIGKILL');
  removeAll(folder);
});

/** Another process that takes the folder and stays. */
async function holder(): Promise<ChildProcess> {
  const child = spawn(process.execPath, ['--import', 'tsx', 'tests/support/hold-folder.ts', folder], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  children.push(child);
  await new Promise((resolve) => child.stdout!.once('data', resolve));
  return child;
}

const gone = (child: ChildProcess) => new Promise((resolve) => child.once('exit', resolve));

describe('the data folder belongs to one process', () => {
  it('refuses a second process and names the first', async () => {
    const child = await holder();
    expect(() => lockFolder(folder)).toThrow(FolderInUse);
    expect(() => lockFolder(folder)).toThrow(`process ${child.pid}`);
  });

  it('is not robbed from a process that is suspended', async () => {
    const child = await holder();
    child.kill('SIGSTOP');
    expect(() => lockFolder(folder)).toThrow(FolderInUse);
    child.kill('SIGCONT');
  });

  it('is free again when its holder is killed', async () => {
    const child = await holder();
    child.kill('SIGKILL');
    await gone(child);
    lockFolder(folder).release();
  });

  it('is neither built over nor emptied while a server has it', async () => {
    const child = await holder();
    writeFileSync(path.join(folder, 'journal.jsonl'), '{}\n');
    await expect(refuseIfTaken(folder)).rejects.toThrow(`process ${child.pid}`);
    await expect(clearFolder(folder)).rejects.toThrow('in use by');
    expect(readFileSync(path.join(folder, 'journal.jsonl'), 'utf8')).toBe('{}\n');
    child.kill('SIGKILL');
    await gone(child);
    await refuseIfTaken(folder);
    await clearFolder(folder);
    expect(readdirSync(folder)).toEqual(['lock']);
    await clearFolder(path.join(folder, 'not-there'));
  });
});
