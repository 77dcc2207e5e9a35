import type { Side } from './job/entities';

const EXCHANGED: Readonly<Record<string, string>> = { L: 'R', R: 'L', l: 'r', r: 'l' };
const OWN = { left: /l(?!.*l)/i, right: /r(?!.*r)/i } as const;

/**
 * The code of the point on the other side: of a left-hand point the last L becomes R, of a right-hand one the last R
 * becomes L. A code that nothing says the side of is taken by its last letter alone; one in the middle is its own.
 */
export function mirroredCode(code: string, side?: Side): string {
  if (side === 'centre') return code;
  return code.replace(side ? OWN[side] : /[lr]$/i, (letter) => EXCHANGED[letter]!);
}

/** What the two points of a pair have in common: `S2` of `S2L` and `S2R`. */
export const sidelessCode = (code: string): string => code.replace(/[LR]$/i, '');
