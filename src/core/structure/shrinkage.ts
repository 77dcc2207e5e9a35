import { SHEET_YIELDS } from './model-hinges';
import { STEEL } from './shell-frame';
import type { Sheet } from './heat';

/** Steel's growth, 1/K: the mean up to where it yields without force, more than in the shop's warmth. */
const GROWTH = 12e-6;
/** Of the contraction that heat would cause, so much stays as plastic shortening lengthwise … */
const LENGTHWISE = 0.335;
/** … and so much across, in plates that are free to come together. */
const CROSSWISE = 0.8;

type Warmed = Pick<Sheet, 'density' | 'heat'>;

/** How much steel contracts for each joule that was in it, mm³/J: α/(c·ρ). */
const contraction = ({ density, heat }: Warmed): number => GROWTH / (heat * density * 1e-9);

/**
 * The force with which a seam pulls its ends together where nothing gives, N: E·0.335·α/(c·ρ) for each joule a millimetre
 * (Okerblom, The Calculations of Deformations of Welded Metal Structures, 1958; the tendon force of White, Leggatt and Dwight,
 * Weld shrinkage and the buckling of plates, 1980, is the same within a tenth).
 *
 * @param perLength J/mm
 */
export const tendonForce = (perLength: number, metal: Warmed): number =>
  STEEL.E * LENGTHWISE * contraction(metal) * perLength;

/** How much shorter a seam becomes where nothing holds it, mm: the strain at which sheet yields, all along it. */
export const freeShortening = (long: number): number => (SHEET_YIELDS / STEEL.E) * long;

/**
 * How far a seam lets the metal on its two sides come together, mm: 0.8·α/(c·ρ)·q/t (Okerblom 1958, for plates free to come
 * together and warmed all through).
 *
 * @param perLength J/mm
 * @param thickness of all sheets that shrink, mm
 */
export const comingTogether = (perLength: number, thickness: number, metal: Warmed): number =>
  (CROSSWISE * contraction(metal) * perLength) / thickness;

/**
 * What two places that a seam runs between come nearer each other, mm, and the force they do it with, N: the seam is a strip that
 * would shorten by `free` by itself and needs `tendon` to be kept from it; the structure gives by `give` mm a newton.
 */
export function drawnTogether(
  free: number,
  tendon: number,
  give: number,
): { readonly by: number; readonly force: number } {
  const force = free / (give + free / tendon);
  return { by: force * give, force };
}
