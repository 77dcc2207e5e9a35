import type { Measure, Side } from '../job/entities';
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

/** Codes the job has already. */
export interface TakenCodes {
  readonly points: ReadonlySet<string>;
  readonly dimensions: ReadonlySet<string>;
  readonly seams: ReadonlySet<string>;
}

export const takenCodes = (rows: Pick<JobRows, 'points' | 'dimensions' | 'seams'>): TakenCodes => ({
  points: new Set(rows.points.map((point) => fold(point.code))),
  dimensions: new Set(rows.dimensions.map((dimension) => fold(dimension.code))),
  seams: new Set(rows.seams.map((seam) => fold(seam.code))),
});

/** Codes are compared as they are typed on the shop floor: without regard to case. */
const fold = (code: string): string => code.trim().toLowerCase();

/** Everything about a draft that its rows cannot know alone: repeated codes, unknown ends, wrong sides. */
export function checkDraft(draft: ChartDraft, taken: TakenCodes): DraftFault[] {
  const named = draft.named ?? [];
  const charted = draft.points.map((point) => fold(point.code));
  const known = new Set([...taken.points, ...charted, ...named.map((point) => fold(point.code))]);
  return [
    ...repeated('points', draft.points, taken.points),
    ...repeated('named', named, new Set([...taken.points, ...charted])),
    ...repeated('dimensions', draft.dimensions, taken.dimensions),
    ...repeated('seams', draft.seams, taken.seams),
    ...draft.points.flatMap((point, index) => sideFaults(point, index)),
    ...draft.dimensions.flatMap((dimension, index) => endFaults(dimension, index, known)),
    ...draft.lines.flatMap((ends, index) =>
      ends.flatMap((code, end) =>
        known.has(fold(code))
          ? []
          : [{ list: 'lines' as const, index, field: String(end), message: `no point "${code}"` }],
      ),
    ),
  ];
}

function repeated(
  list: 'points' | 'named' | 'dimensions' | 'seams',
  rows: readonly { readonly code: string }[],
  taken: ReadonlySet<string>,
): DraftFault[] {
  const seen = new Set<string>();
  return rows.flatMap(({ code }, index): DraftFault[] => {
    const folded = fold(code);
    if (folded === '') return [];
    const message = taken.has(folded)
      ? `"${code}" is in this job already: edit it in the table`
      : seen.has(folded)
        ? `"${code}" stands here twice`
        : undefined;
    seen.add(folded);
    return message ? [{ list, index, field: 'code', message }] : [];
  });
}

function sideFaults({ side, y, code }: DraftPoint, index: number): DraftFault[] {
  const wrong = (side === 'left' && y > 0) || (side === 'right' && y < 0);
  if (!wrong) return [];
  const rule = side === 'left' ? 'left-hand points have y below zero' : 'right-hand points have y above zero';
  return [
    {
      list: 'points',
      index,
      field: 'y',
      message: `${code} is on the ${side}, but y is ${y}: ${rule}`,
    },
  ];
}

function endFaults({ from, to }: DraftDimension, index: number, known: ReadonlySet<string>): DraftFault[] {
  const unknown = (['from', 'to'] as const).flatMap((field): DraftFault[] => {
    const code = field === 'from' ? from : to;
    return code === '' || known.has(fold(code))
      ? []
      : [{ list: 'dimensions', index, field, message: `no point "${code}"` }];
  });
  if (from !== '' && fold(from) === fold(to))
    return [...unknown, { list: 'dimensions', index, field: 'to', message: `"${from}" to itself has no length` }];
  return unknown;
}

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

/**
 * Turns a checked draft into the rows of a job: the points, dimensions and seams themselves, and
 * what the reference says of them.
 *
 * @param existing points the job has already, for dimensions that end there
 * @param newId    source of identities
 */
export function chartRows(
  draft: ChartDraft,
  job: { readonly jobId: string; readonly referenceId: string },
  existing: readonly RowOf<'points'>[],
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
  const idOf = new Map(existing.map((point) => [fold(point.code), point.id]));
  const addPoint = ({ code, name, side, holeDiameter }: NamedPoint): string => {
    const id = newId();
    idOf.set(fold(code), id);
    rows.points.push({
      ...{ id, jobId, code, name, side, holeDiameter },
      ...{ substituteForId: null, mirrored: true, version: 1 },
    });
    return id;
  };
  draft.named?.forEach(addPoint);
  for (const { x, y, z, tolerance, ...point } of draft.points) {
    const id = addPoint(point);
    rows.referencePoints.push({
      id: newId(),
      referenceId,
      pointId: id,
      x,
      y,
      z,
      tolerance,
      sd: null,
      version: 1,
    });
  }
  for (const { code, name, from, to, value, tolerance, measure } of draft.dimensions) {
    const id = newId();
    const ends = { fromPointId: idOf.get(fold(from))!, toPointId: idOf.get(fold(to))! };
    rows.dimensions.push({ id, jobId, code, name, ...ends, measure, version: 1 });
    rows.referenceDimensions.push({
      id: newId(),
      referenceId,
      dimensionId: id,
      value,
      tolerance,
      sd: null,
      version: 1,
    });
  }
  for (const [from, to] of draft.lines)
    rows.memberLines.push({
      id: newId(),
      jobId,
      fromPointId: idOf.get(fold(from))!,
      toPointId: idOf.get(fold(to))!,
    });
  for (const { stations, ...seam } of draft.seams) {
    const seamId = newId();
    rows.seams.push({ id: seamId, jobId, ...seam, version: 1 });
    for (const { number, name, ...targets } of stations) {
      const stationId = newId();
      rows.seamStations.push({ id: stationId, seamId, number, name });
      for (const quantity of ['gap', 'flush'] as const) {
        const target = targets[quantity];
        if (target)
          rows.referenceStations.push({
            id: newId(),
            referenceId,
            stationId,
            quantity,
            ...target,
            sd: null,
            version: 1,
          });
      }
    }
  }
  return rows;
}
