import type { Vector } from '../../maths/geometry/vector';
import type { InstrumentVersion, Point, PointCondition, Reading, Round } from '../../shell/job/entities';
import type { JobRows } from '../../shell/job/job-rows';
import type { ChosenReferences } from '../../shell/references/chosen';
import { roughStart, type RoughStart } from '../../survey/rough-start';
import type { Survey, SurveyReading } from '../../survey/survey';
import { conditionsOf } from './conditions';
import { correctedValue } from './corrections';
import { startingPoints } from './starting-points';
import { readingSd, standingReadings, subjectKey } from './measured';

/** A round as a net; its points go by their codes, its readings by their identities. */
export interface RoundSurvey {
  readonly survey: Survey;
  /** Where the starting coordinates come from. */
  readonly start: 'chart' | 'readings';
  /** What rough coordinates leave open, where there is no chart. */
  readonly rough?: RoughStart;
  /** Fixture heads that do not enter: findings, by point code. */
  readonly notEntering: readonly string[];
}

/** Share of the variance of one reading that its repeats with the same instrument have in common. */
const SHARED_WITH_REPEATS = 0.5;

/**
 * The net of a round's standing readings in the round's own axes: corrected values, the instrument's
 * spread, repeats tied by a shared bias. The chart only gives the starting coordinates, moved as a whole
 * to where the round's heights, lengths and widths put it.
 */
export function surveyOf(rows: JobRows, round: Round, references: ChosenReferences): RoundSurvey {
  const codeOf = new Map(rows.points.map((point) => [point.id, point.code]));
  const standing = standingReadings(rows, round).filter((each) => each.stationId === null && each.featureId === null);
  const doubtful = doubtfulPoints(rows, round);
  const charted = (point: Point): Vector | undefined => {
    const row = references.points.get(point.id)?.row;
    return row && [row.x, row.y, row.z];
  };
  const heads = new Map(rows.points.map((point) => [point.id, charted(point)]));
  const readings = [...bundles(standing)].flatMap((bundle) =>
    bundle.flatMap((reading) => netReading(rows, reading, bundle, { codeOf, round, doubtful, heads })),
  );
  const positions = rows.points.map((point) => ({ point, at: charted(point) }));
  const notEntering = standing.flatMap((each) => (each.fit === 'none' ? [codeOf.get(each.pointId!)!] : []));
  if (positions.some(({ at }) => at)) {
    const survey = { points: startingPoints(positions, readings), readings };
    return { survey, start: 'chart', notEntering };
  }
  const sideOf = new Map(rows.points.map((point) => [point.code, point.side]));
  const rough = roughStart([...sideOf.keys()], readings, (code) => sideOf.get(code));
  const points = rows.points.map(({ code }) => ({
    id: code,
    start: rough.positions.get(code) ?? ([0, 0, 0] as const),
  }));
  return { survey: { points, readings }, start: 'readings', rough, notEntering };
}

/** Readings of one subject with one instrument, together. */
function bundles(readings: readonly Reading[]): Iterable<Reading[]> {
  const bundled = new Map<string, Reading[]>();
  for (const reading of readings) {
    const key = `${subjectKey(reading)} ${reading.instrumentVersionId}`;
    bundled.set(key, [...(bundled.get(key) ?? []), reading]);
  }
  return bundled.values();
}

interface Context {
  readonly codeOf: ReadonlyMap<string, string>;
  readonly round: Round;
  /** Variance each doubtful point adds, mm². */
  readonly doubtful: ReadonlyMap<string, number>;
  readonly heads: ReadonlyMap<string, Vector | undefined>;
}

/** Spread a doubtful point adds to every reading at it, over and above the instrument's, mm. */
const DOUBTFUL_SD: Readonly<Partial<Record<PointCondition['kind'], number>>> = {
  worn: 0.87,
  oval: 0.87,
  rusty: 1.5,
  rebuilt: 2,
};

function netReading(
  rows: JobRows,
  reading: Reading,
  bundle: readonly Reading[],
  { codeOf, round, doubtful, heads }: Context,
): SurveyReading[] {
  const instrument = rows.instrumentVersions.find((each) => each.id === reading.instrumentVersionId)!;
  const ends = [reading.pointId, reading.toPointId].filter((id) => id !== null);
  const wear = ends.reduce((sum, id) => sum + (doubtful.get(id) ?? 0), 0);
  const sd = Math.hypot(readingSd(reading, instrument), Math.sqrt(wear));
  const shared = bundle.length > 1 ? SHARED_WITH_REPEATS : 0;
  const common = {
    id: reading.id,
    sigma: sd * Math.sqrt(1 - shared),
    value: correctedValue(reading, instrument, round.temperature),
    ...(shared > 0 ? { bias: { group: bundle[0]!.id, sigma: sd * Math.sqrt(shared) } } : {}),
  };
  const point = codeOf.get(reading.pointId!)!;
  if (reading.quantity === 'distance') {
    const { pointerFrom, pointerTo } = reading;
    const pointers = pointerFrom !== null && pointerTo !== null ? { pointers: [pointerFrom, pointerTo] as const } : {};
    return [
      {
        ...common,
        ...pointers,
        kind: reading.measure === 'level' ? 'plan' : 'distance',
        from: point,
        to: codeOf.get(reading.toPointId!)!,
      },
    ];
  }
  if (reading.quantity === 'fixture') {
    const at = heads.get(reading.pointId!);
    return at && reading.fit !== 'none' ? [headReading(reading, point, at)] : [];
  }
  const kind = ({ length: 'station', width: 'offset', height: 'height' } as const)[
    reading.quantity as 'length' | 'width' | 'height'
  ];
  return [{ ...common, kind, point }];
}

/**
 * A head that enters says where its hole is, within its clearance: evenly anywhere in it when it enters
 * freely (sd = c/√3), within half of it when tight (c/√12).
 */
function headReading(reading: Reading, point: string, at: Vector): SurveyReading {
  const sd = reading.value / Math.sqrt(reading.fit === 'tight' ? 12 : 3);
  return { id: reading.id, kind: 'position', point, value: at, sigma: [sd, sd, sd] };
}

/** Points marked worn, oval, rusty or rebuilt in this round, with the variance that adds to their readings. */
function doubtfulPoints(rows: JobRows, round: Round): Map<string, number> {
  return new Map(
    [...conditionsOf(rows, round)].flatMap(([id, kind]) =>
      DOUBTFUL_SD[kind] ? [[id, DOUBTFUL_SD[kind] ** 2] as const] : [],
    ),
  );
}

export const versionOf = (rows: JobRows, reading: Reading): InstrumentVersion =>
  rows.instrumentVersions.find((each) => each.id === reading.instrumentVersionId)!;
