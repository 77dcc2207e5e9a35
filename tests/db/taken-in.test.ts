import { randomUUID } from 'node:crypto';
import { cpSync, mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { buffer } from 'node:stream/consumers';
import fc from 'fast-check';
import { afterAll, describe, expect, it } from 'vitest';
import { loadJob } from '@/db/jobs';
import { migrate } from '@/db/migrate';
import { replayJournal } from '@/db/journal/replay';
import { readChartCsv } from '@/formats/chart/csv';
import type { Outcome } from '@/formats/outcome';
import * as chart from '@/server/actions/chart';
import { importChart } from '@/server/actions/import-chart';
import * as jobs from '@/server/actions/jobs';
import * as log from '@/server/actions/log';
import * as references from '@/server/actions/references';
import { importSister } from '@/server/actions/sister';
import * as steps from '@/server/actions/steps';
import { contentHash, exportJob } from '@/server/archive/export';
import { importJob } from '@/server/archive/import';
import { takeTapeEntry } from '@/server/readings';
import { store } from '@/server/store';
import { benchPerTest, faultsOf, valueOf } from '../support/bench';
import { pglite } from '../support/engines';
import { removeAll } from '../support/remove';
import { tried } from '../support/thorough';

const bench = benchPerTest();
const scratch = mkdtempSync(path.join(os.tmpdir(), 'vinkel-taken-in-'));
afterAll(() => removeAll(scratch));

/** What people, spreadsheets and broken programs put into a field of text. */
const nasty = fc.oneof(
  fc.string({ maxLength: 12 }),
  fc.constantFrom(
    '',
    ' ',
    '\0',
    'a\0b',
    '\ud83d',
    'x\udc00',
    '🚗',
    '“Ünder”',
    "'; drop table job; --",
    '=1+1',
    '\u202Eabc',
  ),
  fc.integer({ min: 30, max: 400 }).map((length) => 'k'.repeat(length)),
);
const figure = fc.oneof(
  fc.double({ noNaN: true, min: -2000, max: 2000 }),
  fc.constantFrom(0, -0, 1e-9, 150_000, -150_000, 99_999.9, 1e300, -1e300, 1e308, Number.MAX_VALUE, Number.MIN_VALUE),
);
const cell = (text: string) => `"${text.replaceAll('"', '""').replaceAll(/[\r\n]/g, ' ')}"`;

const charts = fc.array(fc.record({ code: nasty, name: nasty, x: figure, y: figure, z: figure, tolerance: figure }), {
  minLength: 1,
  maxLength: 3,
});

describe('whatever is taken in', () => {
  it('comes out again: of the job’s own archive, and of the journal', { timeout: 300_000 }, async () => {
    const { jobId } = bench();
    const roundId = await bench().openRound('As found');
    const [tape] = (await bench().rows()).instrumentVersions;
    const tries = { taken: 0, refused: 0 };
    const note = (outcome: Outcome<unknown>) => void tries[outcome.ok ? 'taken' : 'refused']++;
    const attempts: readonly fc.IAsyncPropertyWithHooks<never>[] = [
      fc.asyncProperty(charts, async (rows) => {
        const lines = rows.map(({ code, name, ...at }) =>
          [cell(code), cell(name), at.x, at.y, at.z, Math.abs(at.tolerance)].join(';'),
        );
        const text = `id;name;x;y;z;tolerance\n${lines.join('\n')}\n`;
        const outcome = await importChart({ jobId, files: [{ name: 'points.csv', text }], unit: 'mm', asItSays: true });
        note(outcome);
        // What exceeds a limit is refused at its row, not by the database.
        for (const fault of faultsOf(outcome)) expect(fault.path).toMatch(/^points\.csv line \d+$|^file$/);
      }) as never,
      fc.asyncProperty(nasty, figure, fc.constantFrom('height', 'length'), async (raw, value, quantity) => {
        const entry = await bench().height(roundId, 'S1L', value, raw);
        const readings = entry.readings.map((reading) => ({ ...reading, quantity }));
        note(await takeTapeEntry({ ...entry, readings }, randomUUID));
      }) as never,
      fc.asyncProperty(nasty, nasty, async (title, needs) => {
        note(await steps.addStep({ id: randomUUID(), jobId, rung: 'cut', title, note: needs, needs }));
      }) as never,
      fc.asyncProperty(nasty, nasty, async (text, reason) => {
        const form = new FormData();
        const entry = { id: randomUUID(), jobId, kind: 'decision', text, reason, roundId: null, supersedes: null };
        form.set('entry', JSON.stringify({ entry, subjects: [] }));
        note(await log.writeLogEntry(form));
      }) as never,
      fc.asyncProperty(figure, figure, figure, nasty, async (x, y, z, name) => {
        const { point } = await bench().point('S1R');
        const of = {
          kind: 'plannedChange' as const,
          pointIds: [point.id],
          offset: [x, y, z] as [number, number, number],
        };
        note(await references.makeReference({ jobId, name, source: name, of }));
        const figures = `S1L ${x} ${y} ${z}`;
        note(
          await references.makeReference({
            ...{ jobId, name: 'typed', source: '' },
            of: { kind: 'keptPart', figures, unit: 'mm', trust: 1 },
          }),
        );
      }) as never,
      fc.asyncProperty(nasty, figure, figure, figure, nasty, async (code, x, y, z, shell) => {
        const text = `id;x;y;z\n${cell(code)};${x};${y};${z}\n`;
        const { point } = await bench().point('S1R');
        note(
          await importSister({
            ...{ jobId, shell, instrumentVersionId: tape!.id, unit: 'mm', file: { name: 'sister.csv', text } },
            mapping: { [code.trim()]: point.id },
          }),
        );
      }) as never,
      fc.asyncProperty(nasty, nasty, async (owner, shell) => {
        const [row] = (await bench().rows()).jobs;
        note(await jobs.editJob({ ...row!, owner, shell, note: owner }));
      }) as never,
      fc.asyncProperty(nasty, nasty, async (code, name) => {
        const { point, reference } = await bench().point('R1L');
        note(await chart.savePoint({ point: { ...point, code, name }, reference }));
        valueOf(await chart.savePoint({ ...(await restored(point.id)) }));
      }) as never,
    ];
    async function restored(id: string) {
      const rows = await bench().rows();
      const point = rows.points.find((each) => each.id === id)!;
      const reference = rows.referencePoints.find(({ pointId }) => pointId === id)!;
      return { point: { ...point, code: 'R1L' }, reference };
    }
    for (const [i, attempt] of attempts.entries()) await fc.assert(attempt, { numRuns: tried(10, 25), seed: 40 + i });
    expect(Math.min(tries.taken, tries.refused)).toBeGreaterThan(tried(24, 60));

    const { database, folder } = await store();
    const own = contentHash(await bench().rows());
    const zip = path.join(scratch, 'job.zip');
    writeFileSync(zip, await buffer((await exportJob(database, jobId))!.zip));
    const elsewhere = await pglite.open();
    await migrate(elsewhere);
    expect(await importJob({ database: elsewhere }, zip)).toEqual({ ok: true, value: { jobId } });
    expect(contentHash((await loadJob(elsewhere, jobId))!)).toBe(own);
    await elsewhere.close();

    cpSync(path.join(folder, 'journal'), path.join(scratch, 'journal'), { recursive: true });
    const again = await pglite.open();
    await migrate(again);
    expect((await replayJournal(again, path.join(scratch, 'journal'))).faults).toEqual([]);
    expect(contentHash((await loadJob(again, jobId))!)).toBe(own);
    await again.close();
  });

  it('says which row and which field is beyond what can be kept', () => {
    const text = `id;x;y;z\n${'C'.repeat(41)};1;2;3\nA1L;150001;-2;3\nA2L;1e300;-2;3\n`;
    const { rows } = readChartCsv([{ name: 'points.csv', text }], { unit: 'mm', driverSide: 'left' }, new Set());
    expect(rows.map(({ line, faults }) => [line, faults[0]])).toEqual([
      [2, 'code: a code has 1 to 40 letters, all of them signs that can be written'],
      [3, 'x: no shell reaches further than 100 m'],
      [4, expect.stringMatching(/^x: /)],
    ]);
  });
});
