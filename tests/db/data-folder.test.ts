import { spawn, type ChildProcess } from 'node:child_process';
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync, appendFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { JOB_TABLE_NAMES } from '@/core/shell/job/job-rows';
import { ROWS_VERSION } from '@/core/shell/job/upgrades';
import { FolderInUse, lockFolder } from '@/db/data-folder';
import { loadJob } from '@/db/jobs';
import { addContent } from '@/db/photographs';
import { insert } from '@/db/table';
import { openStore, type Store } from '@/server/store';
import { clearFolder, refuseIfTaken } from '../../scripts/data-folder.mjs';
import { demoRows } from '../support/demo-rows';

let folder: string;
const children: ChildProcess[] = [];
beforeEach(() => {
  folder = mkdtempSync(path.join(os.tmpdir(), 'vinkel-data-'));
});
afterEach(() => {
  for (const child of children.splice(0)) child.kill('SIGKILL');
  rmSync(folder, { recursive: true, force: true });
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

const rows = demoRows('kvist');
const jobId = rows.jobs[0]!.id;

async function fill(store: Store): Promise<void> {
  for (const photograph of rows.photographs) await addContent(store.database, photograph.id, new Uint8Array([1]));
  for (const table of JOB_TABLE_NAMES)
    if (table !== 'readings' && table !== 'readingStrikes')
      await insert(store.database, table, rows[table] as never[], {
        skipExisting: /^instrument/.test(table),
      });
}

async function takeReading(store: Store, index: number): Promise<void> {
  const { contextOfReadings } = await import('@/db/readings');
  const reading = rows.readings[index]!;
  await store.database.transaction(async (tx) => {
    await insert(tx, 'readings', [reading]);
    await store.journal.append({
      ...(await contextOfReadings(tx, reading.roundId, [reading])),
      readings: [reading],
    });
  });
}

const readingsIn = async (store: Store) =>
  (await loadJob(store.database, jobId))?.readings.map((each) => each.id) ?? [];

describe('the journal', () => {
  it('puts back what an older copy of the database lacks, its round included', async () => {
    const first = await openStore(folder);
    await first.close();
    cpSync(path.join(folder, 'database'), path.join(folder, 'older'), { recursive: true });
    const second = await openStore(folder);
    await fill(second);
    for (const index of [0, 1, 2]) await takeReading(second, index);
    await second.close();

    rmSync(path.join(folder, 'database'), { recursive: true });
    cpSync(path.join(folder, 'older'), path.join(folder, 'database'), { recursive: true });
    const third = await openStore(folder);
    expect(third.replay).toEqual({ restored: 3, faults: [] });
    expect(new Set(await readingsIn(third))).toEqual(new Set(rows.readings.slice(0, 3).map((each) => each.id)));
    await third.close();
  });

  it('replays nothing twice', async () => {
    const first = await openStore(folder);
    await fill(first);
    await takeReading(first, 0);
    await first.close();
    const second = await openStore(folder);
    expect(second.replay).toEqual({ restored: 0, faults: [] });
    await second.close();
  });

  it('goes on behind a line torn by a power cut, and says which line it could not read', async () => {
    const first = await openStore(folder);
    await fill(first);
    await takeReading(first, 0);
    await first.close();
    appendFileSync(path.join(folder, 'journal.jsonl'), '{"format":"vinkel.journal/1","rows":{"readi');
    const second = await openStore(folder);
    expect(second.replay.faults).toMatchObject([{ line: 2 }]);
    await takeReading(second, 1);
    await second.close();
    const lines = readFileSync(path.join(folder, 'journal.jsonl'), 'utf8').trim().split('\n');
    expect(lines).toHaveLength(3);
    expect(JSON.parse(lines[2]!)).toMatchObject({ format: `vinkel.journal/${ROWS_VERSION}` });
  });

  it('refuses a line that is not a reading, and starts all the same', async () => {
    writeFileSync(
      path.join(folder, 'journal.jsonl'),
      '{"format":"vinkel.journal/1","rows":{"readings":[{"id":"x"}]}}\n',
    );
    const store = await openStore(folder);
    expect(store.replay).toMatchObject({ restored: 0, faults: [{ line: 1 }] });
    await store.close();
  });
});
