import { formatLength, unitName } from '@/core/maths/units/length';
import { inWords, term, type Term } from '@/core/report/vocabulary/terms';
import { styleOf, type Preferences } from './preferences';
import { shopTime, type ShopTime } from './shop-time';

/** Everything a screen prints, in the user's units and words and the shop's time. */
export interface Formatter extends ShopTime {
  readonly unit: string;
  /** A length or coordinate. */
  length(mm: number): string;
  /** A difference: sign always shown. */
  difference(mm: number): string;
  /** ± two standard deviations. */
  plusMinus(mm: number): string;
  /** A name as typed, in the user's words. */
  name(text: string): string;
  term(name: Term): string;
}

export function formatterFor(preferences: Preferences, zone: string): Formatter {
  const style = styleOf(preferences);
  return {
    unit: unitName(style),
    length: (mm) => formatLength(mm, style),
    difference: (mm) => formatLength(mm, style, true),
    plusMinus: (mm) => `±${formatLength(mm, style)}`,
    name: (text) => inWords(text, preferences.words),
    term: (name) => term(name, preferences.words),
    ...shopTime(zone),
  };
}
