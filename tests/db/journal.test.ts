import { execFileSync } from 'node:child_process';
import { appendFileSync, cpSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { open } from 'node:fs/promises';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { JOB_TABLE_NAMES, type JobRows } from '@/core/shell/job/job-rows';
import { loadJob, removeJob } from '@/db/jobs';
import { DiskFull, openJournal } from '@/db/journal/journal';
import { readLine, writeLine, type JournalLine } from '@/db/journal/line';
import { lines } from '@/db/journal/lines';
import { insert, update } from '@/db/table';
import { contentHash } from '@/server/archive/export';
import { importJob } from '@/server/archive/import';
import { makePreview, storeContent } from '@/server/photographs';
import { openStore, type Store } from '@/server/store';
import { demoArchive } from '../../scripts/demo-archive.mjs';
import { demoRows } from '../support/demo-rows';
import { EmptyFolders } from '../support/empty-folder';
import { smallDisk } from '../support/small-disk';

const data = new EmptyFolders();

const rows = demoRows('kvist');
const jobId = rows.jobs[0]!.id;

/** Puts a whole demo job into a store as the program would, its pictures too. */
async function fill(store: Store, all: JobRows = rows): Promise<void> {
  const name = all.jobs[0]!.name.split(' ')[0]!.toLowerCase();
  const zip = data.in(`${name}.zip`);
  writeFileSync(zip, await demoArchive(name));
  const outcome = await importJob(store, zip);
  if (!outcome.ok) throw new Error(JSON.stringify(outcome.faults));
  rmSync(zip);
}

const journalFile = () => {
  const [name] = readdirSync(data.in('journal')).filter((each) => each.endsWith('.jsonl'));
  return data.in('journal', name!);
};
const linesOf = () => readFileSync(journalFile(), 'utf8').trim().split('\n');
const loseDatabase = () => data.startDatabase();

async function takeReading(store: Store, index: number): Promise<void> {
  const reading = { ...rows.readings[index]!, id: crypto.randomUUID(), raw: `again ${index}` };
  await store.database.transaction((tx) => insert(tx, 'readings', [reading]));
}
const hashIn = async (store: Store, id = jobId) => contentHash((await loadJob(store.database, id))!);

describe('the journal', () => {
  it('brings back every row of a job and its pictures when the database is gone', async () => {
    const lodd = demoRows('lodd');
    const first = await openStore(data.folder);
    await fill(first, lodd);
    const before = await hashIn(first, lodd.jobs[0]!.id);
    await first.close();
    rmSync(data.in('database'), { recursive: true });
    const second = await openStore(data.folder);
    expect(second.opening).toMatchObject({ restored: 1, faults: [] });
    expect(await hashIn(second, lodd.jobs[0]!.id)).toBe(before);
    const [{ count }] = (await second.database.query<{ count: number }>(
      'select count(*)::int as count from photograph_part',
    )) as [{ count: number }];
    expect(count).toBe(lodd.photographs.length);
    await second.close();
  });

  it('holds edits, deletes and removals as they happened, and nothing of what was rolled back', async () => {
    const first = await openStore(data.folder);
    await fill(first);
    const { database } = first;
    const point = (await loadJob(database, jobId))!.points[0]!;
    await database.transaction((tx) => update(tx, 'points', { ...point, name: 'Renamed' }));
    await database.query('delete from member_line where job_id = $1', [jobId]);
    const lost = database.transaction(async (tx) => {
      await update(tx, 'points', { ...point, name: 'Never', version: 2 });
      throw new Error('changed its mind');
    });
    await expect(lost).rejects.toThrow('changed its mind');
    const before = await hashIn(first);
    await first.close();
    loseDatabase();
    const second = await openStore(data.folder);
    expect(await hashIn(second)).toBe(before);
    await second.database.transaction((tx) => removeJob(tx, jobId));
    await second.close();
    loseDatabase();
    const third = await openStore(data.folder);
    expect(await loadJob(third.database, jobId)).toBeUndefined();
    expect(third.opening.faults).toEqual([]);
    await third.close();
  });

  it('does again only what an older copy of the database lacks', async () => {
    const first = await openStore(data.folder);
    await fill(first);
    await first.close();
    cpSync(data.in('database'), data.in('older'), { recursive: true });
    const second = await openStore(data.folder);
    expect(second.opening.restored).toBe(0);
    for (const index of [0, 1, 2]) await takeReading(second, index);
    const before = await hashIn(second);
    await second.close();
    loseDatabase();
    cpSync(data.in('older'), data.in('database'), { recursive: true });
    const third = await openStore(data.folder);
    expect(third.opening).toEqual({ restored: 3, faults: [] });
    expect(await hashIn(third)).toBe(before);
    await third.close();
  });

  it('cuts away what a power cut tore off, which nobody was told of', async () => {
    const first = await openStore(data.folder);
    await fill(first);
    await first.close();
    const whole = readFileSync(journalFile(), 'utf8');
    appendFileSync(journalFile(), `${whole.split('\n')[0]!.slice(0, 60)}`);
    const second = await openStore(data.folder);
    await takeReading(second, 1);
    await second.close();
    expect(linesOf()).toHaveLength(2);
    const third = await openStore(data.folder);
    expect(third.opening).toEqual({ restored: 0, faults: [] });
    await third.close();
  });

  it('ends a last line that is whole but for its end', async () => {
    const first = await openStore(data.folder);
    await fill(first);
    await first.close();
    writeFileSync(journalFile(), readFileSync(journalFile(), 'utf8').trimEnd());
    loseDatabase();
    const second = await openStore(data.folder);
    expect(second.opening).toEqual({ restored: 1, faults: [] });
    await takeReading(second, 1);
    await second.close();
    expect(linesOf().map((line) => readLine(line).number)).toEqual([1, 2]);
  });

  it('names a damaged line, and says whether the database has what it said', async () => {
    const first = await openStore(data.folder);
    await fill(first);
    for (const index of [0, 1]) await takeReading(first, index);
    await first.close();
    const [one, two, three] = linesOf();
    writeFileSync(journalFile(), `${[one, two!.replace('again 0', 'again 9'), three].join('\n')}\n`);
    const second = await openStore(data.folder);
    expect(second.opening.faults).toMatchObject([{ line: 2, harmless: true, reason: /checksum/ }]);
    await second.close();
    loseDatabase();
    const third = await openStore(data.folder);
    expect(third.opening).toMatchObject({ restored: 2, faults: [{ line: 2, harmless: false }] });
    const raws = (await loadJob(third.database, jobId))!.readings.map(({ raw }) => raw);
    expect(raws).toContain('again 1');
    expect(raws.some((raw) => raw === 'again 0' || raw === 'again 9')).toBe(false);
    await third.close();
  });

  it('says which lines are missing at its beginning', async () => {
    const first = await openStore(data.folder);
    await fill(first);
    for (const index of [0, 1]) await takeReading(first, index);
    await first.close();
    writeFileSync(journalFile(), `${linesOf().slice(1).join('\n')}\n`);
    loseDatabase();
    const second = await openStore(data.folder);
    expect(second.opening.faults.map(({ reason }) => reason)[0]).toMatch(/the lines 1 to 1 before it are missing/);
    await second.close();
  });

  it('keeps a picture that was acknowledged, and goes on without one that is lost', async () => {
    const first = await openStore(data.folder);
    await fill(first);
    const picture = demoRows('solbris').photographs[0]!;
    const content = readFileSync(`demo/jobs/solbris/photographs/${picture.id}.jpg`);
    const write = (store: Store, id: string) =>
      store.database.transaction(async (tx) => {
        await store.pictures!.keep(id, content);
        await storeContent(tx, id, await makePreview(content), content);
        await insert(tx, 'photographs', [{ ...picture, id, jobId, entryId: null }]);
      });
    const [kept, lost] = [crypto.randomUUID(), crypto.randomUUID()];
    await write(first, kept);
    await write(first, lost);
    await first.close();
    loseDatabase();
    rmSync(data.in('journal', 'pictures', lost));
    const second = await openStore(data.folder);
    const photographs = (await loadJob(second.database, jobId))!.photographs.map(({ id }) => id);
    expect(photographs).toContain(kept);
    expect(photographs).not.toContain(lost);
    await second.close();
  });
});

describe('a full disk', () => {
  const line = (number: number): JournalLine => ({
    number,
    at: '2026-11-24T08:00:00.000Z',
    changes: [{ table: 'jobs', rows: [{ ...rows.jobs[0]!, note: 'x'.repeat(18_000) }] }],
  });
  const numbersIn = async (file: string) => {
    const found: number[] = [];
    for await (const { text } of lines(file)) found.push(readLine(text).number);
    return found;
  };
  const PAGE = 4096;

  it.each(Array.from({ length: 10 }, (_, i) => i))(
    'stops a line at place %i of ten, and the next one is whole',
    async (place) => {
      const disk = data.in('disk');
      const unmount = smallDisk(disk, 60 * PAGE);
      // Where no disk can be made, the test below stands for this one.
      if (!unmount) return;
      try {
        const journal = await openJournal(disk, 1);
        await journal.append(line(1));
        // The rest of the disk is taken by something else, all but a part of the next line.
        const ballast = path.join(disk, 'ballast');
        const size = Buffer.byteLength(writeLine(line(2)));
        const free = () => Number(execFileSync('stat', ['-f', '-c', '%a', disk], { encoding: 'utf8' })) * PAGE;
        const leave = Math.floor(((size / 10) * place) / PAGE) * PAGE;
        writeFileSync(ballast, Buffer.alloc(Math.max(0, free() - leave)));
        await expect(journal.append(line(2))).rejects.toBeInstanceOf(DiskFull);
        await expect(journal.append(line(2))).rejects.toBeInstanceOf(DiskFull);
        rmSync(ballast);
        await journal.append(line(2));
        await journal.append(line(3));
        await journal.close();
        expect(await numbersIn(path.join(disk, '000000000001.jsonl'))).toEqual([1, 2, 3]);
      } finally {
        unmount();
      }
    },
  );

  it.each(Array.from({ length: 10 }, (_, i) => i))(
    'after part %i of a line was written leaves nothing of it',
    async (place) => {
      // A file that takes a part of a line and then no more, as a disk does; and cannot be cut back at once.
      let room = Infinity;
      let stuck = false;
      const journal = await openJournal(data.in('journal'), 1, async (file) => {
        const handle = await open(file, 'a+');
        const append = handle.appendFile.bind(handle);
        const truncate = handle.truncate.bind(handle);
        handle.appendFile = async (bytes) => {
          const all = bytes as Buffer;
          if (all.length <= room) return append(all);
          await append(all.subarray(0, room));
          throw Object.assign(new Error('no space'), { code: 'ENOSPC' });
        };
        handle.truncate = async (size) => {
          if (stuck) throw Object.assign(new Error('no space'), { code: 'ENOSPC' });
          return truncate(size);
        };
        return handle;
      });
      await journal.append(line(1));
      room = Math.floor((Buffer.byteLength(writeLine(line(2))) / 10) * place);
      stuck = true;
      await expect(journal.append(line(2))).rejects.toBeInstanceOf(DiskFull);
      stuck = false;
      room = Infinity;
      await journal.append(line(2));
      await journal.append(line(3));
      await journal.close();
      expect(await numbersIn(data.in('journal', '000000000001.jsonl'))).toEqual([1, 2, 3]);
    },
  );
});

describe('the tables of a job', () => {
  it('are all kept in the journal', async () => {
    const store = await openStore(data.folder);
    const kept = await store.database.query<{ name: string }>(
      `select distinct tgrelid::regclass::text as name from pg_trigger where tgname = 'noted_insert'`,
    );
    const { nameOf } = await import('@/db/table');
    expect(kept.map(({ name }) => name).sort()).toEqual(JOB_TABLE_NAMES.map(nameOf).sort());
    await store.close();
  });
});
