import { randomUUID } from 'node:crypto';
import { createWriteStream, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ZipFile } from 'yazl';
import { seeded } from '@/core/maths/random/seeded';
import { parseJson } from '@/formats/faults';
import { importJob } from '@/server/archive/import';
import { readRows } from '@/server/archive/read-zip';
import { takeTapeEntry } from '@/server/readings';
import { openStore, type Store } from '@/server/store';
import { demoArchive } from '../../scripts/demo-archive.mjs';
import { benchPerTest, faultsOf } from '../support/bench';
import { removeAll } from '../support/remove';
import { tried } from '../support/thorough';

const scratch = mkdtempSync(path.join(os.tmpdir(), 'vinkel-hostile-'));
afterAll(() => removeAll(scratch));

async function zipOf(entries: Readonly<Record<string, Buffer | string>>): Promise<string> {
  const zip = new ZipFile();
  for (const [name, content] of Object.entries(entries)) zip.addBuffer(Buffer.from(content), name);
  zip.end();
  const place = path.join(scratch, `${randomUUID()}.zip`);
  await pipeline(zip.outputStream, createWriteStream(place));
  return place;
}

describe('an archive made to do harm', () => {
  it('that unpacks to hundreds of megabytes of blanks is refused before it is unpacked', async () => {
    const bomb = await zipOf({ 'job.json': Buffer.alloc(120 * 1024 * 1024, 0x20) });
    expect(readFileSync(bomb).length).toBeLessThan(400_000);
    const before = process.memoryUsage().rss;
    expect(await readRows(bomb)).toMatchObject({
      ok: false,
      faults: [{ path: 'job.json', message: expect.stringContaining('cannot be a job') }],
    });
    expect(process.memoryUsage().rss - before).toBeLessThan(100 * 1024 * 1024);
  });

  it('that has more files than any job, or documents larger than any, is refused', async () => {
    const many = Object.fromEntries(Array.from({ length: 5001 }, (_, i) => [`x/${i}`, '']));
    expect(faultsOf(await readRows(await zipOf(many)))[0]!.message).toMatch(/5001 files/);
  });

  it.each([
    ['nested ten thousand deep', '['.repeat(10_000) + ']'.repeat(10_000)],
    ['nested in objects', '{"a":'.repeat(10_000) + '1' + '}'.repeat(10_000)],
    ['nested and never closed', '['.repeat(200_000)],
    ['of nothing', ''],
    ['of a zero sign', '\0'],
    ['of half an emoji', '"\ud83d"'],
    ['of another kind', 'null'],
  ])('with a document %s is refused in words', async (_, text) => {
    const outcome = await readRows(await zipOf({ 'job.json': text }));
    const [fault] = faultsOf(outcome);
    expect(fault!.path).toMatch(/^job\.json|^file/);
    expect(fault!.message).toMatch(/^[a-zA-Z“"].{4,}/);
  });
});

describe('archives mangled by the hundred', () => {
  let store: Store;
  beforeAll(async () => {
    store = await openStore(path.join(scratch, 'data'));
  });
  afterAll(() => store.close());

  it('are taken whole or refused in words, and never bring anything down', async () => {
    const whole = Buffer.from(await demoArchive('kvist'));
    const random = seeded(7);
    const at = () => Math.floor(random.next() * whole.length);
    let refused = 0;
    const count = tried(24, 200);
    for (let i = 0; i < count; i++) {
      const mangled = Buffer.from(whole);
      const kind = i % 4;
      if (kind === 0) for (let k = 0; k < 1 + (i % 30); k++) mangled[at()] = Math.floor(random.next() * 256);
      if (kind === 1) mangled.fill(0, at(), at());
      const cut = kind === 2 ? mangled.subarray(0, at()) : mangled;
      const place = path.join(scratch, 'mangled.zip');
      writeFileSync(place, kind === 3 ? Buffer.concat([cut.subarray(0, at()), cut.subarray(at())]) : cut);
      const outcome = await importJob(store, place, 'missing');
      if (!outcome.ok) {
        refused++;
        for (const { message } of outcome.faults) expect(message).not.toMatch(/undefined|\[object|Error:/);
      }
    }
    expect(refused).toBeGreaterThan(0.4 * count);
  });
});

describe('an entry of the tape made to do harm', () => {
  const bench = benchPerTest();

  it('is refused at its place', async () => {
    const roundId = await bench().openRound('As found');
    const entry = await bench().height(roundId, 'S1L', 151);
    const attempts: readonly (readonly [string, unknown])[] = [
      ['readings[0].raw', withReading({ raw: 'S1L\0h' })],
      ['readings[0].raw', withReading({ raw: 'S1L \ud83d' })],
      ['readings[0].author', withReading({ author: '\udc00' })],
      ['readings[0].takenAt', withReading({ takenAt: '0000-01-01T00:00:00Z' })],
      ['readings[0].takenAt', withReading({ takenAt: '+020000-01-01T00:00:00Z' })],
      ['readings[0].value', withReading({ value: 1e300 })],
      ['readings[0].id', withReading({ id: `${entry.readings[0]!.id}\0` })],
      ['file', nested(10_000)],
      ['readings[0]', { ...entry, readings: nested(10_000) }],
      ['file', null],
    ];
    for (const [place, attempt] of attempts)
      expect(faultsOf(await takeTapeEntry(attempt, randomUUID)).map(({ path: at }) => at)).toContain(place);
    expect((await bench().rows()).readings).toEqual([]);

    function withReading(some: object) {
      return { ...entry, readings: [{ ...entry.readings[0]!, ...some }] };
    }
  });
});

/** Lists in lists. */
function nested(depth: number): unknown {
  let value: unknown = [];
  for (let i = 0; i < depth; i++) value = [value];
  return value;
}

describe('JSON nested beyond measure', () => {
  it('is said to be, not run into', () => {
    for (const depth of [10_000, 1_000_000]) {
      const read = parseJson('['.repeat(depth));
      expect(read.ok ? [] : read.faults).toMatchObject([
        { path: 'file', message: expect.stringMatching(/nested|not JSON/) },
      ]);
    }
  });
});
