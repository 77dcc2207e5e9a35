import { distance, levelDistance, type Vector, position, type Position } from '../maths/geometry/vector';
import { mirroredCode } from '../shell/mirrored-code';
import type { Random } from '../maths/random/seeded';

/** A hidden true shell, standing on its bench: positions by point code, mm, axes of the bench. */
export type TrueShell = ReadonlyMap<string, Position<'round'>>;

/** What is to be measured: a length between two points, or a height. */
export interface SimulatedTarget {
  readonly quantity: 'distance' | 'height' | 'width' | 'length';
  readonly measure?: 'tip' | 'level';
  readonly codes: readonly string[];
}

export const MISTAKES = ['startMark', 'digitsExchanged', 'otherSide', 'tenMiscounted'] as const;
export type Mistake = (typeof MISTAKES)[number];

export interface SimulatedReading {
  /** The line the instrument sends: `+01011.5 mm`. */
  readonly line: string;
  /** The mistake a tired person made this time. */
  readonly mistake?: Mistake;
}

/**
 * Measures a hidden true shell: the true length with normal noise, and in a share of cases with one of
 * the mistakes people make.
 *
 * @param sd    of the instrument, mm
 * @param share of readings that go wrong, 0 … 1
 * @returns undefined where the true shell has no such point
 */
export function simulateReading(
  truth: TrueShell,
  target: SimulatedTarget,
  sd: number,
  share: number,
  random: Random,
): SimulatedReading | undefined {
  const wrong = random.next() < share;
  const mistake = wrong ? MISTAKES[Math.floor(random.next() * MISTAKES.length)]! : undefined;
  const codes = mistake === 'otherSide' ? swapLast(target.codes, truth) : target.codes;
  const places = codes.map((code) => truth.get(code));
  if (places.some((place) => !place)) return undefined;
  const [a, b] = places as [Position<'round'>, Position<'round'>];
  const exact = exactly(target, a, b);
  const read = Math.round((exact + sd * random.normal()) * 10) / 10;
  const value = misread(read, target.quantity !== 'distance' && mistake === 'startMark' ? undefined : mistake);
  const sign = value < 0 ? '-' : '+';
  return { line: `${sign}${Math.abs(value).toFixed(1).padStart(7, '0')} mm`, ...(mistake ? { mistake } : {}) };
}

function exactly({ quantity, measure }: SimulatedTarget, a: Position<'round'>, b: Position<'round'>): number {
  if (quantity === 'distance') return measure === 'level' ? levelDistance(a, b) : distance(a, b);
  return a[{ length: 0, width: 1, height: 2 }[quantity] as 0 | 1 | 2];
}

/** The same target with its last point taken on the other side, where there is one. */
function swapLast(codes: readonly string[], truth: TrueShell): readonly string[] {
  const last = codes.at(-1)!;
  const other = mirroredCode(last);
  return other !== last && truth.has(other) && !codes.includes(other) ? [...codes.slice(0, -1), other] : codes;
}

function misread(value: number, mistake: Mistake | undefined): number {
  if (mistake === 'startMark') return value + 100;
  if (mistake === 'tenMiscounted') return value + 10;
  if (mistake !== 'digitsExchanged') return value;
  const text = Math.trunc(Math.abs(value)).toString();
  for (let i = text.length - 3; i >= 0; i--)
    if (text[i] !== text[i + 1])
      return Number(text.slice(0, i) + text[i + 1]! + text[i]! + text.slice(i + 2)) + (Math.abs(value) % 1);
  return value;
}

/**
 * A true shell made up for a job that has only a chart: bent at the rear by some millimetres and standing
 * a little askew on its bench, the same for the same seed.
 */
export function madeUpShell(chart: ReadonlyMap<string, Vector>, random: Random): TrueShell {
  const lengths = [...chart.values()].map(([x]) => x);
  const [front, rear] = [Math.min(...lengths), Math.max(...lengths)];
  const hinge = front + 0.65 * (rear - front);
  const push = [random.normal() * 8, random.normal() * 6, random.normal() * 6] as const;
  const turn = random.normal() * 0.004;
  return new Map(
    [...chart].map(([code, [x, y, z]]) => {
      const share = Math.max(0, (x - hinge) / Math.max(rear - hinge, 1));
      const bent: Vector = [x + share * push[0], y + share * push[1], z + share * push[2]];
      return [code, position<'round'>([bent[0] + turn * bent[2], bent[1], bent[2] - turn * bent[0]])];
    }),
  );
}
