import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoRows } from '../../tests/support/demo-rows';
import type { JobRows } from '@/core/shell/job/job-rows';
import { packRows, unpackRows } from './packed-rows';

const solbris = demoRows('solbris');

/** The demo job with so many readings, each a line of its own with identities of its own. */
function large(count: number): JobRows {
  const hex = (i: number, salt: number) =>
    (((i * 2_654_435_761 + salt * 40_503) % 2 ** 32) >>> 0).toString(16).padStart(8, '0').repeat(4);
  const id = (i: number, salt: number) => {
    const digits = hex(i, salt);
    return `${digits.slice(0, 8)}-${digits.slice(8, 12)}-4${digits.slice(13, 16)}-8${digits.slice(17, 20)}-${digits.slice(20, 32)}`;
  };
  const readings = Array.from({ length: count }, (_, i) => ({
    ...solbris.readings[i % solbris.readings.length]!,
    ...{ id: id(i, 1), lineId: id(i, 2), sequence: i, value: Math.round(10_000 * Math.abs(Math.sin(i))) / 10 },
  }));
  return { ...solbris, readings };
}

describe('rows on their way to the browser', () => {
  it.each(['solbris', 'lodd', 'kvist'] as const)('arrive as they were (%s)', (name) => {
    const rows = demoRows(name);
    expect(unpackRows(JSON.parse(JSON.stringify(packRows(rows))))).toEqual(rows);
  });

  it('arrive as they were, whatever text, time, figure or identity they hold', () => {
    const oddTime = fc.constantFrom('2026-11-24T08:00:00Z', '2026-11-24T08:00:00.123456Z', '1999-12-31T23:59:59.999Z');
    const odd = fc.record({
      id: fc.uuid(),
      raw: fc.string(),
      value: fc.double({ noNaN: true, noDefaultInfinity: true }).map((value) => value + 0),
      takenAt: oddTime,
      author: fc.constantFrom('Ronja', 'null', '', '0'),
      measure: fc.constantFrom(null, 'tip' as const),
    });
    fc.assert(
      fc.property(fc.array(odd, { minLength: 40, maxLength: 60 }), (some) => {
        const readings = some.map((each, i) => ({ ...solbris.readings[i]!, ...each }));
        const rows = { ...solbris, readings } as JobRows;
        expect(unpackRows(JSON.parse(JSON.stringify(packRows(rows))))).toEqual(rows);
      }),
      { numRuns: 50, seed: 3 },
    );
  });

  it('are the ones there were, table by table, where they come again', () => {
    const come = (rows: JobRows) => JSON.parse(JSON.stringify(packRows(rows)));
    const before = { packed: come(solbris), rows: unpackRows(come(solbris)) };
    expect(unpackRows(come(solbris), before)).toBe(before.rows);
    const read = { ...solbris, readings: solbris.readings.slice(1) };
    const later = unpackRows(come(read), before);
    expect(later).toEqual(read);
    expect(Object.entries(later).filter(([table, rows]) => rows !== before.rows[table as 'readings'])).toEqual([
      ['readings', read.readings],
    ]);
  });

  it('are below a megabyte for ten thousand readings', () => {
    const rows = large(10_000);
    expect(JSON.stringify(rows).length).toBeGreaterThan(4e6);
    expect(JSON.stringify(packRows(rows)).length).toBeLessThan(1e6);
    expect(unpackRows(packRows(rows)).readings).toEqual(rows.readings);
  });
});
