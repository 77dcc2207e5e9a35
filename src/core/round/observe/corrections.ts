import type { InstrumentVersion, Reading } from '../../shell/job/entities';

/** One amount by which a raw reading is corrected, mm. */
export interface Correction {
  readonly kind: 'startMark' | 'zeroOffset' | 'temperature';
  readonly amount: number;
}

/** Growth of steel, a share of the length for each degree. */
export const STEEL_EXPANSION = 11.5e-6;
/** Charts hold at this temperature, degrees Celsius (ISO 1). */
export const CHART_TEMPERATURE = 20;

const LONG: ReadonlySet<Reading['quantity']> = new Set<Reading['quantity']>(['distance', 'length']);

/**
 * What the instrument and the day add to a reading. The raw value is kept; these are applied whenever it
 * is used: the start mark is taken off, the zero offset (a worn hook, a cut end) added. A steel
 * instrument grows with the shell, so its reading needs nothing; one that does not grow reads a warm
 * shell long by 11.5 µm a metre and degree.
 *
 * @param temperature of shell and instrument, degrees Celsius; null where nobody read it
 */
export function corrections(
  reading: Pick<Reading, 'value' | 'quantity'>,
  instrument: Pick<InstrumentVersion, 'startMark' | 'zeroOffset' | 'steel'>,
  temperature: number | null,
): Correction[] {
  if (reading.quantity === 'fixture') return [];
  const sign = reading.value < 0 ? -1 : 1;
  const warm = temperature === null || instrument.steel || !LONG.has(reading.quantity);
  const found: Correction[] = [];
  // Most instruments need none, and a round has thousands of readings.
  const add = (kind: Correction['kind'], amount: number) => amount !== 0 && found.push({ kind, amount });
  add('startMark', -sign * instrument.startMark);
  add('zeroOffset', sign * instrument.zeroOffset);
  if (!warm) add('temperature', -reading.value * STEEL_EXPANSION * (temperature - CHART_TEMPERATURE));
  return found;
}

/** The reading with all its corrections, mm. */
export const correctedValue = (
  reading: Pick<Reading, 'value' | 'quantity'>,
  instrument: Pick<InstrumentVersion, 'startMark' | 'zeroOffset' | 'steel'>,
  temperature: number | null,
): number => corrections(reading, instrument, temperature).reduce((sum, { amount }) => sum + amount, reading.value);
