import { describe, expect, it } from 'vitest';
import type { Target } from '@/core/walk/targets';
import { demoRows } from '../../../tests/support/demo-rows';
import { formatterFor } from '@/formats/formatter';
import { readPreferences } from '@/formats/preferences';
import { codesOf, lineReader, subjectsOf, unlikelyQuestion } from './reading-lines';
import { conditionEntry, readingsEntry, strikeEntry, substituteEntry } from './tape-entries';

const rows = demoRows('solbris');
const subjects = subjectsOf(rows);
const idOf = (code: string) => rows.points.find((point) => point.code === code)!.id;
const writer = { roundId: rows.rounds[0]!.id, author: 'Ronja' };
const diagonal = {
  key: 'distance F1L S2R',
  kind: 'distance',
  codes: ['F1L', 'S2R'],
  measure: 'level',
} as unknown as Target;

describe('a line of the tape', () => {
  const read = lineReader(subjects, 'mm', diagonal);

  it('that is a bare number answers what is wanted, the way it is wanted', () => {
    const parsed = read('1843.5');
    if (!parsed.ok) throw new Error(parsed.reason);
    expect(parsed.readings).toMatchObject([
      { quantity: 'distance', value: 1843.5, measure: 'level', pointId: idOf('F1L'), toPointId: idOf('S2R') },
    ]);
  });

  it('may say against that how it was taken', () => {
    const parsed = read('1843.5 tip');
    expect(parsed.ok && parsed.readings[0]!.measure).toBe('tip');
  });

  it('that names its points is not what was wanted', () => {
    const parsed = read('F2L h 215');
    expect(parsed.ok && parsed.readings).toMatchObject([{ quantity: 'height', pointId: idOf('F2L') }]);
  });

  it('that is nonsense says so, wanted or not', () => {
    expect(read('22 1/0')).toMatchObject({ ok: false });
    expect(lineReader(subjects, 'mm', undefined)('1843.5')).toMatchObject({ ok: false });
  });

  it('names seam stations and points by what they are called', () => {
    expect(subjects.stations.map(({ code }) => code)).toContain('DFL.1');
    expect(subjects.names.get('R4L')).toMatch(/chassis leg/i);
  });
});

describe('a line that can hardly be right', () => {
  const format = formatterFor(readPreferences(undefined), 'UTC');
  const expected = { value: 1762.9, sd: 1.5, from: 'net' } as const;

  it('is asked about with the expectation beside it, and the slip that explains it', () => {
    expect(unlikelyQuestion({ expected, over: 100, slip: 'startMark' }, format)).toBe(
      'expected 1762.9 ±3.0 mm: 100.0 over: the 100 mm mark? Enter again takes it all the same.',
    );
    expect(unlikelyQuestion({ expected, over: -300 }, format)).toBe(
      'expected 1762.9 ±3.0 mm: 300.0 under. Enter again takes it all the same.',
    );
  });
});

describe('what goes onto the tape', () => {
  const parsed = lineReader(subjects, 'mm', undefined)('F1L 1.2 -400.8 540');
  if (!parsed.ok) throw new Error(parsed.reason);
  const context = { pullId: null, phase: 'none' } as const;
  const entry = readingsEntry(writer, 'F1L 1.2 -400.8 540', parsed.readings, context, (quantity) => ({ id: quantity }));

  it('is one line of several readings, each with the instrument that takes its kind', () => {
    expect(entry.readings.map(({ quantity, value }) => [quantity, value])).toEqual([
      ['length', 1.2],
      ['width', -400.8],
      ['height', 540],
    ]);
    expect(new Set(entry.readings.map(({ lineId }) => lineId)).size).toBe(1);
    expect(new Set(entry.readings.map(({ id }) => id)).size).toBe(3);
    expect(entry.readings.map(({ instrumentVersionId }) => instrumentVersionId)).toEqual(['length', 'width', 'height']);
    expect(entry.strike).toBeNull();
    expect(codesOf(rows, entry.readings as never)).toEqual(['F1L', 'F1L', 'F1L']);
  });

  it('strikes with its reason and who', () => {
    const struck = { lineId: 'line', reason: 'misread' };
    expect(strikeEntry(writer, struck).strike).toEqual({ ...struck, author: 'Ronja' });
  });

  it('makes a substitute beside its point and marks that one buried, once', () => {
    const original = rows.points.find(({ code }) => code === 'R4L')!;
    const substitute = { code: 'R4L-s', name: 'Punch mark beside the hole' };
    const made = substituteEntry(writer, original, substitute, false);
    expect(made.points).toMatchObject([
      { code: 'R4L-s', side: 'left', substituteForId: original.id, mirrored: false, jobId: original.jobId },
    ]);
    expect(made.conditions).toMatchObject([{ pointId: original.id, kind: 'buried', author: 'Ronja' }]);
    expect(substituteEntry(writer, original, substitute, true).conditions).toEqual([]);
  });

  it('marks what stands in the way of a point in this round', () => {
    expect(conditionEntry(writer, 'point', 'suspension').conditions).toMatchObject([
      { roundId: writer.roundId, pointId: 'point', kind: 'suspension' },
    ]);
  });
});
