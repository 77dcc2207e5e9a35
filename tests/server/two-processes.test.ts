import { spawn, type ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { build } from 'esbuild';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { NEW_BRACE } from '@/core/shell/job/entities';
import { recordItemEvent, planBrace } from '@/server/actions/work';
import { benchPerTest, valueOf } from '../support/bench';
import { removeAll } from '../support/remove';
import type { Tally, Task } from '../support/writers';

const shop = benchPerTest();
const PROCESSES = 2;
const WRITERS = 10;
const TIMES = 4;

describe('two processes on one database, twenty writers at once', () => {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'vinkel-writers-'));
  const program = path.resolve('node_modules/.cache/vinkel', `writers-${process.pid}.mjs`);
  beforeAll(() =>
    build({
      entryPoints: ['tests/support/writers.ts'],
      outfile: program,
      alias: { 'next/headers': path.resolve('tests/support/no-headers.ts') },
      external: ['@electric-sql/pglite', 'fs-native-extensions', 'sharp', 'yazl', 'yauzl', 'highs', 'pg', '@node-rs/*'],
      ...{ bundle: true, platform: 'node', target: 'node20', format: 'esm', mainFields: ['module', 'main'] },
      banner: { js: "import { createRequire } from 'node:module'; const require = createRequire(import.meta.url);" },
    }),
  );
  afterAll(() => {
    removeAll(folder);
    removeAll(program);
  });

  /** Starts a process of writers; it waits until it is told to begin. */
  async function start(task: Task, k: number): Promise<() => Promise<Tally>> {
    const child: ChildProcess = spawn(process.execPath, [program, JSON.stringify(task)], {
      env: { ...process.env, VINKEL_DATA: path.join(folder, String(k)) },
      stdio: ['pipe', 'pipe', 'pipe'],
    });
    let said = '';
    let heard = (): void => undefined;
    for (const stream of [child.stdout!, child.stderr!])
      stream.on('data', (chunk: Buffer) => {
        said += chunk.toString();
        heard();
      });
    const ended = new Promise<void>((resolve) => child.once('exit', () => resolve()));
    await new Promise<void>((resolve, reject) => {
      heard = () => said.includes('ready\n') && resolve();
      void ended.then(() => reject(new Error(said)));
    });
    return async () => {
      child.stdin!.write('go\n');
      await ended;
      const last = said.trim().split('\n').at(-1)!;
      if (!last.startsWith('{')) throw new Error(said);
      return JSON.parse(last) as Tally;
    };
  }

  it('number lines, rounds and editions without a gap, close once, take back once, and lose nobody’s edit', async () => {
    const { jobId } = shop();
    const roundId = await shop().openRound('Filled');
    const closingId = await shop().openRound('Closed meanwhile');
    await shop().closeRound(await shop().openRound('Closed before'));
    const [from, to] = [await shop().point('S1L'), await shop().point('S1R')];
    const braceId = randomUUID();
    const brace = { id: braceId, jobId, fromPointId: from.point.id, toPointId: to.point.id, ...NEW_BRACE };
    valueOf(
      await planBrace({
        item: { id: braceId, jobId, kind: 'brace', code: 'X1', name: 'X1' },
        brace: { ...brace, kind: 'weldedTube' },
        dimensionIds: [],
      }),
    );
    const fitted = { id: randomUUID(), itemId: braceId, kind: 'fitted' as const, key: '', reason: '', value: null };
    valueOf(await recordItemEvent(fitted));
    const before = await shop().rows();
    const task: Task = {
      ...{ jobId, roundId, closingId, writers: WRITERS, times: TIMES, form: randomUUID(), stepId: randomUUID() },
      instrumentVersionId: before.instrumentVersions[0]!.id,
      pointId: (await shop().point('F1L')).point.id,
      eventId: before.workEvents.find(({ kind }) => kind === 'fitted')!.id,
    };
    const begin = await Promise.all(Array.from({ length: PROCESSES }, (_, k) => start(task, k)));
    const tallies = await Promise.all(begin.map((each) => each()));

    expect(tallies.flatMap(({ odd }) => odd)).toEqual([]);
    const done = (what: string) => tallies.reduce((sum, tally) => sum + (tally.done[what] ?? 0), 0);
    const all = PROCESSES * WRITERS;
    const rows = await shop().rows();
    const counting = (count: number) => Array.from({ length: count }, (_, i) => i + 1);
    const sorted = (numbers: readonly number[]) => numbers.toSorted((a, b) => a - b);

    const sequences = (round: string) =>
      rows.readings.filter((row) => row.roundId === round).map((row) => row.sequence);
    expect(done('line')).toBe(all * TIMES);
    expect(sorted(sequences(roundId))).toEqual(counting(all * TIMES));
    expect(sorted(sequences(closingId))).toEqual(counting(done('line of the other')));
    expect(rows.roundEvents.filter((event) => event.roundId === closingId)).toHaveLength(1);
    expect(sorted(rows.rounds.map(({ number }) => number))).toEqual(counting(3 + all));

    const ordinals = rows.steps.map(({ ordinal }) => ordinal);
    expect(new Set(ordinals).size).toBe(ordinals.length);
    expect(rows.steps).toHaveLength(before.steps.length + done('step') + 1);
    expect([done('step'), done('told of the one form')]).toEqual([all * TIMES, all]);

    // As many edits were taken as the row has versions: none was written over another.
    expect(rows.jobs[0]!.version).toBe(before.jobs[0]!.version + done('job'));
    const charts = rows.references.filter(({ kind }) => kind === 'chart');
    expect(sorted(charts.map(({ edition }) => edition))).toEqual(counting(charts.length));
    expect(charts.length).toBeGreaterThan(1);
    expect(charts.filter(({ inUse }) => inUse)).toHaveLength(1);
    expect(done('chart')).toBeGreaterThan(0);

    expect(done('taken back')).toBe(all);
    expect(rows.withdrawals).toHaveLength(1);
    // All of it was one person, who became one of the shop's people once.
    expect(rows.people.filter(({ name }) => name === 'Ronja')).toHaveLength(1);
  });
});
