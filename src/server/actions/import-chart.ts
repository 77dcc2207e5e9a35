'use server';

import { compareChart, unlikelySize, type ChartChange } from '@/core/shell/chart/compare';
import { chartRows, fold, knownCodes, type ChartDraft, type ChartRows } from '@/core/shell/chart/draft';
import type { JobRows, JobTable } from '@/core/shell/job/job-rows';
import { chartOf } from '@/core/shell/references/chosen';
import type { Queryable } from '@/db/database';
import { loadJob } from '@/db/jobs';
import { insert } from '@/db/table';
import { readChartCsv, type ChartPreview } from '@/formats/chart/csv';
import { readChartJson } from '@/formats/chart/document';
import * as input from '@/formats/inputs/chart';
import { done, failed } from '@/formats/outcome';
import { edit } from '../edit';
import { useCase, type Context } from '../use-case';
import { writableChart } from '../writable-chart';

/**
 * Imports a chart, all of it or nothing. Where the job has figures already it becomes the next edition: what the file
 * says is new or changed, what it does not say any more of a list it holds is gone, and points keep their readings.
 */
export const importChart = useCase(input.chartFiles, ({ jobId, files, unit, asItSays }, context) =>
  context.database.transaction(async (tx) => {
    const rows = await loadJob(tx, jobId);
    if (!rows) return failed('job', 'this job is not here any more');
    const chart = chartOf(rows);
    if (!chart) return failed('job', 'this job has no chart: make one under References');
    const here = knownCodes(rows);
    const json = files.find((file) => /\.json$/i.test(file.name));
    const { draft, ...preview }: ChartPreview = json
      ? readChartJson(json.text, here)
      : readChartCsv(files, { unit, driverSide: rows.jobs[0]!.driverSide }, here);
    const faults = [
      ...preview.faults.map((message) => ({ path: 'file', message })),
      ...preview.rows.flatMap((row) =>
        row.faults.map((message) => ({ path: `${row.file} line ${row.line}`, message })),
      ),
    ];
    if (faults.length > 0) return { ok: false as const, faults };
    const odd = unlikelySize(draft, json ? 'mm' : unit);
    if (odd && !asItSays)
      return failed('unit', 'no shell has this size: say in which unit the file is, or that it is so');
    const changes = compareChart(draft, rows, chart.id);
    const counts = countsOf(changes);
    if (changes.length > 0 && counts.new + counts.changed + counts.gone === 0) return done(counts);
    const before = figuresOf(rows, chart.id);
    const figures = draft.points.length + draft.dimensions.length + draft.seams.length > 0;
    const again = figures && before.points.length + before.dimensions.length + before.stations.length > 0;
    const target = figures ? (await writableChart(tx, rows, again))! : chart;
    if (again) await dropSpokenOf(tx, draft, target.id);
    const made = chartRows(draft, { jobId, referenceId: target.id }, rows, context.newId);
    for (const [table, list] of Object.entries(withFormerSd(made, before)))
      await insert(tx, table as JobTable, list as never[]);
    await renameAsCharted(tx, draft, rows, context);
    return done(counts);
  }),
);

const countsOf = (changes: readonly ChartChange[]) => {
  const of = (kind: ChartChange['kind']) => changes.filter((each) => each.kind === kind).length;
  return { new: of('new'), changed: of('changed'), gone: of('gone'), same: of('same') };
};

/** What an edition says. */
function figuresOf(rows: JobRows, referenceId: string) {
  const own = <Row extends { readonly referenceId: string }>(list: readonly Row[]) =>
    list.filter((row) => row.referenceId === referenceId);
  return {
    points: own(rows.referencePoints),
    dimensions: own(rows.referenceDimensions),
    stations: own(rows.referenceStations),
  };
}

/** Takes out of a fresh edition the lists a file speaks of: it says them anew. */
async function dropSpokenOf(tx: Queryable, draft: ChartDraft, referenceId: string): Promise<void> {
  const tables = [
    ['reference_point', draft.points.length],
    ['reference_dimension', draft.dimensions.length],
    ['reference_station', draft.seams.length],
  ] as const;
  for (const [table, spoken] of tables)
    if (spoken > 0) await tx.query(`delete from ${table} where reference_id = $1`, [referenceId]);
}

/** A figure keeps the uncertainty it was given by hand: files do not speak of it. */
function withFormerSd(made: ChartRows, before: ReturnType<typeof figuresOf>): ChartRows {
  const sdOf = new Map<string, number | null>([
    ...before.points.map(({ pointId, sd }) => [pointId, sd] as const),
    ...before.dimensions.map(({ dimensionId, sd }) => [dimensionId, sd] as const),
    ...before.stations.map(({ stationId, quantity, sd }) => [`${stationId} ${quantity}`, sd] as const),
  ]);
  return {
    ...made,
    referencePoints: made.referencePoints.map((row) => ({ ...row, sd: sdOf.get(row.pointId) ?? null })),
    referenceDimensions: made.referenceDimensions.map((row) => ({ ...row, sd: sdOf.get(row.dimensionId) ?? null })),
    referenceStations: made.referenceStations.map((row) => ({
      ...row,
      sd: sdOf.get(`${row.stationId} ${row.quantity}`) ?? null,
    })),
  };
}

/** Names, sides and ends of what was here already become what the chart says. */
async function renameAsCharted(tx: Queryable, draft: ChartDraft, rows: JobRows, context: Context): Promise<void> {
  const batch = context.newId();
  const here = <Row extends { readonly code: string }>(list: readonly Row[], code: string) =>
    list.find((row) => fold(row.code) === fold(code));
  const now = await loadJob(tx, rows.jobs[0]!.id);
  for (const { code, name, side } of [...draft.points, ...(draft.named ?? [])]) {
    const point = here(rows.points, code);
    if (point && (point.name !== name || point.side !== side))
      await edit(tx, 'points', { ...point, name, side }, context, batch);
  }
  for (const { code, name, from, to, measure } of draft.dimensions) {
    const dimension = here(rows.dimensions, code);
    if (!dimension) continue;
    const ends = { fromPointId: here(now!.points, from)!.id, toPointId: here(now!.points, to)!.id };
    const said = { ...dimension, name, measure, ...ends };
    if (JSON.stringify(said) !== JSON.stringify(dimension)) await edit(tx, 'dimensions', said, context, batch);
  }
  for (const { code, name, side, pairing } of draft.seams) {
    const seam = here(rows.seams, code);
    if (seam && (seam.name !== name || seam.side !== side || seam.pairing !== pairing))
      await edit(tx, 'seams', { ...seam, name, side, pairing }, context, batch);
  }
}
