import type { Instrument, InstrumentVersion, Quantity } from './job/entities';
import type { Job } from './job/job';
import type { Tables } from './job/job-rows';

/** The kinds of instrument that take each quantity, the usual one first. */
const TAKEN_WITH: Readonly<Record<Quantity, readonly Instrument['kind'][]>> = {
  distance: ['tape', 'tram', 'digitalTram', 'other'],
  length: ['plumb', 'other'],
  width: ['plumb', 'other'],
  height: ['heightStick', 'other'],
  gap: ['caliper', 'feeler'],
  flush: ['caliper', 'feeler'],
  fixture: ['fixtureHead'],
};

export const takes = ({ kind }: Pick<Instrument, 'kind'>, quantity: Quantity): boolean =>
  TAKEN_WITH[quantity].includes(kind);

/** The instruments that take a quantity, the usual kinds first. */
export const usualFor = (instruments: readonly Instrument[], quantity: Quantity): Instrument[] =>
  TAKEN_WITH[quantity].flatMap((kind) => instruments.filter((each) => each.kind === kind));

/** An instrument as it is now. */
export interface InHand {
  readonly instrument: Instrument;
  readonly version: InstrumentVersion;
}

/** One standard deviation of a reading of this length, mm. */
export const spreadOf = ({ sdConstant, sdPerMetre }: InstrumentVersion, length: number): number =>
  sdConstant + (sdPerMetre * Math.abs(length)) / 1000;

/** The newest version of every instrument, by the instrument. */
export function newestVersions(rows: Tables<'instrumentVersions'>): Map<string, InstrumentVersion> {
  return new Map(
    [...rows.instrumentVersions].sort((a, b) => a.number - b.number).map((version) => [version.instrumentId, version]),
  );
}

/**
 * What the shop has in hand on this job: the instruments it has read with, all of them before the first reading.
 *
 * @param taken versions somebody has taken up but not read with yet
 */
export function instrumentsInHand(job: Job, taken: readonly string[] = []): InHand[] {
  const read = new Set([
    ...taken,
    ...job.rows.readings.map(({ instrumentVersionId }) => instrumentVersionId),
    ...job.rows.rounds.map(({ instrumentVersionId }) => instrumentVersionId),
  ]);
  const used = new Set([...read].map((id) => job.version(id).instrumentId));
  const newest = newestVersions(job.rows);
  const all = job.rows.instruments.flatMap((instrument): InHand[] => {
    const version = newest.get(instrument.id);
    return version ? [{ instrument, version }] : [];
  });
  return used.size === 0 ? all : all.filter(({ instrument }) => used.has(instrument.id));
}
