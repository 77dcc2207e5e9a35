import type {
  Reference,
  ReferenceDimension,
  ReferencePoint,
  ReferenceStation,
} from '../job/entities';
import type { JobRows } from '../job/job-rows';

/** The reference a verdict is given against, with its row for the subject. */
export interface Chosen<Row> {
  readonly reference: Reference;
  readonly row: Row;
}

/** For every point, dimension and station (with its quantity), the best-ranked reference that covers it. */
export interface ChosenReferences {
  readonly points: ReadonlyMap<string, Chosen<ReferencePoint>>;
  readonly dimensions: ReadonlyMap<string, Chosen<ReferenceDimension>>;
  /** Keyed by `stationKey`. */
  readonly stations: ReadonlyMap<string, Chosen<ReferenceStation>>;
}

export const stationKey = (stationId: string, quantity: string): string =>
  `${stationId}|${quantity}`;

/** Chooses per dimension, not per job: a lower rank comes first, the older of two equals first. */
export function chooseReferences(rows: JobRows): ChosenReferences {
  const byId = new Map(rows.references.map((reference) => [reference.id, reference]));
  const order = (a: Reference, b: Reference) =>
    a.rank - b.rank || a.createdAt.localeCompare(b.createdAt);
  function best<Row extends { referenceId: string }>(
    candidates: readonly Row[],
    subject: (row: Row) => string,
  ): Map<string, Chosen<Row>> {
    const chosen = new Map<string, Chosen<Row>>();
    for (const row of candidates) {
      const reference = byId.get(row.referenceId)!;
      const rival = chosen.get(subject(row));
      if (!rival || order(reference, rival.reference) < 0)
        chosen.set(subject(row), { reference, row });
    }
    return chosen;
  }
  return {
    points: best(rows.referencePoints, (row) => row.pointId),
    dimensions: best(rows.referenceDimensions, (row) => row.dimensionId),
    stations: best(rows.referenceStations, (row) => stationKey(row.stationId, row.quantity)),
  };
}
