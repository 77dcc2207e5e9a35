import { position } from '../../maths/geometry/vector';
import { describe, expect, it } from 'vitest';
import { seeded } from '../../maths/random/seeded';
import { simulateReading, type TrueShell } from '../../practice/instrument';
import { parseLength } from '../../maths/units/length';
import { readDeviceLine, splitLines, USUAL_PATTERN } from './device-line';

describe('a line from an instrument', () => {
  it.each([
    ['+01011.5 mm', '1011.5 mm'],
    ['D: 0.92 cm\r', '0.92 cm'],
    ['-00012,30', '-12,30'],
    ['01A+0040.125 in', '01'],
  ])('%s gives %s by the usual pattern', (line, amount) => {
    expect(readDeviceLine(line, USUAL_PATTERN)).toEqual({ ok: true, amount: amount === '01' ? '1' : amount });
  });

  it('follows a pattern the user set', () => {
    expect(readDeviceLine('01A+0040.125 in', String.raw`A([+-]\d+\.\d+)\s*(in)`)).toEqual({
      ok: true,
      amount: '40.125 in',
    });
  });

  it('says what is wrong with a pattern or a line', () => {
    expect(readDeviceLine('1011.5', '(')).toMatchObject({
      ok: false,
      reason: expect.stringContaining('not a regular'),
    });
    expect(readDeviceLine('1011.5', String.raw`\d+`)).toMatchObject({
      ok: false,
      reason: expect.stringContaining('group'),
    });
    expect(readDeviceLine('ERR', USUAL_PATTERN)).toMatchObject({ ok: false, reason: expect.stringContaining('ERR') });
  });

  it('waits for the end of the line', () => {
    expect(splitLines('+0010.0 mm\r\n+00')).toEqual({ lines: ['+0010.0 mm'], rest: '+00' });
    expect(splitLines('12')).toEqual({ lines: [], rest: '12' });
  });
});

describe('the simulated instrument', () => {
  const truth: TrueShell = new Map([
    ['S1L', position([760, -690, 150])],
    ['S1R', position([760, 690, 150])],
    ['F1L', position([0, -400, 230])],
  ]);
  const target = { quantity: 'distance', codes: ['F1L', 'S1L'] } as const;
  const read = (line: string): number => {
    const taken = readDeviceLine(line, USUAL_PATTERN);
    const parsed = taken.ok ? parseLength(taken.amount, 'mm') : taken;
    if (!parsed.ok) throw new Error(parsed.reason);
    return parsed.mm;
  };

  it('measures the true shell within its noise, through the same line as a real one', () => {
    const random = seeded(5);
    const values = Array.from({ length: 400 }, () => read(simulateReading(truth, target, 0.8, 0, random)!.line));
    const mean = values.reduce((sum, value) => sum + value / 400, 0);
    expect(mean).toBeCloseTo(Math.hypot(760, 290, 80), 0);
    const sd = Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2 / 400, 0));
    expect(sd).toBeGreaterThan(0.7);
    expect(sd).toBeLessThan(0.9);
  });

  it('makes as many mistakes as it is told to', () => {
    const random = seeded(6);
    const wrong = Array.from({ length: 500 }, () => simulateReading(truth, target, 0.8, 0.2, random)!.mistake).filter(
      Boolean,
    );
    expect(wrong.length).toBeGreaterThan(70);
    expect(wrong.length).toBeLessThan(130);
  });

  it('knows nothing of a point the true shell does not have', () => {
    expect(simulateReading(truth, { quantity: 'height', codes: ['X9'] }, 1, 0, seeded(1))).toBeUndefined();
  });
});
