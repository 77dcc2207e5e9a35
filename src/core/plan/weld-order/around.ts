import type { WeldSeam } from '../../shell/job/entities';
import type { WeldLayout } from './layout';

export const AROUND_KINDS = [
  'access',
  'strip',
  'fit',
  'deburr',
  'weldPrime',
  'abrade',
  'clamp',
  'weld',
  'glue',
  'readCold',
  'dress',
  'treat',
  'prime',
  'sealFirst',
  'sealSecond',
  'wax',
] as const;
export type AroundKind = (typeof AROUND_KINDS)[number];

/** A step of preparing or protecting a joint, as its calendar has it. */
export interface AroundStep {
  readonly kind: AroundKind;
  /** Of work. */
  readonly minutes: number;
  /** Until what follows can begin, min by the clock, at `curesAt` °C where it cures. */
  readonly waits: number | null;
  readonly curesAt: number | null;
  /** Within which what follows must begin, min. */
  readonly keeps: number | null;
  readonly noise: boolean;
  /** Nobody gets there once the joint is closed. */
  readonly beforeAccess: boolean;
}

const HOUR = 60;
const DAY = 24 * HOUR;
/** Where nobody said how warm the shop is, °C. */
const SHOP = 20;

interface Effort {
  /** Minutes whatever its length, for each metre, and for each place. */
  readonly once: number;
  readonly metre?: number;
  readonly place?: number;
  readonly waits?: number;
  /** Its waiting is curing. */
  readonly cures?: true;
  readonly keeps?: number;
  readonly noise?: true;
  readonly beforeAccess?: true;
}

/**
 * What each takes: figures to begin with, of hands that know it; waiting times of common one-pack products at 20 °C, in the place
 * of which the maker's sheet is put.
 */
const EFFORT: Readonly<Record<Exclude<AroundKind, 'weld'>, Effort>> = {
  access: { once: 20, beforeAccess: true },
  strip: { once: 10, metre: 25, noise: true },
  fit: { once: 15, metre: 20 },
  deburr: { once: 5, metre: 10, noise: true },
  weldPrime: { once: 10, metre: 10, waits: 30, cures: true, keeps: 7 * DAY, beforeAccess: true },
  abrade: { once: 10, metre: 15, keeps: 4 * HOUR, noise: true, beforeAccess: true },
  clamp: { once: 5, place: 0.5 },
  glue: { once: 10, metre: 8 },
  readCold: { once: 20 },
  dress: { once: 2, place: 1, noise: true },
  treat: { once: 10, metre: 5, waits: HOUR, cures: true, keeps: DAY },
  prime: { once: 10, metre: 8, waits: 4 * HOUR, cures: true, keeps: 7 * DAY },
  sealFirst: { once: 10, metre: 8, waits: 2 * HOUR, cures: true, keeps: 3 * DAY },
  sealSecond: { once: 5, metre: 6, waits: DAY, cures: true },
  wax: { once: 10, metre: 8, waits: 12 * HOUR, cures: true },
};

/** Metal cools before it is read, min. */
const COOLS = HOUR;
/** An adhesive of which nobody said how long it is clamped, min. */
const CLAMPED = DAY;

const WELDED: readonly AroundKind[] = [
  ...(['access', 'strip', 'fit', 'deburr', 'weldPrime', 'clamp', 'weld', 'readCold'] as const),
  ...(['dress', 'treat', 'prime', 'sealFirst', 'sealSecond', 'wax'] as const),
];
/** Nothing is melted: no primer that is welded through, nothing to dress, and no heat before it holds. */
const BONDED: readonly AroundKind[] = ['access', 'strip', 'fit', 'abrade', 'glue', 'readCold', 'sealSecond', 'wax'];

/**
 * The steps before and after a joint is made, in their order; each needs the one before it.
 *
 * @param between minutes for what is done between its places
 */
export function stepsAround(
  seam: Pick<WeldSeam, 'kind' | 'long' | 'clampedFor'>,
  layout: Pick<WeldLayout, 'places' | 'minutes'>,
  between = 0,
): AroundStep[] {
  const metres = seam.long / 1000;
  return (seam.kind === 'bond' ? BONDED : WELDED).map((kind): AroundStep => {
    if (kind === 'weld') return { ...bare(kind, layout.minutes + between), waits: COOLS, noise: true };
    const { once, metre = 0, place = 0, waits, cures, keeps, noise, beforeAccess } = EFFORT[kind];
    const clamped = kind === 'glue' ? (seam.clampedFor ?? CLAMPED) : undefined;
    return {
      ...bare(kind, once + metre * metres + place * layout.places.length),
      waits: clamped ?? waits ?? null,
      curesAt: cures || kind === 'glue' ? SHOP : null,
      keeps: keeps ?? null,
      noise: noise ?? false,
      beforeAccess: beforeAccess ?? false,
    };
  });
}

const bare = (kind: AroundKind, minutes: number): AroundStep => ({
  ...{ kind, minutes: Math.max(5, Math.round(minutes / 5) * 5), waits: null, curesAt: null, keeps: null },
  ...{ noise: false, beforeAccess: false },
});
