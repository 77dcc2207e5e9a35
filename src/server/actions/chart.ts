'use server';

import type { JobRows, RowOf } from '@/core/shell/job/job-rows';
import { chartOf } from '@/core/shell/references/chosen';
import { isUsed, usesOfPoint } from '@/core/shell/point-uses';
import { editionsOf, isSealed } from '@/core/shell/references/editions';
import type { Database, Queryable } from '@/db/database';
import { loadJob } from '@/db/jobs';
import { insert, rowById, update, type EditableTable } from '@/db/table';
import * as input from '@/formats/inputs/chart';
import { done, failed, type Outcome } from '@/formats/outcome';
import { edit, overtaken } from '../edit';
import { measuringCase, useCase } from '../use-case';
import { onChart, writableChart } from '../writable-chart';

/** A figure on the edition that may be written: the copy of the row it was on, as that row's copy is versioned. */
const onEdition = <Row extends { id: string; referenceId: string; version: number }>(
  row: Row,
  { id, copyOf }: { id: string; copyOf: ReadonlyMap<string, string> },
): Row => {
  const copy = copyOf.get(row.id);
  return copy ? { ...row, id: copy, referenceId: id, version: 1 } : { ...row, referenceId: id };
};

/** Adds a point with its chart position. */
export const addPoint = useCase(input.chartPoint, async ({ point, reference }, { database }) => {
  if (reference)
    return onChart(database, point.jobId, async (tx, chart) => {
      await insert(tx, 'points', [point]);
      await insert(tx, 'referencePoints', [onEdition(reference, chart)]);
    });
  await insert(database, 'points', [point]);
  return done(null);
});

export const addDimension = useCase(input.chartDimension, ({ dimension, reference }, { database }) =>
  onChart(database, dimension.jobId, async (tx, chart) => {
    await insert(tx, 'dimensions', [dimension]);
    await insert(tx, 'referenceDimensions', [onEdition(reference, chart)]);
  }),
);

/** Thrown to undo a transaction whose row somebody else changed first. */
class Stale extends Error {}

async function updateOrStop<T extends EditableTable>(tx: Queryable, table: T, row: RowOf<T>): Promise<RowOf<T>> {
  const result = await update(tx, table, row);
  if (!result.ok) throw new Stale();
  return result.row;
}

/**
 * Writes a thing and its chart figure, edited as one line of a table, both or neither. Where somebody else
 * came first, `current` holds both as they are now.
 */
async function saveTogether<A extends 'points' | 'dimensions', B extends 'referencePoints' | 'referenceDimensions'>(
  database: Database,
  [tableA, rowA]: readonly [A, RowOf<A>],
  [tableB, rowB]: readonly [B, RowOf<B>],
): Promise<Outcome> {
  try {
    return await onChart(database, rowA.jobId, async (tx, chart) => {
      await updateOrStop(tx, tableA, rowA);
      // A row of an edition that is out of use by now was read before somebody else's edit.
      if (rowB.referenceId !== chart.id && !chart.copyOf.has(rowB.id)) throw new Stale();
      await updateOrStop(tx, tableB, onEdition(rowB, chart));
    });
  } catch (error) {
    if (!(error instanceof Stale)) throw error;
    const thing = await rowById(database, tableA, rowA.id);
    const reference = figureInUse(await loadJob(database, rowA.jobId), tableB, rowA.id);
    return {
      ...failed('row', 'somebody else changed this row meanwhile; your text is kept'),
      current: { thing: thing ?? null, reference: reference ?? null },
    };
  }
}

/** What the edition in use says of a point or dimension now. */
function figureInUse(
  rows: JobRows | undefined,
  table: 'referencePoints' | 'referenceDimensions',
  subjectId: string,
): unknown {
  const chart = rows && chartOf(rows);
  return rows?.[table].find(
    (row) => row.referenceId === chart?.id && ('pointId' in row ? row.pointId : row.dimensionId) === subjectId,
  );
}

/** Writes an edited point and its chart position, unless somebody else came first. */
export const savePoint = useCase(input.chartPoint, async ({ point, reference }, { database }) => {
  if (!reference) return saveBare(database, point);
  const known = await database.query('select id from reference_point where id = $1', [reference.id]);
  if (known.length > 0) return saveTogether(database, ['points', point], ['referencePoints', reference]);
  // The chart said nothing of it before.
  const saved = await saveBare(database, point);
  if (!saved.ok) return saved;
  return onChart(database, point.jobId, async (tx, chart) => {
    await insert(tx, 'referencePoints', [onEdition(reference, chart)]);
  });
});

async function saveBare(database: Database, point: RowOf<'points'>): Promise<Outcome> {
  const result = await update(database, 'points', point);
  if (result.ok) return done(null);
  return {
    ...failed('row', 'somebody else changed this row meanwhile; your text is kept'),
    current: { thing: result.current ?? null, reference: null },
  };
}

export const saveDimension = useCase(input.chartDimension, ({ dimension, reference }, { database }) =>
  saveTogether(database, ['dimensions', dimension], ['referenceDimensions', reference]),
);

/** What rests on a point, to be seen before it is taken out. */
export const pointUses = measuringCase(input.subjectId, async (id, { database }) => {
  const point = await rowById(database, 'points', id);
  const rows = point && (await loadJob(database, point.jobId));
  return rows ? done(usesOfPoint(rows, id)) : failed('point', 'this point is not here any more');
});

/**
 * Removes a point that nothing rests on yet. One that something does rest on is retired: the next edition of the chart
 * says nothing of it, the edition before keeps its figure, and its readings stay what they were.
 */
export const removePoint = useCase(input.subjectId, async (id, { database }) => {
  const point = await rowById(database, 'points', id);
  const rows = point && (await loadJob(database, point.jobId));
  if (!rows || !isUsed(usesOfPoint(rows, id))) return removeSubject(database, 'point', id);
  const inUse = chartOf(rows)?.id;
  // It is retired already.
  if (!rows.referencePoints.some((row) => row.pointId === id && row.referenceId === inUse)) return done(null);
  return database.transaction(async (tx) => {
    const chart = await writableChart(tx, rows, true);
    await tx.query('delete from reference_point where reference_id = $1 and point_id = $2', [chart?.id, id]);
    return done(null);
  });
});

/** Brings a retired point back into the chart, with the figure the last edition had that spoke of it. */
export const restorePoint = useCase(input.subjectId, async (id, { database, newId }) => {
  const point = await rowById(database, 'points', id);
  const rows = point && (await loadJob(database, point.jobId));
  const chart = rows && chartOf(rows);
  if (!chart) return failed('point', 'this point is not here any more');
  const editions = editionsOf(rows, chart);
  const former = editions.flatMap(({ id: referenceId }) =>
    rows.referencePoints.filter((row) => row.pointId === id && row.referenceId === referenceId),
  );
  const last = former.at(-1);
  if (!last) return failed('point', 'no edition of the chart ever spoke of this point: give it its coordinates');
  // It is back already.
  if (last.referenceId === chart.id) return done(null);
  return onChart(database, point.jobId, async (tx, { id: referenceId }) => {
    await insert(tx, 'referencePoints', [{ ...last, id: newId(), referenceId, version: 1 }]);
  });
});

export const removeDimension = useCase(input.subjectId, (id, { database }) => removeSubject(database, 'dimension', id));

async function removeSubject(database: Database, table: 'point' | 'dimension', id: string): Promise<Outcome> {
  return database.transaction(async (tx) => {
    const [found] = await tx.query<{ jobId: string }>(`select job_id from ${table} where id = $1`, [id]);
    const rows = found && (await loadJob(tx, found.jobId));
    // Somebody else removed it first: it is gone, as wanted.
    if (!rows) return done(null);
    const figures = (table === 'point' ? rows.referencePoints : rows.referenceDimensions).filter(
      (row) => ('pointId' in row ? row.pointId : row.dimensionId) === id,
    );
    const judgedBy = rows.references.filter((each) => figures.some(({ referenceId }) => referenceId === each.id));
    if (judgedBy.some((each) => isSealed(each, rows))) {
      const chart = await writableChart(tx, rows);
      await tx.query(`delete from reference_${table} where reference_id = $1 and ${table}_id = $2`, [chart?.id, id]);
      return done(null);
    }
    await tx.query(`delete from reference_${table} where ${table}_id = $1`, [id]);
    // A line is drawn for orientation: it goes with its end.
    if (table === 'point') await tx.query('delete from member_line where from_point_id = $1 or to_point_id = $1', [id]);
    await tx.query(`delete from ${table} where id = $1`, [id]);
    return done(null);
  });
}

/** Adds a seam with its stations; their targets go to the edition of the chart that may be written. */
export const addSeam = useCase(input.newSeam, async ({ seam, stations, targets }, { database }) => {
  const addTo = async (tx: Queryable) => {
    await insert(tx, 'seams', [seam]);
    await insert(tx, 'seamStations', stations);
  };
  if (targets.length > 0)
    return onChart(database, seam.jobId, async (tx, { id: referenceId }) => {
      await addTo(tx);
      await insert(
        tx,
        'referenceStations',
        targets.map((target) => ({ ...target, referenceId })),
      );
    });
  await database.transaction(addTo);
  return done(null);
});

/** Corrects a seam, and what is wanted along it; how it was stays in the record of changes. */
export const correctSeam = useCase(input.correctedSeam, async ({ seam, wanted }, context) => {
  const { database } = context;
  if (!wanted)
    return database.transaction(async (tx) => {
      const result = await edit(tx, 'seams', seam, context);
      return result.ok ? done(null) : overtaken(result.current);
    });
  try {
    return await onChart(database, seam.jobId, async (tx, { id: referenceId }) => {
      const result = await edit(tx, 'seams', seam, context);
      if (!result.ok) throw new Stale();
      await tx.query(
        `update reference_station set value = $2, tolerance = $3, version = version + 1
         where reference_id = $1 and quantity = 'gap'
           and station_id in (select id from seam_station where seam_id = $4)`,
        [referenceId, wanted.gap, wanted.limit, seam.id],
      );
    });
  } catch (error) {
    if (!(error instanceof Stale)) throw error;
    return overtaken(await rowById(database, 'seams', seam.id));
  }
});
