import { NEW_POINT, NEW_SEAM, type Measure, type Side } from '../job/entities';
import type { JobRows, RowOf } from '../job/job-rows';

/** A maker's chart before it belongs to a job: points by their codes, millimetres, chart axes. */
export interface ChartDraft {
  readonly points: readonly DraftPoint[];
  /** Points that are only named: the chart gives no coordinates for them. */
  readonly named?: readonly NamedPoint[];
  readonly dimensions: readonly DraftDimension[];
  /** Pairs of point codes drawn for orientation. */
  readonly lines: readonly (readonly [string, string])[];
  readonly seams: readonly DraftSeam[];
}

export interface NamedPoint {
  readonly code: string;
  readonly name: string;
  readonly side: Side;
  readonly holeDiameter: number | null;
}

export interface DraftPoint extends NamedPoint {
  readonly x: number;
  readonly y: number;
  readonly z: number;
  readonly tolerance: number;
}

export interface DraftDimension {
  readonly code: string;
  readonly name: string;
  readonly from: string;
  readonly to: string;
  readonly value: number;
  readonly tolerance: number;
  readonly measure: Measure;
}

export interface DraftSeam {
  readonly code: string;
  readonly name: string;
  readonly side: Side;
  readonly pairing: string;
  readonly stations: readonly DraftStation[];
}

export interface DraftStation {
  readonly number: number;
  readonly name: string;
  readonly gap?: { readonly value: number; readonly tolerance: number };
  readonly flush?: { readonly value: number; readonly tolerance: number };
}

/** A fault of one row of a draft: the list, the row's index from 0 and the field. */
export interface DraftFault {
  readonly list: keyof ChartDraft;
  readonly index: number;
  readonly field: string;
  readonly message: string;
}

/** Codes of points the job has already: a dimension or a line may end there. */
export type KnownCodes = ReadonlySet<string>;

export const knownCodes = (rows: Pick<JobRows, 'points'>): KnownCodes =>
  new Set(rows.points.map((point) => fold(point.code)));

/** Codes are compared as they are typed on the shop floor: without regard to case. */
export const fold = (code: string): string => code.trim().toLowerCase();

type ChartTables =
  | 'points'
  | 'dimensions'
  | 'memberLines'
  | 'seams'
  | 'seamStations'
  | 'referencePoints'
  | 'referenceDimensions'
  | 'referenceStations';

export type ChartRows = { [T in ChartTables]: RowOf<T>[] };

/** What a job has already that a chart may speak of again. */
export type Charted = Pick<JobRows, 'points' | 'dimensions' | 'memberLines' | 'seams' | 'seamStations'>;

/**
 * Turns a checked draft into the rows of a job: the points, dimensions and seams that are not there yet, and what the
 * reference says of all of them.
 *
 * @param existing what the job has already; it is spoken of by its codes
 * @param newId    source of identities
 */
export function chartRows(
  draft: ChartDraft,
  job: { readonly jobId: string; readonly referenceId: string },
  existing: Charted,
  newId: () => string,
): ChartRows {
  const { jobId, referenceId } = job;
  const rows: ChartRows = {
    points: [],
    dimensions: [],
    memberLines: [],
    seams: [],
    seamStations: [],
    referencePoints: [],
    referenceDimensions: [],
    referenceStations: [],
  };
  const figure = { referenceId, sd: null, version: 1 } as const;
  const idOf = idsByCode(existing.points);
  const addPoint = ({ code, name, side, holeDiameter }: NamedPoint): string => {
    const known = idOf.get(fold(code));
    if (known) return known;
    const id = newId();
    idOf.set(fold(code), id);
    rows.points.push({
      ...NEW_POINT,
      ...{ id, jobId, code, name, side, holeDiameter },
    });
    return id;
  };
  draft.named?.forEach(addPoint);
  for (const { x, y, z, tolerance, ...point } of draft.points) {
    const pointId = addPoint(point);
    rows.referencePoints.push({ id: newId(), pointId, x, y, z, tolerance, ...figure });
  }
  const dimensionOf = idsByCode(existing.dimensions);
  for (const { code, name, from, to, value, tolerance, measure } of draft.dimensions) {
    const known = dimensionOf.get(fold(code));
    const id = known ?? newId();
    const ends = { fromPointId: idOf.get(fold(from))!, toPointId: idOf.get(fold(to))! };
    if (!known) rows.dimensions.push({ id, jobId, code, name, ...ends, measure, version: 1 });
    rows.referenceDimensions.push({ id: newId(), dimensionId: id, value, tolerance, ...figure });
  }
  const drawn = new Set(existing.memberLines.map(({ fromPointId, toPointId }) => `${fromPointId} ${toPointId}`));
  for (const [from, to] of draft.lines) {
    const ends = { fromPointId: idOf.get(fold(from))!, toPointId: idOf.get(fold(to))! };
    if (!drawn.has(`${ends.fromPointId} ${ends.toPointId}`)) rows.memberLines.push({ id: newId(), jobId, ...ends });
  }
  const seamOf = idsByCode(existing.seams);
  for (const { stations, ...seam } of draft.seams) {
    const known = seamOf.get(fold(seam.code));
    const seamId = known ?? newId();
    if (!known) rows.seams.push({ id: seamId, jobId, ...seam, ...NEW_SEAM, version: 1 });
    for (const { number, name, ...targets } of stations) {
      const there = existing.seamStations.find((each) => each.seamId === seamId && each.number === number);
      const stationId = there?.id ?? newId();
      if (!there) rows.seamStations.push({ id: stationId, seamId, number, name });
      for (const quantity of ['gap', 'flush'] as const) {
        const target = targets[quantity];
        if (target) rows.referenceStations.push({ id: newId(), stationId, quantity, ...target, ...figure });
      }
    }
  }
  return rows;
}

const idsByCode = (rows: readonly { readonly id: string; readonly code: string }[]): Map<string, string> =>
  new Map(rows.map(({ id, code }) => [fold(code), id]));
