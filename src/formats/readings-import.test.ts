import { Readable } from 'node:stream';
import { describe, expect, it } from 'vitest';
import type { Subjects } from '@/core/shell/shorthand/line';
import { demoRows } from '../../tests/support/demo-rows';
import { readingsCsv } from './readings-csv';
import { previewReadings, readTable } from './readings-import';

const subjects: Subjects = {
  points: [
    { id: '1', code: 'F1L', side: 'left' },
    { id: '2', code: 'S2L', side: 'left' },
  ],
  stations: [],
  pairs: [],
};
const read = async (text: string) => previewReadings(await readTable(text), subjects, 'mm');

describe('readings from a CSV', () => {
  it('are matched by their headers, whatever the separator and the decimal sign', async () => {
    expect((await read('From;To;Distance\nF1L;S2L;1011,5\n')).rows).toEqual([{ number: 2, line: 'F1L S2L 1011,5 mm' }]);
    expect((await read('point,kind,value\nF1L,height,215\n')).rows[0]).toEqual({ number: 2, line: 'F1L h 215 mm' });
    expect((await read('from\tto\tvalue\nF1L\tS2L\t39 13/16"\n')).rows[0]!.fault).toBeUndefined();
  });

  it('name every faulty row by its line and keep the sound ones apart', async () => {
    const { rows } = await read('from,to,value\nF1L,S9L,12\nF1L,S2L,twelve\nF1L,S2L,900\n');
    expect(rows.map(({ number, fault }) => [number, fault !== undefined])).toEqual([
      [2, true],
      [3, true],
      [4, false],
    ]);
    expect(rows[0]!.fault).toContain('no point "S9L"');
  });

  it('are taken a thousand at a time, counted as they stand in the file', async () => {
    const text = `from,to,value\n${Array.from({ length: 2500 }, (_, i) => `F1L,S2L,${i + 1}\n`).join('')}`;
    const last = await readTable(text, { part: 2 });
    expect(last).toMatchObject({ total: 2500, before: 2000, cells: { length: 500 } });
    expect(previewReadings(last, subjects, 'mm').rows[0]).toEqual({ number: 2002, line: 'F1L S2L 2001 mm' });
    expect(await readTable(text, { part: 9 })).toMatchObject({ total: 2500, cells: [] });
  });

  it('of a file with a million rows cost less than 400 MB, tell how far they are, and stop when told so', async () => {
    const size = 14 + 1_000_000 * 12;
    const million = () =>
      Readable.from(
        (function* () {
          yield 'from,to,value\n';
          for (let k = 0; k < 1000; k++) yield 'F1L,S2L,900\n'.repeat(1000);
        })(),
      );
    const before = process.memoryUsage().rss;
    let most = 0;
    const shares: number[] = [];
    const onProgress = (share: number) => {
      shares.push(share);
      most = Math.max(most, process.memoryUsage().rss - before);
    };
    const { total } = await readTable(million(), { size, onProgress });
    expect(total).toBe(1_000_000);
    expect(most).toBeLessThan(400e6);
    expect(shares.length).toBeGreaterThan(5);
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
    expect(shares.at(-1)).toBeCloseTo(1, 2);
    const stopped = readTable(million(), { size, signal: AbortSignal.abort() });
    await expect(stopped).rejects.toThrow('cancelled');
  });

  it('can be matched by hand where the headers say nothing', async () => {
    const text = 'a1,a2,a3\nF1L,S2L,900\n';
    expect((await read(text)).rows[0]!.fault).toBeDefined();
    const mapping = { subject: 0, to: 1, value: 2, quantity: -1, measure: -1 };
    expect(previewReadings(await readTable(text), subjects, 'mm', mapping).rows[0]!.fault).toBeUndefined();
  });

  it('take back our own export, struck lines left out', async () => {
    const rows = demoRows('solbris');
    const own = previewReadings(
      await readTable(readingsCsv(rows)),
      {
        points: rows.points,
        stations: rows.seamStations.map(({ id, seamId, number }) => ({
          id,
          code: `${rows.seams.find((seam) => seam.id === seamId)!.code}.${number}`,
        })),
        pairs: rows.dimensions,
      },
      'in',
    );
    expect(own.rows.filter(({ fault }) => fault)).toEqual([]);
    expect(own.rows).toHaveLength(rows.readings.length - rows.readingStrikes.length);
  });
});
