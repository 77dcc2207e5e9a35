import type { Instrument, InstrumentVersion } from '../shell/job/entities';
import { COVERAGE } from '../maths/statistics/verdict';

export type Settling =
  | {
      readonly kind: 'reading';
      readonly instrument: Instrument;
      /** How many more readings with it. */
      readonly readings: number;
    }
  /** The alignment is what is uncertain: reading this again cannot help, farther control points can. */
  | { readonly kind: 'control' };

/** More repeats than this are not proposed. */
const MOST_READINGS = 6;

export interface Unsettled {
  /** Measured minus reference, mm. */
  readonly deviation: number;
  /** Accepted size, mm. */
  readonly limit: number;
  /** One standard deviation of the subject's own readings, mm: repeats make it smaller. */
  readonly own: number;
  /** One standard deviation of what it shares with others (alignment, reference), mm. */
  readonly shared: number;
  /** Length of what is read, mm, for instruments that grow less exact with it. */
  readonly length: number;
}

/**
 * Which reading settles an undecided value: the fewest further readings, by one instrument, that
 * bring two standard deviations below the room left to the limit, if the value stays as it is.
 *
 * @param candidates instruments that can take such a reading
 * @returns undefined where not even the best of them can decide it
 */
export function settlingReading(
  { deviation, limit, own, shared, length }: Unsettled,
  candidates: readonly { readonly instrument: Instrument; readonly version: InstrumentVersion }[],
): Settling | undefined {
  const wanted = (Math.abs(Math.abs(deviation) - limit) / COVERAGE) ** 2;
  const room = wanted - shared ** 2;
  if (room <= 0) return shared > own ? { kind: 'control' } : undefined;
  const options = candidates.flatMap(({ instrument, version }) => {
    const each = version.sdConstant + (version.sdPerMetre * Math.abs(length)) / 1000;
    const readings = Math.max(1, Math.ceil((1 / room - 1 / own ** 2) * each ** 2));
    return readings <= MOST_READINGS ? [{ kind: 'reading' as const, instrument, readings }] : [];
  });
  return options.sort((a, b) => a.readings - b.readings)[0];
}
