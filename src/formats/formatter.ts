import { formatLength, MM_PER, unitName, type LengthStyle } from '@/core/maths/units/length';
import { inWords, term, type Term } from '@/core/report/vocabulary/terms';
import { styleOf, type Preferences } from './preferences';
import { shopTime, type ShopTime } from './shop-time';

/** Everything a screen prints, in the user's units and words and the shop's time. */
export interface Formatter extends ShopTime {
  readonly unit: LengthStyle['unit'];
  /** A length or coordinate. */
  length(mm: number): string;
  /** Where something lies along the shell, told no closer than a millimetre. */
  station(mm: number): string;
  /** A difference: sign always shown. */
  difference(mm: number): string;
  /** Two standard deviations, without a sign: of inches thousandths, as fractions would say of most that there are none. */
  uncertainty(mm: number): string;
  /** The same with its ±. */
  plusMinus(mm: number): string;
  /** A small figure where a step of the unit's fractions would be too coarse: an instrument's spread. */
  fine(mm: number): string;
  /** What hinges and shims are set by: tenths of a mm, or thousandths of an inch; with its sign where it is a difference. */
  thin(mm: number, signed?: boolean): string;
  /** A name as typed, in the user's words. */
  name(text: string): string;
  term(name: Term): string;
  /** A temperature with its unit: degrees Fahrenheit beside inches. */
  temperature(celsius: number): string;
  /** How much warmer one thing is than another, with its unit. */
  warmer(kelvin: number): string;
  readonly temperatureUnit: '°C' | '°F';
}

export function formatterFor(preferences: Preferences, zone: string): Formatter {
  const style = styleOf(preferences);
  const uncertainty = (mm: number) => (style.unit === 'mm' ? formatLength(mm, style) : (mm / MM_PER.in).toFixed(3));
  return {
    unit: unitName(style),
    length: (mm) => formatLength(mm, style),
    station: (mm) => (style.unit === 'mm' ? String(Math.round(mm)) : formatLength(mm, style)),
    difference: (mm) => formatLength(mm, style, true),
    uncertainty,
    plusMinus: (mm) => `±${uncertainty(mm)}`,
    thin: (mm, signed) =>
      style.unit === 'mm'
        ? formatLength(mm, style, signed)
        : `${signed && mm > 0.0127 ? '+' : ''}${(mm / MM_PER.in)
            .toFixed(3)
            .replace('-', '−')
            .replace(/^−0\.000$/, '0.000')}`,
    fine: (mm) => (style.unit === 'mm' ? mm.toFixed(2) : (mm / MM_PER.in).toFixed(3)),
    name: (text) => inWords(text, preferences.words),
    term: (name) => term(name, preferences.words),
    temperature: (celsius) => temperatureText(celsius, style.unit === 'mm'),
    warmer: (kelvin) => (style.unit === 'mm' ? `${Math.round(kelvin)} °C` : `${Math.round(1.8 * kelvin)} °F`),
    temperatureUnit: style.unit === 'mm' ? '°C' : '°F',
    ...shopTime(zone),
  };
}

const temperatureText = (celsius: number, metric: boolean): string =>
  metric ? `${celsius} °C` : `${Math.round(celsius * 1.8 + 32)} °F`;

/** Degrees Celsius of a number typed in the unit of `temperatureUnit`. */
export const celsiusOf = (typed: number, unit: Formatter['temperatureUnit']): number =>
  unit === '°C' ? typed : Math.round(((typed - 32) / 1.8) * 10) / 10;
