import { z } from 'zod';
import type { LengthStyle, LengthUnit } from '@/core/maths/units/length';

/** What one user chose for this browser: kept in a cookie, so that the server prints the same. */
const preferences = z.object({
  words: z.enum(['uk', 'us']).catch('uk'),
  units: z.enum(['mm', 'in16', 'in32']).catch('mm'),
  sheet: z.enum(['day', 'dark']).catch('day'),
  person: z.string().max(80).catch(''),
  /** Who measures: two, one at either end, or one alone. */
  people: z.enum(['two', 'alone']).catch('two'),
});

export type Preferences = z.infer<typeof preferences>;
export const PREFERENCES_COOKIE = 'vinkel';

export function readPreferences(cookie: string | undefined): Preferences {
  let value: unknown = {};
  try {
    value = JSON.parse(cookie ?? '{}');
  } catch {
    // A cookie that is not ours counts as none.
  }
  const parsed = preferences.safeParse(value);
  return parsed.success ? parsed.data : preferences.parse({});
}

export const styleOf = ({ units }: Preferences): LengthStyle =>
  units === 'mm' ? { unit: 'mm' } : { unit: 'in', denominator: units === 'in16' ? 16 : 32 };

/** The unit of a number typed without one. */
export const typedUnit = ({ units }: Preferences): LengthUnit => (units === 'mm' ? 'mm' : 'in');
