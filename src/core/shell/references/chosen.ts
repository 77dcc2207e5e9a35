import { position, type Position } from '../../maths/geometry/vector';
import type { Reference, ReferenceDimension, ReferencePoint, ReferenceStation } from '../job/entities';
import type { JobRows } from '../job/job-rows';

/** What one reference says of a subject, and how far it can be trusted. */
export interface Figure<Row> {
  readonly reference: Reference;
  readonly row: Row;
  /** One standard deviation, mm: the figure's own, or else the reference's trust. */
  readonly sd: number;
}

/** The reference a verdict is given against, with its row for the subject. */
export interface Chosen<Row> extends Figure<Row> {
  /** The others that cover the subject, in the order they would be used. */
  readonly others: readonly Figure<Row>[];
  /** Chosen for this subject by hand, against the ranks. */
  readonly byHand: boolean;
}

/** For every point, dimension and station (with its quantity), the reference that is judged by. */
export interface ChosenReferences {
  readonly points: ReadonlyMap<string, Chosen<ReferencePoint>>;
  readonly dimensions: ReadonlyMap<string, Chosen<ReferenceDimension>>;
  /** Keyed by `stationKey`. */
  readonly stations: ReadonlyMap<string, Chosen<ReferenceStation>>;
}

export const stationKey = (stationId: string, quantity: string): string => `${stationId}|${quantity}`;

/** The order in which references are used: the lower rank first, the older of two equals first. */
export const inOrder = (a: Reference, b: Reference): number =>
  a.rank - b.rank || a.createdAt.localeCompare(b.createdAt);

/**
 * Chooses per subject, not per job: among the references in use that cover it the one chosen by hand, or
 * else the best ranked.
 */
export function chooseReferences(rows: JobRows): ChosenReferences {
  const used = new Map(rows.references.filter(({ inUse }) => inUse).map((reference) => [reference.id, reference]));
  const byHand = new Map(
    rows.referenceChoices.map(({ pointId, dimensionId, referenceId }) => [pointId ?? dimensionId!, referenceId]),
  );
  function best<Row extends { referenceId: string; sd: number | null }>(
    candidates: readonly Row[],
    subject: (row: Row) => string,
  ): Map<string, Chosen<Row>> {
    const covering = new Map<string, Figure<Row>[]>();
    for (const row of candidates) {
      const reference = used.get(row.referenceId);
      if (!reference) continue;
      const figure = { reference, row, sd: row.sd ?? reference.trust };
      const known = covering.get(subject(row));
      if (known) known.push(figure);
      else covering.set(subject(row), [figure]);
    }
    return new Map(
      [...covering].map(([id, figures]) => {
        const chosen = byHand.get(id);
        const rank = ({ reference }: Figure<Row>) => (reference.id === chosen ? 0 : 1);
        const [first, ...others] = figures.sort((a, b) => rank(a) - rank(b) || inOrder(a.reference, b.reference));
        return [id, { ...first!, others, byHand: first!.reference.id === chosen }];
      }),
    );
  }
  const points = best(rows.referencePoints, (row) => row.pointId);
  return {
    points,
    dimensions: best(rows.referenceDimensions, (row) => row.dimensionId),
    stations: best(rows.referenceStations, (row) => stationKey(row.stationId, row.quantity)),
  };
}

/**
 * The same for a round that is closed: what an edition spoke of when the round was measured is judged by it still,
 * though the edition in use does not speak of it any more. What is spoken of now is judged by what is said now.
 */
export function referencesOfClosed(rows: JobRows, chosen: ChosenReferences, closedAt: string): ChosenReferences {
  const firstOf = ({ id, editionOf }: Reference) => editionOf ?? id;
  const inUse = new Map(
    rows.references.filter((each) => each.inUse).map((reference) => [firstOf(reference), reference.edition]),
  );
  const former = rows.references.filter(
    (each) => !each.inUse && each.createdAt <= closedAt && each.edition < (inUse.get(firstOf(each)) ?? 0),
  );
  if (former.length === 0) return chosen;
  // Of each reference the last edition of that time.
  const last = new Map(former.toSorted((a, b) => a.edition - b.edition).map((each) => [firstOf(each), each]));
  const ids = new Set([...last.values()].map(({ id }) => id));
  const then = chooseReferences({
    ...rows,
    references: rows.references.filter(({ id }) => ids.has(id)).map((each) => ({ ...each, inUse: true })),
  });
  return {
    points: new Map([...then.points, ...chosen.points]),
    dimensions: new Map([...then.dimensions, ...chosen.dimensions]),
    stations: new Map([...then.stations, ...chosen.stations]),
  };
}

/** Where the reference a point is judged by has it. */
export function referencePosition(
  references: Pick<ChosenReferences, 'points'>,
  pointId: string,
): Position<'chart'> | undefined {
  const chosen = references.points.get(pointId);
  return chosen && positionOf(chosen.row);
}

export const positionOf = ({ x, y, z }: Pick<ReferencePoint, 'x' | 'y' | 'z'>): Position<'chart'> =>
  position([x, y, z]);

/** Where any edition or reference that is out of use had a point last: good to start from, not to judge by. */
export function formerPosition(
  rows: Pick<JobRows, 'references' | 'referencePoints'>,
  pointId: string,
): Position<'chart'> | undefined {
  const madeAt = new Map(rows.references.map(({ id, createdAt }) => [id, createdAt]));
  const had = rows.referencePoints
    .filter((row) => row.pointId === pointId)
    .sort((a, b) => (madeAt.get(b.referenceId) ?? '').localeCompare(madeAt.get(a.referenceId) ?? ''));
  return had[0] && positionOf(had[0]);
}

/** The chart's edition in use. */
export const chartOf = (rows: Pick<JobRows, 'references'>): Reference | undefined =>
  rows.references.find(({ kind, inUse }) => kind === 'chart' && inUse);
