import { describe, expect, it } from 'vitest';
import { completions } from './complete';
import { parseLine, type Subjects } from './line';

const subjects: Subjects = {
  points: [
    { id: 'f1l', code: 'F1L', side: 'left' },
    { id: 'f1r', code: 'F1R', side: 'right' },
    { id: 's2l', code: 'S2L', side: 'left' },
    { id: 'dash', code: 'T-5', side: 'centre' },
  ],
  stations: [{ id: 'dl3', code: 'DL.3' }],
  pairs: [{ fromPointId: 'f1l', toPointId: 'f1r', measure: 'level' }],
};

const values = (text: string, unit: 'mm' | 'in' = 'mm') => {
  const line = parseLine(text, subjects, unit);
  if (!line.ok) throw new Error(line.reason);
  return Object.fromEntries(line.readings.map((reading) => [reading.quantity, reading.value]));
};
const refusal = (text: string) => {
  const line = parseLine(text, subjects, 'mm');
  return line.ok ? 'taken' : line.reason;
};

describe('a line of shorthand', () => {
  it.each(['F1L S2L 1011.5', 'f1l-s2l 1011.5', 'F1L to S2L 1011,5', 'F1L > S2L 1.0115 m'])(
    'reads the distance of %s',
    (text) => expect(values(text).distance).toBeCloseTo(1011.5, 9),
  );

  it('takes the pair as the chart measures it, unless told otherwise', () => {
    expect(parseLine('F1R F1L 820', subjects, 'mm')).toMatchObject({
      readings: [{ measure: 'level' }],
    });
    expect(parseLine('F1R F1L 820 tip', subjects, 'mm')).toMatchObject({
      readings: [{ measure: 'tip' }],
    });
    expect(parseLine('F1L S2L 820', subjects, 'mm')).toMatchObject({
      readings: [{ measure: 'tip' }],
    });
  });

  it('reads length, width and height bare in that order, or each behind its letter', () => {
    expect(values('F1R 120 410 215')).toEqual({ length: 120, width: 410, height: 215 });
    expect(values('F1R h 215')).toEqual({ height: 215 });
    expect(values('F1R h215 l120')).toEqual({ length: 120, height: 215 });
    expect(values('T-5 1200, 4, 300')).toEqual({ length: 1200, width: 4, height: 300 });
  });

  it('gives the width of a left point its sign', () => {
    expect(values('F1L w 410')).toEqual({ width: -410 });
    expect(values('F1L w -410')).toEqual({ width: -410 });
  });

  it('warns when a width is signed for the other side, and takes it as typed', () => {
    const line = parseLine('F1L w +410', subjects, 'mm');
    expect(line).toMatchObject({ ok: true, readings: [{ value: 410 }] });
    expect(line.ok && line.warnings.join()).toContain("other side's sign");
  });

  it('keeps fractions of an inch together', () => {
    expect(values('F1R 22 1/4 16 3/8 8', 'in')).toEqual({
      length: 22.25 * 25.4,
      width: 16.375 * 25.4,
      height: 8 * 25.4,
    });
    expect(values(`F1L S2L 5' 4 1/2"`).distance).toBeCloseTo(1638.3, 9);
    expect(values('F1R h 5/16').height).toBeCloseTo(7.9375, 9);
  });

  it('reads gap and flush at a station of a seam', () => {
    expect(values('DL.3 5.2 0.5')).toEqual({ gap: 5.2, flush: 0.5 });
    expect(values('dl.3 f -0.5')).toEqual({ flush: -0.5 });
    // An overlap.
    expect(values('DL.3 -2')).toEqual({ gap: -2 });
  });

  it.each([
    ['X9 12', 'no point or station "X9"'],
    ['F1L X9 12', 'no point "X9"'],
    ['F1L', 'the reading is missing'],
    ['F1L S2L', 'the length is missing'],
    ['F1L F1L 12', 'to itself'],
    ['F1L 12', 'say which'],
    ['F1L 12 13', 'say which'],
    ['F1L h 12 h 13', 'given twice'],
    ['F1L 1 2 3 4', 'one number too many'],
    ['F1L g 12', 'not read here'],
    ['F1L S2L -12', 'above zero'],
    ['F1L S2L 22 1/0', 'divides by zero'],
    ['F1L h twelve', 'no point "h"'],
    ['', 'nothing was typed'],
  ])('refuses %j with a reason', (text, reason) => {
    if (text === 'F1L h twelve') expect(refusal(text)).toMatch(/is not a/);
    else expect(refusal(text)).toContain(reason);
  });
});

describe('a line with more to it', () => {
  const first = (text: string) => {
    const line = parseLine(text, subjects, 'mm');
    if (!line.ok) throw new Error(line.reason);
    return line.readings[0]!;
  };

  it('holds the pointers of a tram gauge', () => {
    expect(first('F1L S2L 1005 p 120 300')).toMatchObject({ value: 1005, pointerFrom: 120, pointerTo: 300 });
    expect(first('F1L S2L 1005 p 120/300 tip')).toMatchObject({ measure: 'tip', pointerTo: 300 });
    expect(refusal('F1L S2L 1005 p 120')).toContain('two pointer lengths');
  });

  it('takes the edges of unequal holes as one reading of their centres', () => {
    expect(first('F1L S2L 996 & 1027').value).toBeCloseTo(1011.5, 9);
    expect(refusal('F1L S2L 996 & 1000 & 1027')).toContain('one &');
  });

  it('says how a fixture head enters', () => {
    expect(first('F1L head tight 0.4')).toMatchObject({ quantity: 'fixture', fit: 'tight', value: 0.4 });
    expect(first('F1L head no')).toMatchObject({ fit: 'none', value: 0.5 });
    expect(refusal('F1L head maybe')).toContain('how the head enters');
  });
});

describe('a half-typed line', () => {
  const codes = (text: string) => completions(text, subjects).map(({ text: whole }) => whole);
  it('is completed by the points that begin like it, the second only behind a point', () => {
    expect(codes('f')).toEqual(['F1L ', 'F1R ']);
    expect(codes('F1L s')).toEqual(['F1L S2L ']);
    expect(codes('XX s')).toEqual([]);
    expect(codes('F1L S2L 10')).toEqual([]);
    expect(codes('d')).toEqual(['DL.3 ']);
  });
});

describe('a hole of a part bolted up as a gauge', () => {
  const subjects = {
    points: [{ id: 's2l', code: 'S2L', side: 'left' as const }],
    stations: [],
    pairs: [],
    partHoles: [{ id: 'hole', code: 'axle.1', clearance: 0.4 }],
  };
  const read = (text: string) => parseLine(text, subjects, 'mm');

  it('is over its point, beside it one way, or its bolt will not go in', () => {
    const common = { quantity: 'fixture', pointId: 's2l', partHoleId: 'hole' };
    expect(read('s2l AXLE.1 centred')).toMatchObject({
      readings: [{ ...common, fit: 'centred', toward: null, value: 0.4 }],
    });
    expect(read('S2L axle.1 4.5 rear')).toMatchObject({
      readings: [{ ...common, fit: 'beside', toward: 'rear', value: 4.5 }],
    });
    expect(read('S2L axle.1 no')).toMatchObject({ readings: [{ ...common, fit: 'none', toward: null }] });
  });

  it('is refused in words where it says nothing', () => {
    for (const text of ['S2L axle.1', 'S2L axle.1 4', 'S2L axle.1 rear', 'S2L axle.1 4 sideways'])
      expect(read(text)).toMatchObject({ ok: false, reason: expect.stringContaining('say how axle.1 fits') });
    expect(read('S2L axle.1 -4 rear')).toMatchObject({ ok: false, reason: expect.stringContaining('above zero') });
  });
});
