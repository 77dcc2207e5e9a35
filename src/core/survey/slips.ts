/** The ways people misread, each with how likely it is against a blunder of no known kind. */
export const PRIOR = {
  startMark: 0.35,
  otherStartMark: 0.13,
  startMarkTwice: 0.09,
  inchStartMark: 0.13,
  edgeForCentre: 0.25,
  misheard: 0.2,
  tenMiscounted: 0.14,
  digitsExchanged: 0.2,
  unit: 0.5,
  sidesExchanged: 0.35,
  neighbouringHole: 0.15,
  pointers: 0.5,
  sign: 0.6,
  eighthForSixteenth: 0.3,
} as const;

export type CauseKind = keyof typeof PRIOR;

/** A number as it was typed, in the unit it was typed in. */
export interface TypedAmount {
  readonly amount: number;
  readonly unit: 'mm' | 'cm' | 'm' | 'in';
}

/** Makes what is wanted of a slip: its kind, what it says, the value that was meant, over how many like it it is spread. */
export type MakeSlip<T> = (kind: CauseKind, text: string, value: number, among?: number) => T;

interface Number {
  /** A length between two points: a tape has a start mark. */
  readonly taped: boolean;
  /** Its sign means something. */
  readonly signed: boolean;
  readonly typed?: TypedAmount;
}

/** Every slip that lies in the number alone, whatever it was read at; `raw` in mm. */
export const numberSlips = <T>(raw: number, { taped, signed, typed }: Number, make: MakeSlip<T>): T[] => [
  ...(taped ? startMarks(raw, make) : []),
  make('tenMiscounted', 'ten millimetres were miscounted', raw + 10, 2),
  make('tenMiscounted', 'ten millimetres were miscounted', raw - 10, 2),
  ...typedOtherwise(raw, typed, make),
  ...units(raw, typed, make),
  ...(signed ? [make('sign', 'the sign of the width was left out or put in', -raw)] : []),
];

/** A slip of the number that would make a value what is expected of it. */
export interface Slip {
  readonly kind: CauseKind;
  /** What was meant, mm. */
  readonly value: number;
}

/** A slip that brings a value within two standard deviations of what is expected; the likeliest of several. */
export function slipBehind(raw: number, number: Number, expected: { value: number; sd: number }): Slip | undefined {
  const fitting = numberSlips(raw, number, (kind, _, value, among = 1) => ({ kind, value, among }))
    .map((slip) => ({ ...slip, off: (slip.value - expected.value) / expected.sd }))
    .filter(({ off }) => Math.abs(off) <= 2)
    .map((slip) => ({ ...slip, likelihood: (PRIOR[slip.kind] / slip.among) * Math.exp(-(slip.off ** 2) / 2) }));
  const [best] = fitting.sort((a, b) => b.likelihood - a.likelihood);
  return best && { kind: best.kind, value: best.value };
}

const startMarks = <T>(raw: number, make: MakeSlip<T>): T[] => [
  make('startMark', 'the tape was started at the 100 mm mark and that was not taken off', raw - 100),
  make('otherStartMark', 'the tape was started at the 50 mm mark and that was not taken off', raw - 50),
  make('inchStartMark', 'the tape was started at the one-inch mark and that was not taken off', raw - 25.4),
  make('startMarkTwice', 'the 100 mm mark was taken off twice', raw + 100),
  make('startMarkTwice', 'the 50 mm mark was taken off twice', raw + 50),
  make('startMarkTwice', 'the start mark of one inch was taken off twice', raw + 25.4),
];

const MM_PER = { mm: 1, cm: 10, m: 1000, in: 25.4 } as const;

/** Misheard numbers, exchanged digits and 1/8 for 1/16, in the unit the number was typed in. */
function typedOtherwise<T>(raw: number, typed: TypedAmount | undefined, make: MakeSlip<T>): T[] {
  const { amount, unit } = typed ?? { amount: raw, unit: 'mm' as const };
  const back = raw - amount * MM_PER[unit];
  const inMm = (other: number) => other * MM_PER[unit] + back;
  const swapped = exchangedDigits(amount);
  const heard = misheard(amount);
  return [
    ...swapped.map((other) =>
      make(
        'digitsExchanged',
        `two digits were exchanged: ${other} instead of ${shown(amount)}`,
        inMm(other),
        swapped.length,
      ),
    ),
    ...heard.map((other) =>
      make('misheard', `misheard: ${other} instead of ${shown(amount)}`, inMm(other), heard.length),
    ),
    ...(unit === 'in'
      ? [1, -1].map((sign) =>
          make('eighthForSixteenth', '1/8 was taken for 1/16 of an inch, or the reverse', raw + (sign * 25.4) / 16, 2),
        )
      : []),
  ];
}

const shown = (amount: number): string => String(Math.round(amount * 100) / 100);

/** The numbers that arise when two neighbouring digits change places. */
function exchangedDigits(amount: number): number[] {
  const text = shown(Math.abs(amount));
  const result = new Set<number>();
  for (let i = 0; i + 1 < text.length; i++) {
    const [a, b] = [text[i]!, text[i + 1]!];
    if (!/\d/.test(a) || !/\d/.test(b) || a === b) continue;
    result.add(Math.sign(amount) * Number(text.slice(0, i) + b + a + text.slice(i + 2)));
  }
  return [...result];
}

/** 13 … 19 heard as 30 … 90 and the reverse, in the last two whole digits or the two before them. */
function misheard(amount: number): number[] {
  const whole = Math.trunc(Math.abs(amount));
  const rest = Math.abs(amount) - whole;
  const result: number[] = [];
  for (const place of [1, 100]) {
    const pair = Math.trunc(whole / place) % 100;
    const teen = pair >= 13 && pair <= 19 ? (pair - 10) * 10 : undefined;
    const ty = pair >= 30 && pair <= 90 && pair % 10 === 0 ? pair / 10 + 10 : undefined;
    const other = teen ?? ty;
    if (other !== undefined) result.push(Math.sign(amount) * (whole + (other - pair) * place + rest));
  }
  return result;
}

/** Typed in one unit, meant in another. */
function units<T>(raw: number, typed: TypedAmount | undefined, make: MakeSlip<T>): T[] {
  const { amount, unit } = typed ?? { amount: raw, unit: 'mm' as const };
  const WORD = { mm: 'millimetres', cm: 'centimetres', m: 'metres', in: 'inches' } as const;
  return (['mm', 'cm', 'in'] as const)
    .filter((other) => other !== unit)
    .map((other) => make('unit', `the number is in ${WORD[other]}, not in ${WORD[unit]}`, amount * MM_PER[other]));
}
