/** Units a length can be typed or shown in. Inside the program every length is in millimetres. */
export type LengthUnit = 'mm' | 'cm' | 'm' | 'in' | 'ft';

/** Millimetres in one of each unit (the inch is exact: ISO 31-1, 25.4 mm). */
export const MM_PER: Readonly<Record<LengthUnit, number>> = {
  mm: 1,
  cm: 10,
  m: 1000,
  in: 25.4,
  ft: 304.8,
};

export type ParsedLength =
  | {
      readonly ok: true;
      readonly mm: number;
      readonly signed: boolean;
      readonly warnings: readonly string[];
    }
  | { readonly ok: false; readonly reason: string };

const VULGAR: Readonly<Record<string, string>> = {
  '¼': '1/4',
  '½': '1/2',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
  '⅓': '1/3',
  '⅔': '2/3',
  '⅕': '1/5',
  '⅖': '2/5',
  '⅗': '3/5',
  '⅘': '4/5',
  '⅙': '1/6',
  '⅚': '5/6',
};

/** Brings quotes, minus signs, spaces and one-character fractions to the plain keyboard's. */
export function plainLengthText(text: string): string {
  return (
    text
      .replace(/[¼½¾⅛⅜⅝⅞⅓⅔⅕⅖⅗⅘⅙⅚]/g, (sign) => ` ${VULGAR[sign]}`)
      .replace(/[−–]/g, '-')
      .replace(/⁄/g, '/')
      .replace(/[’‘′]/g, "'")
      .replace(/[”“″]|''/g, '"')
      .replace(/[\u00a0\u2009\u202f]/g, ' ')
      // 104-15/16 is a whole number and a fraction, not a difference.
      .replace(/(\d)-(?=\d+\s*\/\s*\d)/g, '$1 ')
  );
}

const NUMBER = String.raw`\d+(?:[.,]\d+)?|[.,]\d+`;
const FRACTION = String.raw`\d+\s*/\s*\d+`;
const UNIT = String.raw`mm|cm|m|inches|inch|in\.?|"`;
/** `[+-] [feet'] [number] [n/d] [unit]`; at least one of the three amounts must be there. */
export const LENGTH_PATTERN = String.raw`[+-]?\s*(?:(?:${NUMBER})\s*(?:'|ft\b|feet\b|foot\b)\s*)?(?:(?:${FRACTION}|(?:${NUMBER})(?:\s+${FRACTION}|(?!\s*/))))?(?:\s*(?:${UNIT})(?![a-z]))?`;

const WHOLE = new RegExp(
  String.raw`^([+-])?\s*(?:(${NUMBER})\s*(?:'|ft|feet|foot)\s*)?(?:(${NUMBER})(?!\d|\s*/\s*\d))?\s*(?:(\d+)\s*/\s*(\d+))?\s*(${UNIT})?$`,
  'i',
);

const UNIT_OF: Readonly<Record<string, LengthUnit>> = {
  mm: 'mm',
  cm: 'cm',
  m: 'm',
  in: 'in',
  'in.': 'in',
  inch: 'in',
  inches: 'in',
  '"': 'in',
};

/** What rules are divided into, and the fractions that have a sign of their own. */
const ON_RULES: ReadonlySet<number> = new Set([2, 3, 4, 5, 6, 8, 10, 16, 32, 64]);

const decimal = (text: string): number => Number(text.replace(',', '.'));

/**
 * Reads one length as people type it (`64"`, `22 1/4`, `22¼ in`, `5' 4 1/2"`, `92,2cm`, `1284`).
 *
 * @param text  what was typed; a decimal comma is a decimal point
 * @param bare  the unit of a number without one; a fraction without one is always inches
 * @returns millimetres, whether a sign was typed, and warnings about what looks unlike a length;
 *   or the reason why it is not one
 */
export function parseLength(text: string, bare: LengthUnit = 'mm'): ParsedLength {
  const plain = plainLengthText(text).trim();
  if (plain === '') return { ok: false, reason: 'nothing was typed' };
  const match = WHOLE.exec(plain);
  if (!match) return { ok: false, reason: `"${text.trim()}" is not a length` };
  const [, sign, feet, number, top, bottom, unitText] = match;
  if (feet === undefined && number === undefined && top === undefined)
    return { ok: false, reason: `"${text.trim()}" has no number in it` };

  const typedUnit = unitText === undefined ? undefined : UNIT_OF[unitText.toLowerCase()];
  const inches = feet !== undefined || top !== undefined || typedUnit === 'in';
  const unit: LengthUnit = inches ? 'in' : (typedUnit ?? bare);
  if (inches && typedUnit !== undefined && typedUnit !== 'in')
    return { ok: false, reason: `feet and fractions go with inches, not with ${typedUnit}` };
  if (top !== undefined && number !== undefined && /[.,]/.test(number))
    return { ok: false, reason: `"${text.trim()}" mixes a decimal with a fraction` };
  if (bottom !== undefined && Number(bottom) === 0)
    return { ok: false, reason: `the fraction ${top}/${bottom} divides by zero` };
  if (bottom !== undefined && !ON_RULES.has(Number(bottom))) return { ok: false, reason: offRule() };

  const fraction = top === undefined ? 0 : Number(top) / Number(bottom);
  const rest = (number === undefined ? 0 : decimal(number)) + fraction;
  const amount = rest * MM_PER[unit] + (feet === undefined ? 0 : decimal(feet) * MM_PER.ft);
  const mm = sign === '-' ? -amount : amount;
  if (!Number.isFinite(mm)) return { ok: false, reason: `"${text.trim()}" is too large` };
  return { ok: true, mm, signed: sign !== undefined, warnings: warningsFor() };

  /** A fraction no rule has, with the sixteenth that is nearest. */
  function offRule(): string {
    const sixteenths = Math.round((16 * Number(top)) / Number(bottom));
    const near = inchText((decimal(number ?? '0') + sixteenths / 16) * MM_PER.in, 16);
    return `no rule is divided into ${bottom}ths: ${near} is the nearest sixteenth`;
  }

  function warningsFor(): string[] {
    const warnings: string[] = [];
    if (feet !== undefined && rest >= 12) warnings.push('12 inches or more beside feet');
    if (fraction >= 1) warnings.push(`the fraction ${top}/${bottom} is one or more`);
    if (top !== undefined && feet === undefined && typedUnit === undefined && bare !== 'in')
      warnings.push('a fraction is read as inches');
    if (number !== undefined && /,\d{3}$/.test(number)) warnings.push('the comma is read as a decimal comma');
    return warnings;
  }
}

/** How lengths are shown: millimetres to one decimal, or inches to a fraction. */
export type LengthStyle = { readonly unit: 'mm' } | { readonly unit: 'in'; readonly denominator: 16 | 32 };

export const MILLIMETRES: LengthStyle = { unit: 'mm' };

const reduce = (top: number, bottom: number): [number, number] =>
  top % 2 === 0 && bottom > 1 ? reduce(top / 2, bottom / 2) : [top, bottom];

function inchText(mm: number, denominator: number): string {
  const parts = Math.round((mm / MM_PER.in) * denominator);
  const whole = Math.floor(parts / denominator);
  const left = parts % denominator;
  if (left === 0) return String(whole);
  const [top, bottom] = reduce(left, denominator);
  return whole === 0 ? `${top}/${bottom}` : `${whole} ${top}/${bottom}`;
}

/**
 * Prints a length without its unit: `1284.0`, `−0.8`, `22 1/4`.
 *
 * @param mm      millimetres
 * @param style   millimetres or inches to 1/16 or 1/32
 * @param signed  whether a plus sign is shown: always for a difference
 */
export function formatLength(mm: number, style: LengthStyle = MILLIMETRES, signed = false): string {
  const size = Math.abs(mm);
  const text = style.unit === 'mm' ? size.toFixed(1) : inchText(size, style.denominator);
  const zero = /^0(\.0)?$/.test(text);
  if (zero) return text;
  return mm < 0 ? `−${text}` : signed ? `+${text}` : text;
}

/** The unit to print once above a column. */
export const unitName = (style: LengthStyle): LengthStyle['unit'] => style.unit;
