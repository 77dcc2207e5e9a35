'use client';

import { Upload } from 'lucide-react';
import { useState } from 'react';
import { takenCodes } from '@/core/shell/chart/draft';
import type { Tables } from '@/core/shell/job/job-rows';
import type { LengthUnit } from '@/core/maths/units/length';
import { counted } from '@/core/report/vocabulary/words';
import { readChartCsv, type ChartPreview } from '@/formats/chart/csv';
import { readChartJson } from '@/formats/chart/document';
import type { ChartFiles } from '@/formats/inputs/chart';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { SelectField } from '../kit/field';
import { useAction, type Action } from '../kit/use-action';

interface PickedFile {
  readonly name: string;
  readonly text: string;
}

const MOST_SHOWN = 400;

/** Where the files to fill in are. */
export const ChartTemplates = () => (
  <>
    templates:{' '}
    <a className="underline" href="/api/templates/points">
      points.csv
    </a>
    ,{' '}
    <a className="underline" href="/api/templates/dimensions">
      dimensions.csv
    </a>
  </>
);

/** What an import looks at before it takes anything. */
type Taking = Tables<'jobs' | 'points' | 'dimensions' | 'seams'>;

/** Brings in a chart: every row is shown with its faults first; all of it is taken or nothing. */
export function ChartImport({
  rows,
  importChart,
}: {
  rows: Taking;
  importChart: Action<ChartFiles, { points: number; dimensions: number; seams: number }>;
}) {
  const [open, setOpen] = useState(false);
  const [files, setFiles] = useState<readonly PickedFile[]>([]);
  const [unit, setUnit] = useState<LengthUnit>('mm');
  const [taken, setTaken] = useState('');
  const { run, faults, pending, clear } = useAction(importChart);
  const preview = files.length > 0 ? previewOf(files, unit, rows) : undefined;
  const faulty = preview ? preview.faults.length + preview.rows.filter((row) => row.faults.length > 0).length : 0;
  const take = async () => {
    const outcome = await run({ jobId: rows.jobs[0]!.id, files: [...files], unit });
    if (!outcome.ok) return;
    const { points, dimensions, seams } = outcome.value;
    setTaken(`Taken: ${counted(points, 'point')}, ${counted(dimensions, 'dimension')}, ${counted(seams, 'seam')}.`);
    setFiles([]);
    setOpen(false);
  };
  return (
    <>
      <Dialog
        wide
        title="Bring in a chart"
        description="CSV of points, CSV of dimensions, or both at once; or a vinkel.chart/1 file"
        open={open}
        onOpenChange={(next) => {
          setOpen(next);
          clear();
        }}
        trigger={
          <Button>
            <Upload size={18} aria-hidden /> Bring in a chart
          </Button>
        }
      >
        <div className="grid gap-3 sm:grid-cols-[1fr_14rem]">
          <label className="flex min-h-11 items-center gap-3">
            <span className="caps">Files</span>
            <input
              type="file"
              multiple
              accept=".csv,.txt,.json"
              onChange={async (event) =>
                setFiles(
                  await Promise.all(
                    [...(event.target.files ?? [])].map(async (file) => ({ name: file.name, text: await file.text() })),
                  ),
                )
              }
            />
          </label>
          <SelectField
            label="Unit of bare numbers"
            value={unit}
            onChange={(event) => setUnit(event.target.value as LengthUnit)}
            options={[
              ['mm', 'millimetres'],
              ['cm', 'centimetres'],
              ['m', 'metres'],
              ['in', 'inches'],
            ]}
          />
        </div>
        <p className="text-sm">
          <ChartTemplates />
        </p>
        {preview ? <PreviewTable preview={preview} faulty={faulty} /> : null}
        <Faults faults={faults} title="Nothing was taken" />
        <Button look="main" disabled={!preview || faulty > 0 || pending} onClick={take} className="self-start">
          {pending ? 'Taking …' : preview ? `Take all ${preview.rows.length} rows` : 'Choose a file first'}
        </Button>
      </Dialog>
      <p role="status" className="text-sm">
        {taken}
      </p>
    </>
  );
}

function previewOf(files: readonly PickedFile[], unit: LengthUnit, rows: Taking): ChartPreview {
  const taken = takenCodes(rows);
  const json = files.find((file) => /\.json$/i.test(file.name));
  return json
    ? readChartJson(json.text, taken)
    : readChartCsv(files, { unit, driverSide: rows.jobs[0]!.driverSide }, taken);
}

function PreviewTable({ preview, faulty }: { preview: ChartPreview; faulty: number }) {
  const sorted = [...preview.rows].sort((a, b) => Number(b.faults.length > 0) - Number(a.faults.length > 0));
  return (
    <div>
      <p role="status" className="font-medium">
        {counted(preview.rows.length, 'row')},{' '}
        {faulty === 0 ? 'all sound' : `${faulty} with a fault: mend the file and choose it again`}
      </p>
      {preview.faults.map((fault) => (
        <p key={fault} role="alert" className="text-minus">
          {fault}
        </p>
      ))}
      <div
        className="max-h-72 overflow-auto border-y border-rule"
        tabIndex={0}
        role="region"
        aria-label="Preview of the rows"
      >
        <table className="ruled">
          <thead>
            <tr>
              <th>File</th>
              <th className="num">Line</th>
              <th>Row (mm)</th>
              <th>Fault</th>
            </tr>
          </thead>
          <tbody>
            {sorted.slice(0, MOST_SHOWN).map((row, i) => (
              <tr key={i} className={row.faults.length > 0 ? 'font-medium' : ''}>
                <td>{row.file}</td>
                <td className="num">{row.line}</td>
                <td className="font-mono text-sm whitespace-pre">{row.text}</td>
                <td className="text-minus">{row.faults.join('; ')}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {sorted.length > MOST_SHOWN ? (
        <p className="text-sm text-soft">
          the first {MOST_SHOWN} of {sorted.length}; faulty rows first
        </p>
      ) : null}
    </div>
  );
}
