import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { demoRows } from '../../tests/support/demo-rows';
import { writeCsv } from './csv';
import { readingsCsv } from './readings-csv';

const rows = demoRows('solbris');

const parsed = (text: string) => Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true }).data;

describe('the readings of a job as CSV', () => {
  const lines = parsed(readingsCsv(rows));

  it('are all there, struck ones too, with the number to the last digit and as it was typed', () => {
    expect(lines).toHaveLength(rows.readings.length);
    lines.forEach((line, i) => {
      expect(Number(line.value_mm)).toBe(rows.readings[i]!.value);
      expect(line.typed!.replace(/^'/, '')).toBe(rows.readings[i]!.raw);
    });
  });

  it('say with which instrument, by whom, and what a struck one was struck for', () => {
    const [strike] = rows.readingStrikes;
    const struck = lines[rows.readings.findIndex(({ id }) => id === strike!.readingId)]!;
    expect(struck).toMatchObject({ struck_by: strike!.author, struck_because: strike!.reason });
    expect(lines.every((line) => line.instrument !== '' && Number(line.instrument_version) >= 1)).toBe(true);
  });

  it('name points, pairs and stations by their codes', () => {
    const codes = new Set(rows.points.map(({ code }) => code));
    for (const { quantity, subject, to } of lines) {
      if (quantity === 'gap' || quantity === 'flush') expect(subject).toMatch(/^\w+\.\d+$/);
      else expect(codes.has(subject!)).toBe(true);
      expect(to !== '').toBe(quantity === 'distance');
    }
  });
});

describe('a cell a spreadsheet would run', () => {
  it('is made text, and a negative number stays a number', () => {
    const [row] = parsed(
      writeCsv([{ a: '=HYPERLINK("http://x")', b: '+1', c: '@cmd', d: '-2+3', e: -2.5, f: 'a=b', g: null }]),
    );
    expect(row).toEqual({ a: `'=HYPERLINK("http://x")`, b: "'+1", c: "'@cmd", d: "'-2+3", e: '-2.5', f: 'a=b', g: '' });
  });

  it('keeps its commas, quotes and line ends', () => {
    const text = 'left, "rear"\nleg';
    expect(parsed(writeCsv([{ a: text }]))[0]!.a).toBe(text);
  });
});
