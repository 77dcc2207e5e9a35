import { createWriteStream, mkdtempSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { buffer } from 'node:stream/consumers';
import { pipeline } from 'node:stream/promises';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ZipFile } from 'yazl';
import { JOB_TABLE_NAMES, type JobRows } from '@/core/shell/job/job-rows';
import { loadJob } from '@/db/jobs';
import { contentOf } from '@/db/photographs';
import { exportJob } from '@/server/archive/export';
import { importJob } from '@/server/archive/import';
import { openStore, type Store } from '@/server/store';
import { demoRows } from '../support/demo-rows';
import { removeAll } from '../support/remove';

const FOLDER = path.join(process.cwd(), 'demo/jobs/solbris');
const rows = demoRows('solbris');
const jobId = rows.jobs[0]!.id;

/** The demo job's files by their places in an archive. */
const files = (): Map<string, Buffer> =>
  new Map(
    readdirSync(FOLDER, { recursive: true, encoding: 'utf8' })
      .filter((name) => statSync(path.join(FOLDER, name)).isFile())
      .map((name) => [name, readFileSync(path.join(FOLDER, name))]),
  );

describe('a job as an archive', () => {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'vinkel-archive-'));
  let first: Store;
  let second: Store;
  beforeAll(async () => {
    first = await openStore(path.join(folder, 'first'));
    second = await openStore(path.join(folder, 'second'));
  });
  afterAll(async () => {
    await first.close();
    await second.close();
    removeAll(folder);
  });

  /** Writes a zip of some files to the disk. */
  async function zipOf(contents: ReadonlyMap<string, Buffer>): Promise<string> {
    const zip = new ZipFile();
    for (const [name, content] of contents) zip.addBuffer(content, name);
    zip.end();
    const place = path.join(mkdtempSync(path.join(folder, 'zip-')), 'job.zip');
    await pipeline(zip.outputStream, createWriteStream(place));
    return place;
  }

  const faults = async (contents: ReadonlyMap<string, Buffer>) => {
    const outcome = await importJob(second, await zipOf(contents));
    return outcome.ok ? [] : outcome.faults;
  };
  const isEmpty = async () => {
    const [jobs] = await second.database.query<{ count: number }>('select count(*)::int as count from job');
    const [pictures] = await second.database.query<{ count: number }>(
      'select count(*)::int as count from photograph_content',
    );
    return jobs!.count === 0 && pictures!.count === 0;
  };

  it('that is none is refused in words, and nothing of it stays', async () => {
    const text = path.join(folder, 'not.zip');
    writeFileSync(text, 'id;name;side\n');
    expect(await importJob(second, text)).toMatchObject({
      ok: false,
      faults: [{ path: 'file', message: 'this is not an exported job: the zip cannot be read' }],
    });
    expect(await faults(new Map([['readme.txt', Buffer.from('hello')]]))).toMatchObject([
      { path: 'file', message: 'this is not an exported job: job.json is missing' },
    ]);
    expect(await isEmpty()).toBe(true);
  });

  it('with a fault says in which file and where in it', async () => {
    const torn = files().set('rounds/01.json', Buffer.from('{ "format": "vinkel.round/1", "rows": {'));
    expect((await faults(torn))[0]!.path).toMatch(/^rounds\/01\.json file$/);
    const job = JSON.parse(files().get('job.json')!.toString()) as { rows: JobRows };
    const wrong = structuredClone(job) as unknown as { rows: { points: { side: string }[] } };
    wrong.rows.points[3]!.side = 'above';
    expect((await faults(files().set('job.json', Buffer.from(JSON.stringify(wrong)))))[0]!.path).toBe(
      'job.json rows.points[3].side',
    );
    const twice = { ...job, rows: { ...job.rows, jobs: [...job.rows.jobs, ...job.rows.jobs] } };
    expect(await faults(files().set('job.json', Buffer.from(JSON.stringify(twice))))).toMatchObject([
      { path: 'job.json', message: 'an archive holds one job, not 2' },
    ]);
    expect(await isEmpty()).toBe(true);
  });

  it('whose rows contradict each other is refused whole', async () => {
    const job = JSON.parse(files().get('job.json')!.toString()) as { rows: { points: unknown[] } };
    job.rows.points.splice(0, 1);
    expect(await faults(files().set('job.json', Buffer.from(JSON.stringify(job))))).toMatchObject([
      { path: 'job.json', message: expect.stringContaining('its rows contradict each other') },
    ]);
    expect(await isEmpty()).toBe(true);
  });

  it('without a picture, or with another in its place, names the picture and keeps none', async () => {
    const pictures = [...files().keys()].filter((name) => name.startsWith('photographs/'));
    const last = pictures.at(-1)!;
    const lacking = files();
    lacking.delete(last);
    expect(await faults(lacking)).toEqual([{ path: last, message: 'is missing' }]);
    const original = files().get(last)!;
    const swapped = Buffer.from(original);
    swapped[swapped.length - 10]! ^= 1;
    expect((await faults(files().set(last, swapped)))[0]).toMatchObject({
      path: last,
      message: expect.stringContaining('its checksum differs'),
    });
    expect((await faults(files().set(last, original.subarray(1))))[0]!.message).toMatch(/has \d+ bytes, not \d+/);
    expect(await isEmpty()).toBe(true);
  });

  it('that was cut off says that it is damaged', async () => {
    const place = await zipOf(files());
    const whole = readFileSync(place);
    whole.fill(0, 200, 4000);
    writeFileSync(place, whole);
    const outcome = await importJob(second, place);
    expect(outcome).toMatchObject({ ok: false, faults: [{ path: 'file' }] });
    expect(await isEmpty()).toBe(true);
  });

  it('goes from one shop to another with every row and every picture', async () => {
    expect(await importJob(first, await zipOf(files()))).toEqual({ ok: true, value: { jobId } });
    const { name, zip } = (await exportJob(first.database, jobId))!;
    expect(name).toBe('Solbris-1200-estate');
    const place = path.join(folder, 'whole.zip');
    writeFileSync(place, await buffer(zip));
    expect(await importJob(second, place)).toEqual({ ok: true, value: { jobId } });
    const [sent, got] = await Promise.all([first, second].map(async (each) => (await loadJob(each.database, jobId))!));
    const sorted = (list: readonly unknown[]) => list.map((row) => JSON.stringify(row)).sort();
    for (const table of JOB_TABLE_NAMES) expect(sorted(got![table]), table).toEqual(sorted(sent![table]));
    for (const { id } of rows.photographs) {
      const [a, b] = await Promise.all(
        [first, second].map(async ({ database }) => {
          const parts: Uint8Array[] = [];
          for await (const part of contentOf(database, id)) parts.push(part);
          return Buffer.concat(parts);
        }),
      );
      expect(a!.equals(b!)).toBe(true);
    }
  });

  it('that is here already is not taken twice', async () => {
    expect(await faults(files())).toEqual([{ path: 'here', message: 'the job "Solbris 1200 estate" is here already' }]);
  });

  it('of no job is none', async () => {
    expect(await exportJob(second.database, '00000000-0000-4000-8000-000000000000')).toBeUndefined();
  });
});
