import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { duplicateFaults, faultText, parseJson, parseShape, pathText } from './faults';
import { downloadHeaders, fileName } from './file-name';
import { formatterFor } from './formatter';
import { readPreferences, typedUnit } from './preferences';

describe('a text that should be JSON', () => {
  it('says where it stops being so', () => {
    const read = parseJson('{\n  "points": [,]\n}');
    expect(read).toMatchObject({ ok: false });
    expect(!read.ok && faultText(read.faults[0]!)).toMatch(/^file: not JSON: .* at line 2, column \d+$/);
  });

  it('may begin with a byte order mark', () => {
    expect(parseJson('\uFEFF{"a": 1}')).toEqual({ ok: true, value: { a: 1 } });
  });

  it('allows neither comments nor trailing commas', () => {
    expect(parseJson('{"a": 1} // mine').ok).toBe(false);
    expect(parseJson('{"a": 1,}').ok).toBe(false);
    expect(parseJson('').ok).toBe(false);
  });
});

describe('a document of the wrong shape', () => {
  const pair = z.strictObject({ kind: z.literal('distance'), from: z.string(), to: z.string() });
  const height = z.strictObject({ kind: z.literal('height'), point: z.string(), value: z.number() });
  const document = z.strictObject({
    name: z.string().min(1, 'Give it a name'),
    readings: z.array(z.union([pair, height])),
  });

  it('names every fault by its place, in words', () => {
    const read = parseShape(document, {
      name: '',
      readings: [{ kind: 'height', point: 'F1L', value: 'low' }],
      more: 1,
    });
    expect(!read.ok && read.faults).toEqual([
      { path: 'name', message: 'give it a name' },
      { path: 'readings[0].value', message: 'expected a number' },
      { path: 'more', message: 'unknown field' },
    ]);
  });

  it('says of what is not there that it is missing', () => {
    const read = parseShape(document, {});
    expect(!read.ok && read.faults.map(faultText)).toEqual([
      'name: missing: expected text',
      'readings: missing: expected a list',
    ]);
  });

  it('that is no object at all is faulted as a whole', () => {
    const read = parseShape(document, 7);
    expect(!read.ok && read.faults[0]!.path).toBe('file');
  });

  it('writes paths as people do', () => {
    expect(pathText(['points', 3, 'x'])).toBe('points[3].x');
    expect(pathText([])).toBe('file');
  });

  it('counts an id that stands twice at its second place', () => {
    expect(duplicateFaults('points', ['F1L', 'F1R', 'F1L', undefined, undefined])).toEqual([
      { path: 'points[2].id', message: '"F1L" stands here twice' },
    ]);
  });
});

describe('what a user chose', () => {
  it('is read from the cookie, field by field', () => {
    const cookie = JSON.stringify({ words: 'us', units: 'furlongs', person: 'Ronja' });
    expect(readPreferences(cookie)).toEqual({ words: 'us', units: 'mm', sheet: 'day', person: 'Ronja', people: 'two' });
  });

  it('is the usual where the cookie is not ours', () => {
    expect(readPreferences('%%%')).toEqual(readPreferences(undefined));
    expect(readPreferences('[1]').words).toBe('uk');
  });

  it('decides what a bare number means and how figures are written', () => {
    const usual = readPreferences(undefined);
    const inches = { ...usual, units: 'in16', words: 'us' } as const;
    expect([typedUnit(usual), typedUnit(inches)]).toEqual(['mm', 'in']);
    expect(formatterFor(usual, 'UTC').difference(3)).toBe('+3.0');
    expect(formatterFor(usual, 'UTC').difference(-3.04)).toBe('−3.0');
    expect(formatterFor(usual, 'UTC').plusMinus(1.26)).toBe('±1.3');
    expect(formatterFor(inches, 'UTC').length(25.4 * 2.5)).toBe('2 1/2');
    // Half a millimetre is no sixteenth, and is not nothing.
    expect(formatterFor(inches, 'UTC').plusMinus(0.5)).toBe('±0.020');
    expect(formatterFor(inches, 'UTC').difference(-25.4 / 8)).toBe('−1/8');
    expect(formatterFor(inches, 'UTC').name('Left chassis leg at the bulkhead')).toBe(
      'Left frame rail at the firewall',
    );
    expect(formatterFor(inches, 'UTC').term('bonnet')).toBe('hood');
  });

  it('writes days and times by the shop’s clock', () => {
    const { day, time } = formatterFor(readPreferences(undefined), 'UTC');
    expect(day('2026-11-25T23:30:00.000Z')).toBe('25 Nov 2026');
    expect(time('2026-11-25T23:30:00.000Z')).toBe('23:30');
  });
});

describe('a file to take along', () => {
  it('is named after the job, without what a file system minds', () => {
    expect(fileName('Solbris 1200 / estate: "red"')).toBe('Solbris-1200-estate-red');
    expect(fileName('Kåre’s Lodd')).toBe('Kåres-Lodd');
    expect(fileName('../..')).toBe('job');
  });

  it('is sent as a download and not looked into', () => {
    const headers = downloadHeaders('text/csv', 'Målinger.csv');
    expect(headers['content-disposition']).toBe("attachment; filename*=UTF-8''M%C3%A5linger.csv");
    expect(headers['x-content-type-options']).toBe('nosniff');
  });
});
