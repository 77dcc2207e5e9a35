import { formatLength, unitName } from '@/core/maths/units/length';
import { inWords, term, type Term } from '@/core/report/vocabulary/terms';
import { styleOf, type Preferences } from './preferences';

/** Everything a screen prints, in the user's units and words. */
export interface Formatter {
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
  time(iso: string): string;
  day(iso: string): string;
}

const DAY = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  timeZone: 'UTC',
});
const TIME = new Intl.DateTimeFormat('en-GB', {
  hour: '2-digit',
  minute: '2-digit',
  timeZone: 'UTC',
});

export function formatterFor(preferences: Preferences): Formatter {
  const style = styleOf(preferences);
  return {
    unit: unitName(style),
    length: (mm) => formatLength(mm, style),
    difference: (mm) => formatLength(mm, style, true),
    plusMinus: (mm) => `±${formatLength(mm, style)}`,
    name: (text) => inWords(text, preferences.words),
    term: (name) => term(name, preferences.words),
    time: (iso) => TIME.format(new Date(iso)),
    day: (iso) => DAY.format(new Date(iso)),
  };
}
