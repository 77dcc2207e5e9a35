import { describe, expect, it } from 'vitest';
import type { Subjects } from '@/core/shell/shorthand/line';
import { demoRows } from '../../tests/support/demo-rows';
import { readingsCsv } from './readings-csv';
import { readReadingsCsv } from './readings-import';

const subjects: Subjects = {
  points: [
    { id: '1', code: 'F1L', side: 'left' },
    { id: '2', code: 'S2L', side: 'left' },
  ],
  stations: [],
  pairs: [],
};
const read = (text: string) => readReadingsCsv(text, subjects, 'mm');

describe('readings from a CSV', () => {
  it('are matched by their headers, whatever the separator and the decimal sign', () => {
    expect(read('From;To;Distance\nF1L;S2L;1011,5\n').rows).toEqual([{ number: 2, line: 'F1L S2L 1011,5 mm' }]);
    expect(read('point,kind,value\nF1L,height,215\n').rows[0]).toEqual({ number: 2, line: 'F1L h 215 mm' });
    expect(read('from\tto\tvalue\nF1L\tS2L\t39 13/16"\n').rows[0]!.fault).toBeUndefined();
  });

  it('name every faulty row by its line and keep the sound ones apart', () => {
    const { rows } = read('from,to,value\nF1L,S9L,12\nF1L,S2L,twelve\nF1L,S2L,900\n');
    expect(rows.map(({ number, fault }) => [number, fault !== undefined])).toEqual([
      [2, true],
      [3, true],
      [4, false],
    ]);
    expect(rows[0]!.fault).toContain('no point "S9L"');
  });

  it('are a thousand at most: of a file with a million rows nothing is made, whatever its size', () => {
    const rows = (count: number) => `from,to,value\n${'F1L,S2L,900\n'.repeat(count)}`;
    expect(read(rows(1000))).toMatchObject({ tooMany: false, rows: { length: 1000 } });
    expect(read(rows(1001))).toMatchObject({ tooMany: true, rows: [] });
    const million = rows(1_000_000);
    const before = process.memoryUsage().rss;
    expect(read(million).tooMany).toBe(true);
    expect(process.memoryUsage().rss - before).toBeLessThan(400e6);
  });

  it('can be matched by hand where the headers say nothing', () => {
    const text = 'a1,a2,a3\nF1L,S2L,900\n';
    expect(read(text).rows[0]!.fault).toBeDefined();
    const mapping = { subject: 0, to: 1, value: 2, quantity: -1, measure: -1 };
    expect(readReadingsCsv(text, subjects, 'mm', mapping).rows[0]!.fault).toBeUndefined();
  });

  it('take back our own export, struck lines left out', () => {
    const rows = demoRows('solbris');
    const own = readReadingsCsv(
      readingsCsv(rows),
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
