import type { Vector } from '@/core/maths/geometry/vector';

/** Chart axes (rearward, right, up, mm) into the scene's (right-handed with y up, metres). */
export const inScene = ([x, y, z]: Vector): [number, number, number] => [x / 1000, z / 1000, -y / 1000];

const NAMES = ['ink', 'soft', 'rule', 'sheet', 'plus', 'minus', 'lit', 'faint'] as const;
export type Colours = Readonly<Record<(typeof NAMES)[number], string>>;

/** The colours of the sheet in use, written out. */
export function coloursOf(sheet: string): Colours {
  const themed = document.querySelector(`[data-sheet='${sheet}']`) ?? document.documentElement;
  const style = getComputedStyle(themed);
  return Object.fromEntries(NAMES.map((name) => [name, style.getPropertyValue(`--${name}`).trim()])) as Colours;
}
