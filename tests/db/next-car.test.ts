import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { Job } from '@/core/shell/job/job';
import { theJob } from '@/core/shell/job/job-rows';
import { listJobs, loadJob } from '@/db/jobs';
import { createJob } from '@/server/actions/jobs';
import { book } from '@/server/actions/calendar';
import { exportJob } from '@/server/archive/export';
import { importJob } from '@/server/archive/import';
import { store } from '@/server/store';
import { createWriteStream, mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { demoArchive } from '../../scripts/demo-archive.mjs';
import { benchPerTest, faultsOf, valueOf } from '../support/bench';
import { demoRows } from '../support/demo-rows';
import { removeAll } from '../support/remove';

const bench = benchPerTest();
const fields = (name: string) => ({ ...bench().fields(), id: randomUUID(), name });

describe('the next car of a model', () => {
  it('begins with the chart and the hours of the first, and is a job of its own', async () => {
    const [step] = (await bench().rows()).steps;
    valueOf(await book({ id: randomUUID(), stepId: step!.id, minutes: 75, note: '' }));
    const form = fields('Solbris, the second');
    const [one, again] = await Promise.all([1, 2].map(() => createJob({ ...form, afterId: bench().jobId }, form.id)));
    valueOf(one!);
    valueOf(again!);
    const second = (await loadJob((await store()).database, form.id))!;
    expect(second.points.map(({ code }) => code)).toEqual((await bench().rows()).points.map(({ code }) => code));
    expect(second.steps.find(({ title }) => title === step!.title)!.minutes).toBe(75);
    expect(second.rounds).toEqual([]);
    // What is changed on one is not on the other.
    expect(second.points.some(({ id }) => id === step!.id)).toBe(false);
    expect((await bench().rows()).jobs[0]!.name).toBe('Solbris');
  });

  it('is refused after a job that is gone', async () => {
    const outcome = await createJob({ ...fields('X'), afterId: randomUUID() });
    expect(faultsOf(outcome)).toEqual([{ path: 'afterId', message: 'this job is not here any more' }]);
  });

  it('of a whole job is taken by the database, goes to another shop, and comes from there the same', async () => {
    const folder = mkdtempSync(path.join(os.tmpdir(), 'vinkel-next-'));
    const { database } = await store();
    for (const name of ['solbris', 'lodd', 'maake', 'kvist'] as const) {
      const zip = path.join(folder, `${name}.zip`);
      writeFileSync(zip, await demoArchive(name));
      valueOf(await importJob({ database }, zip));
      const form = fields(`After ${name}`);
      valueOf(await createJob({ ...form, afterId: theJob(demoRows(name)).id }));
      const rows = (await loadJob(database, form.id))!;
      expect(rows.points.length).toBe(demoRows(name).points.length);
      const out = path.join(folder, 'out.zip');
      await pipeline((await exportJob(database, form.id))!.zip, createWriteStream(out));
      valueOf(await importJob({ database }, out, 'copy'));
      const copy = (await listJobs(database)).find((each) => each.name === `After ${name} (copy)`)!;
      const back = (await loadJob(database, copy.id))!;
      expect(back.springBacks.map(({ by, car }) => [by, car])).toEqual(
        rows.springBacks.map(({ by, car }) => [by, car]),
      );
      expect(Job.of(back).braces.map(({ code }) => code)).toEqual(Job.of(rows).braces.map(({ code }) => code));
    }
    removeAll(folder);
  });
});
