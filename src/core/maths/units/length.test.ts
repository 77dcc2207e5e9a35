import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { formatLength, parseLength, type LengthStyle } from './length';

const mm = (text: string, bare: 'mm' | 'in' = 'mm') => {
  const parsed = parseLength(text, bare);
  if (!parsed.ok) throw new Error(parsed.reason);
  return parsed.mm;
};

describe('a length as people type it', () => {
  it.each([
    ['64', 'in', 64 * 25.4],
    ['64', 'mm', 64],
    ['64"', 'mm', 1625.6],
    ['22 1/4', 'in', 565.15],
    ['22¼ in', 'mm', 565.15],
    ['22 ¼"', 'mm', 565.15],
    ['5/16', 'in', 7.9375],
    [`5' 4 1/2"`, 'mm', 1638.3],
    ['5′ 4½″', 'mm', 1638.3],
    [`5'`, 'mm', 1524],
    ['5 ft 4 in', 'mm', 1625.6],
    ['92.2 cm', 'mm', 922],
    ['92,2cm', 'mm', 922],
    ['1.284 m', 'mm', 1284],
    ['1284', 'mm', 1284],
    ['-410', 'mm', -410],
    ['−3/8', 'in', -9.525],
    [',5', 'mm', 0.5],
  ] as const)('%s with %s for bare numbers', (text, bare, expected) => {
    expect(mm(text, bare)).toBeCloseTo(expected, 9);
  });

  it.each([
    ['22 1/0', 'divides by zero'],
    ['', 'nothing was typed'],
    ['fifteen', 'is not a length'],
    ['12 1/4 mm', 'go with inches'],
    ['12.5 1/4', 'mixes a decimal with a fraction'],
    ['1.2.3', 'is not a length'],
    ['"', 'no number'],
    ['-', 'no number'],
    ['12 13', 'is not a length'],
  ])('refuses %j with a reason', (text, reason) => {
    const parsed = parseLength(text);
    expect(parsed).toMatchObject({ ok: false });
    expect(!parsed.ok && parsed.reason).toContain(reason);
  });

  it.each([
    [`5' 14"`, '12 inches or more'],
    ['22 5/4"', 'one or more'],
    ['22 1/4', 'read as inches'],
    ['1,284', 'decimal comma'],
  ])('takes %s with a warning', (text, warning) => {
    const parsed = parseLength(text);
    expect(parsed.ok && parsed.warnings.join()).toContain(warning);
  });
});

describe('a length as it is printed', () => {
  it('shows one decimal of a millimetre and keeps the sign', () => {
    expect(formatLength(1284)).toBe('1284.0');
    expect(formatLength(-0.84, { unit: 'mm' }, true)).toBe('−0.8');
    expect(formatLength(0.84, { unit: 'mm' }, true)).toBe('+0.8');
    expect(formatLength(-0.04, { unit: 'mm' }, true)).toBe('0.0');
  });

  it('shows reduced fractions of an inch', () => {
    const sixteenths: LengthStyle = { unit: 'in', denominator: 16 };
    expect(formatLength(565.15, sixteenths)).toBe('22 1/4');
    expect(formatLength(25.4, sixteenths)).toBe('1');
    expect(formatLength(-9.525, sixteenths, true)).toBe('−3/8');
    expect(formatLength(25.4 - 0.1, sixteenths)).toBe('1');
    expect(formatLength(25.4 / 32, { unit: 'in', denominator: 32 })).toBe('1/32');
  });

  const lengths = fc.double({ min: -9000, max: 9000, noNaN: true });
  it('comes back within half of the last digit shown, in millimetres', () => {
    fc.assert(fc.property(lengths, (length) => Math.abs(mm(formatLength(length)) - length) <= 0.05 + 1e-9));
  });

  it('comes back within half of the finest fraction shown, in inches', () => {
    fc.assert(
      fc.property(lengths, fc.constantFrom(16 as const, 32 as const), (length, denominator) => {
        const text = formatLength(length, { unit: 'in', denominator });
        return Math.abs(mm(text, 'in') - length) <= 25.4 / denominator / 2 + 1e-9;
      }),
    );
  });

  it.each([
    ['11/16', 17.4625],
    ['+11/16', 17.4625],
    ['−13/16"', -20.6375],
    ['10 11/16', 271.4625],
    [`5' 11/16"`, 1541.4625],
  ])('reads the two digits of %s as one numerator', (text, expected) => {
    expect(mm(text, 'in')).toBeCloseTo(expected, 9);
  });

  it('prints the same text again after a way there and back', () => {
    fc.assert(
      fc.property(lengths, (length) => {
        const text = formatLength(length, { unit: 'in', denominator: 16 }, true);
        expect(formatLength(mm(text, 'in'), { unit: 'in', denominator: 16 }, true)).toBe(text);
      }),
      { numRuns: 2000 },
    );
  });
});

describe('fractions as tapes have them', () => {
  it.each([
    ['104-15/16', 104.9375],
    ['104 15/16"', 104.9375],
    ["8' 8-15/16", 104.9375],
    ['104 1/3', 104 + 1 / 3],
    ['3/64', 3 / 64],
  ])('reads %s', (text, inches) => {
    expect(parseLength(text, 'in')).toMatchObject({ ok: true, mm: expect.closeTo(25.4 * inches, 9) });
  });

  it.each([
    ['104 7/17', '104 7/16'],
    ['7/17', '7/16'],
    ['104 16/17', '104 15/16'],
    ['104 32/33', '105'],
  ])('refuses %s with the nearest sixteenth', (text, near) => {
    expect(parseLength(text, 'in')).toMatchObject({ ok: false, reason: expect.stringContaining(`: ${near} is`) });
  });
});
