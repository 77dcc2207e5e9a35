import { correctedValue } from './corrections';
import type { Instrument, InstrumentVersion, Quantity, Reading, Round } from '../../shell/job/entities';
import type { JobRows } from '../../shell/job/job-rows';
import type { Axis, Position, Vector } from '../../maths/geometry/vector';

/** One quantity of one subject in one round: the weighted mean of the readings that stand. */
export interface MeasuredValue {
  readonly value: number;
  /** One standard deviation, mm. */
  readonly sd: number;
  readonly readingIds: readonly string[];
}

/** What a round has measured of one point, along the axes of the round's own zero planes. */
export type PointMeasurement = { readonly [A in Axis]?: MeasuredValue };

export interface LocatedPoint {
  readonly pointId: string;
  readonly position: Position<'round'>;
  /** Variances along the round's axes, mm². */
  readonly variance: Vector;
}

export interface MeasuredDistance extends MeasuredValue {
  readonly fromPointId: string;
  readonly toPointId: string;
  readonly measure: 'tip' | 'level';
}

export interface MeasuredGap extends MeasuredValue {
  readonly stationId: string;
  readonly quantity: 'gap' | 'flush';
}

/** Everything a round's standing readings say, combined per subject. */
export interface MeasuredRound {
  readonly points: ReadonlyMap<string, PointMeasurement>;
  readonly distances: readonly MeasuredDistance[];
  readonly gaps: readonly MeasuredGap[];
}

export const AXIS_OF: Readonly<Partial<Record<Quantity, Axis>>> = {
  length: 'x',
  width: 'y',
  height: 'z',
};

/** The readings of a round that have not been struck, pulls' own readings left out. */
export function standingReadings(rows: JobRows, round: Pick<Round, 'id'>): Reading[] {
  const struck = new Set(rows.readingStrikes.map((strike) => strike.readingId));
  return rows.readings.filter(
    (reading) => reading.roundId === round.id && !struck.has(reading.id) && reading.pullId === null,
  );
}

/** One standard deviation of a reading, mm: the constant plus the share of the length. */
export const readingSd = (reading: Pick<Reading, 'value'>, instrument: InstrumentVersion): number =>
  instrument.sdConstant + (instrument.sdPerMetre * Math.abs(reading.value)) / 1000;

export const instrumentOf = (rows: JobRows, version: InstrumentVersion): Instrument =>
  rows.instruments.find((each) => each.id === version.instrumentId)!;

/**
 * Combines the standing readings of a round: repeats of one quantity become their mean, weighted by
 * 1/sd², with sd = 1/√Σ(1/sd²). Repeats count as independent.
 */
export function measureRound(rows: JobRows, round: Pick<Round, 'id' | 'temperature'>): MeasuredRound {
  const versions = new Map(rows.instrumentVersions.map((version) => [version.id, version]));
  const groups = new Map<string, Reading[]>();
  for (const reading of standingReadings(rows, round)) {
    const key = subjectKey(reading);
    groups.set(key, [...(groups.get(key) ?? []), reading]);
  }
  const points = new Map<string, PointMeasurement>();
  const distances: MeasuredDistance[] = [];
  const gaps: MeasuredGap[] = [];
  for (const readings of groups.values()) {
    const [first] = readings as [Reading];
    const mean = weightedMean(readings, versions, round.temperature);
    const axis = AXIS_OF[first.quantity];
    if (axis && first.pointId) points.set(first.pointId, { ...points.get(first.pointId), [axis]: mean });
    else if (first.quantity === 'distance')
      distances.push({
        ...mean,
        fromPointId: first.pointId!,
        toPointId: first.toPointId!,
        measure: first.measure!,
      });
    else if (first.stationId)
      gaps.push({
        ...mean,
        stationId: first.stationId,
        quantity: first.quantity as 'gap' | 'flush',
      });
  }
  return { points, distances, gaps };
}

/** Two readings with one key measure the same thing; a distance is the same from either end. */
export function subjectKey(reading: Reading): string {
  const ends = [reading.pointId, reading.toPointId].filter((end) => end !== null).sort();
  return [reading.quantity, reading.measure, reading.stationId, reading.featureId, ...ends].join('|');
}

function weightedMean(
  readings: readonly Reading[],
  versions: ReadonlyMap<string, InstrumentVersion>,
  temperature: number | null,
): MeasuredValue {
  let sum = 0;
  let weights = 0;
  for (const reading of readings) {
    const instrument = versions.get(reading.instrumentVersionId)!;
    const weight = 1 / readingSd(reading, instrument) ** 2;
    sum += weight * correctedValue(reading, instrument, temperature);
    weights += weight;
  }
  return {
    value: sum / weights,
    sd: 1 / Math.sqrt(weights),
    readingIds: readings.map((reading) => reading.id),
  };
}

/** The distance read between two points, from either end, the way `measure` says. */
export function distanceBetween(
  measured: MeasuredRound,
  ends: {
    readonly fromPointId: string;
    readonly toPointId: string;
    readonly measure: 'tip' | 'level';
  },
): MeasuredDistance | undefined {
  const wanted = new Set([ends.fromPointId, ends.toPointId]);
  return measured.distances.find(
    (each) => each.measure === ends.measure && wanted.has(each.fromPointId) && wanted.has(each.toPointId),
  );
}
