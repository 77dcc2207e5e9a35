'use client';

import type { ColumnDef } from '@tanstack/react-table';
import { Link } from '../kit/link';
import { useMemo } from 'react';
import type { Point, Reference } from '@/core/shell/job/entities';
import type { Tables } from '@/core/shell/job/job-rows';
import type { PointUses } from '@/core/shell/point-uses';
import { chartOf } from '@/core/shell/references/chosen';
import { editionsOf } from '@/core/shell/references/editions';
import type { ChartCounts, ChartDimension, ChartFiles, ChartPoint } from '@/formats/inputs/chart';
import { Button } from '../kit/button';
import { Empty, Faults } from '../kit/faults';
import { useFormat } from '../shell/preferences-context';
import { useAction, type Action } from '../kit/use-action';
import { ChartImport, ChartTemplates } from './chart-import';
import { EditableTable } from './editable-table';
import { DimensionDialog } from './dimension-dialog';
import { PointDialog } from './point-dialog';
import type { ChartedDimension, ChartedPoint } from './row-form';
import { Tab, TabList, TabPanel, Tabs } from '../kit/tabs';

export interface ChartActions {
  readonly importChart: Action<ChartFiles, ChartCounts>;
  readonly addPoint: Action<ChartPoint>;
  readonly savePoint: Action<ChartPoint>;
  readonly removePoint: Action<string>;
  readonly restorePoint: Action<string>;
  readonly pointUses: Action<string, PointUses>;
  readonly addDimension: Action<ChartDimension>;
  readonly saveDimension: Action<ChartDimension>;
  readonly removeDimension: Action<string>;
}

/** What the chart's tables show. */
export type ChartRows = Tables<
  | 'jobs'
  | 'points'
  | 'dimensions'
  | 'memberLines'
  | 'seams'
  | 'seamStations'
  | 'references'
  | 'referencePoints'
  | 'referenceDimensions'
  | 'referenceStations'
>;

interface ChartPageProps {
  readonly rows: ChartRows;
  /** A closed round or a signed record rests on the edition in use. */
  readonly sealed: boolean;
  readonly actions: ChartActions;
}

/** The chart as a table to read, search and edit. */
export function ChartPage({ rows, sealed, actions }: ChartPageProps) {
  const format = useFormat();
  const jobId = rows.jobs[0]!.id;
  const reference = chartOf(rows);
  const points = useMemo(() => chartedPoints(rows, reference), [rows, reference]);
  const dimensions = useMemo(() => chartedDimensions(rows, reference), [rows, reference]);
  if (!reference)
    return (
      <div className="flex flex-col gap-3">
        <h1 className="text-2xl">Chart</h1>
        <Empty title="This job has no maker’s chart">
          Its references: {rows.references.map((each) => each.name).join(', ') || 'none'}. Points:{' '}
          {rows.points.map((point) => point.code).join(', ')}
        </Empty>
      </div>
    );
  return (
    <div className="flex flex-col gap-3">
      <div className="flex flex-wrap items-center gap-3">
        <h1 className="text-2xl">{reference.name}</h1>
        <span className="text-soft">
          {format.name(reference.source)}
          {reference.edition > 1 ? ` · edition ${reference.edition}` : ''}
        </span>
        <a href={`/api/jobs/${jobId}/chart`} className="ml-auto flex min-h-11 items-center underline">
          Chart as a file
        </a>
        <ChartImport rows={rows} referenceId={reference.id} importChart={actions.importChart} />
      </div>
      {sealed ? (
        <p className="text-sm">
          A closed round or a signed record rests on this edition: the next change makes edition{' '}
          {Math.max(...editionsOf(rows, reference).map(({ edition }) => edition)) + 1}, and this one stays as it is. Go
          back to it under References.
        </p>
      ) : null}
      {points.length === 0 ? (
        <Empty title="The chart is empty">
          Bring in a CSV, or add its points by hand; <ChartTemplates />. With nothing but a tape, go to Measure and type
          the first length: its points are made; or{' '}
          <Link className="underline" href={`/jobs/${jobId}/lay-out`}>
            lay out the first walk on a picture of a shell
          </Link>
          .
        </Empty>
      ) : null}
      <Tabs defaultValue="points">
        <TabList label="Chart" className="mb-3">
          <Tab value="points">Points ({points.length})</Tab>
          <Tab value="dimensions">Dimensions ({dimensions.length})</Tab>
        </TabList>
        <TabPanel value="points" tabIndex={-1} className="flex flex-col gap-2">
          <PointTable {...{ rows, reference, actions, points }} />
        </TabPanel>
        <TabPanel value="dimensions" tabIndex={-1} className="flex flex-col gap-2">
          <DimensionTable {...{ rows, reference, actions, dimensions }} />
        </TabPanel>
      </Tabs>
    </div>
  );
}

interface TableProps {
  readonly rows: ChartRows;
  readonly reference: Reference;
  readonly actions: ChartActions;
}

function PointTable({ rows, reference, actions, points }: TableProps & { points: readonly ChartedPoint[] }) {
  const format = useFormat();
  const jobId = rows.jobs[0]!.id;
  const columns = useMemo((): ColumnDef<ChartedPoint>[] => {
    const figure = (id: 'x' | 'y' | 'z' | 'tolerance', header: string): ColumnDef<ChartedPoint> => ({
      id,
      header,
      meta: 'num',
      accessorFn: (row) => row.reference?.[id],
      cell: (cell) => (cell.row.original.reference ? format.length(cell.getValue<number>()) : '–'),
      enableGlobalFilter: false,
    });
    return [
      { id: 'code', header: 'Point', accessorFn: (row) => row.point.code },
      { id: 'name', header: 'Name', accessorFn: (row) => format.name(row.point.name) },
      { id: 'side', header: 'Side', accessorFn: (row) => row.point.side },
      figure('x', 'Length'),
      figure('y', 'Width'),
      figure('z', `Height ${format.unit}`),
      figure('tolerance', 'Limit'),
      {
        id: 'edit',
        header: () => <span className="sr-only">Edit</span>,
        enableSorting: false,
        cell: ({ row: { original } }) => (
          <span className="flex">
            {original.retired ? <BringBack point={original.point} restorePoint={actions.restorePoint} /> : null}
            <PointDialog
              jobId={jobId}
              referenceId={reference.id}
              row={original}
              save={actions.savePoint}
              remove={actions.removePoint}
              uses={actions.pointUses}
            />
          </span>
        ),
      },
    ];
  }, [format, jobId, reference, actions]);
  return (
    <>
      <EditableTable rows={points} columns={columns} searchLabel="Search the points" />
      <div>
        <PointDialog jobId={jobId} referenceId={reference.id} save={actions.addPoint} />
      </div>
    </>
  );
}

/** Brings a retired point back into the chart. */
function BringBack({ point, restorePoint }: { point: Point; restorePoint: Action<string> }) {
  const { run, faults, pending } = useAction(restorePoint);
  return (
    <>
      <Button look="quiet" disabled={pending} onClick={() => run(point.id)} aria-label={`Bring ${point.code} back`}>
        Bring back
      </Button>
      <Faults faults={faults} />
    </>
  );
}

function DimensionTable({
  rows,
  reference,
  actions,
  dimensions,
}: TableProps & { dimensions: readonly ChartedDimension[] }) {
  const format = useFormat();
  const jobId = rows.jobs[0]!.id;
  const columns = useMemo(
    (): ColumnDef<ChartedDimension>[] => [
      { id: 'code', header: 'Dimension', accessorFn: (row) => row.dimension.code },
      { id: 'name', header: 'Name', accessorFn: (row) => format.name(row.dimension.name) },
      { id: 'ends', header: 'Between', accessorFn: (row) => `${row.from} – ${row.to}` },
      {
        id: 'measure',
        header: 'Measured',
        accessorFn: (row) => (row.dimension.measure === 'tip' ? 'tip to tip' : 'level'),
      },
      {
        id: 'value',
        header: `Length ${format.unit}`,
        meta: 'num',
        accessorFn: (row) => row.reference.value,
        cell: (cell) => format.length(cell.getValue<number>()),
        enableGlobalFilter: false,
      },
      {
        id: 'tolerance',
        header: 'Limit',
        meta: 'num',
        accessorFn: (row) => row.reference.tolerance,
        cell: (cell) => format.length(cell.getValue<number>()),
        enableGlobalFilter: false,
      },
      {
        id: 'edit',
        header: () => <span className="sr-only">Edit</span>,
        enableSorting: false,
        cell: (cell) => (
          <DimensionDialog
            jobId={jobId}
            referenceId={reference.id}
            row={cell.row.original}
            points={rows.points}
            save={actions.saveDimension}
            remove={actions.removeDimension}
          />
        ),
      },
    ],
    [format, jobId, reference, actions, rows.points],
  );
  return (
    <>
      <EditableTable rows={dimensions} columns={columns} searchLabel="Search the dimensions" />
      <div>
        <DimensionDialog jobId={jobId} referenceId={reference.id} points={rows.points} save={actions.addDimension} />
      </div>
    </>
  );
}

/** The points, each with the figures the reference has for it. */
function chartedPoints(rows: ChartRows, reference: Reference | undefined): ChartedPoint[] {
  const byPoint = new Map(
    rows.referencePoints.filter((row) => row.referenceId === reference?.id).map((row) => [row.pointId, row]),
  );
  const editions = new Set(reference ? editionsOf(rows, reference).map(({ id }) => id) : []);
  return rows.points.map((point) => {
    const row = byPoint.get(point.id);
    const retired =
      !row && rows.referencePoints.some((each) => each.pointId === point.id && editions.has(each.referenceId));
    return { id: point.id, point, ...(row ? { reference: row } : {}), retired };
  });
}

/** The dimensions a reference covers, each with its figures and the codes of its ends. */
function chartedDimensions(rows: ChartRows, reference: Reference | undefined): ChartedDimension[] {
  const codeOf = new Map(rows.points.map((point) => [point.id, point.code]));
  const byDimension = new Map(
    rows.referenceDimensions.filter((row) => row.referenceId === reference?.id).map((row) => [row.dimensionId, row]),
  );
  return rows.dimensions.flatMap((dimension) => {
    const row = byDimension.get(dimension.id);
    return row
      ? [
          {
            id: dimension.id,
            dimension,
            reference: row,
            from: codeOf.get(dimension.fromPointId)!,
            to: codeOf.get(dimension.toPointId)!,
          },
        ]
      : [];
  });
}
