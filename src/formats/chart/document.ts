import { chartOf } from '@/core/shell/references/chosen';
import { z } from 'zod';
import { checkDraft } from '@/core/shell/chart/check-draft';
import type { ChartDraft, KnownCodes } from '@/core/shell/chart/draft';
import { length, limit, measure, point, side } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { parseJson, parseShape, faultText, type Fault } from '../faults';
import { emptyDraft, type ChartPreview } from './csv';

const { code } = point.shape;
const name = point.shape.name.default('');
const target = z.strictObject({ value: length, tolerance: limit });

/** `vinkel.chart/1`: a maker's chart as a file, millimetres in chart axes. See docs/formats.md. */
const chartDocument = z.strictObject({
  format: z.literal('vinkel.chart/1'),
  name: z.string().optional(),
  source: z.string().optional(),
  points: z.array(
    z.strictObject({
      code,
      name,
      side,
      x: length,
      y: length,
      z: length,
      tolerance: limit.default(3),
      holeDiameter: point.shape.holeDiameter.default(null),
    }),
  ),
  dimensions: z
    .array(
      z.strictObject({
        code,
        name,
        from: code,
        to: code,
        value: length.positive(),
        tolerance: limit.default(3),
        measure: measure.default('tip'),
      }),
    )
    .default([]),
  lines: z.array(z.tuple([code, code])).default([]),
  seams: z
    .array(
      z.strictObject({
        code,
        name,
        side,
        pairing: name,
        stations: z.array(
          z.strictObject({ number: z.int().min(1).max(99), name, gap: target.optional(), flush: target.optional() }),
        ),
      }),
    )
    .default([]),
});

export type ChartDocument = z.infer<typeof chartDocument>;

/** Reads a `vinkel.chart/1` file for the preview: every fault at its place. */
export function readChartJson(text: string, here: KnownCodes): ChartPreview {
  const json = parseJson(text);
  const shape = json.ok ? parseShape(chartDocument, json.value) : json;
  if (!shape.ok) return { draft: emptyDraft(), rows: [], faults: shape.faults.map(faultText) };
  const { points, dimensions, lines, seams } = shape.value;
  const draft: ChartDraft = { points, dimensions, lines, seams };
  const faults = checkDraft(draft, here).map(({ list, index, field, message }): Fault => ({
    path: `${list}[${index}].${field}`,
    message,
  }));
  return {
    draft,
    rows: [
      ...points.map((point, i) => ({
        line: i + 1,
        text: `${point.code}  ${point.name}`,
        path: `points[${i}].`,
      })),
      ...dimensions.map((each, i) => ({
        line: i + 1,
        text: `${each.code}  ${each.from} – ${each.to}`,
        path: `dimensions[${i}].`,
      })),
      ...seams.map((seam, i) => ({
        line: i + 1,
        text: `${seam.code}  ${seam.name}`,
        path: `seams[${i}].`,
      })),
    ].map(({ path, ...row }) => ({
      ...row,
      file: path.slice(0, path.indexOf('[')),
      faults: faults.filter((fault) => fault.path.startsWith(path)).map((fault) => fault.message),
    })),
    faults: faults.filter((fault) => fault.path.startsWith('lines')).map(faultText),
  };
}

/** The best-ranked chart of a job as a document. */
export function chartDocumentOf(rows: JobRows): ChartDocument {
  const reference = chartOf(rows);
  const codeOf = new Map(rows.points.map((point) => [point.id, point.code]));
  const ofReference = <Row extends { referenceId: string }>(list: readonly Row[]) =>
    list.filter((row) => row.referenceId === reference?.id);
  const pointRows = new Map(ofReference(rows.referencePoints).map((row) => [row.pointId, row]));
  const dimensionRows = new Map(ofReference(rows.referenceDimensions).map((row) => [row.dimensionId, row]));
  const stationRows = ofReference(rows.referenceStations);
  return {
    format: 'vinkel.chart/1',
    name: reference?.name,
    source: reference?.source,
    points: rows.points.flatMap(({ id, code, name, side, holeDiameter }) => {
      const row = pointRows.get(id);
      return row ? [{ code, name, side, x: row.x, y: row.y, z: row.z, tolerance: row.tolerance, holeDiameter }] : [];
    }),
    dimensions: rows.dimensions.flatMap(({ id, code, name, fromPointId, toPointId, measure }) => {
      const row = dimensionRows.get(id);
      const ends = { from: codeOf.get(fromPointId)!, to: codeOf.get(toPointId)! };
      return row ? [{ code, name, ...ends, value: row.value, tolerance: row.tolerance, measure }] : [];
    }),
    lines: rows.memberLines.map((line) => [codeOf.get(line.fromPointId)!, codeOf.get(line.toPointId)!]),
    seams: rows.seams.map(({ id, code, name, side, pairing }) => ({
      code,
      name,
      side,
      pairing,
      stations: rows.seamStations
        .filter((station) => station.seamId === id)
        .map((station) => ({ number: station.number, name: station.name, ...targetsOf(station.id) })),
    })),
  };

  function targetsOf(stationId: string) {
    const targets = stationRows.filter((row) => row.stationId === stationId);
    return Object.fromEntries(targets.map((row) => [row.quantity, { value: row.value, tolerance: row.tolerance }]));
  }
}
