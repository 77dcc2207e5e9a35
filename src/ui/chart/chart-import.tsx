'use client';

import { Upload } from 'lucide-react';
import { useState } from 'react';
import { compareChart, unlikelySize, type ChartChange, type UnlikelySize } from '@/core/shell/chart/compare';
import { knownCodes, type Charted } from '@/core/shell/chart/draft';
import type { Tables } from '@/core/shell/job/job-rows';
import type { LengthUnit } from '@/core/maths/units/length';
import { counted } from '@/core/report/vocabulary/words';
import { readChartCsv, type ChartPreview } from '@/formats/chart/csv';
import { readChartJson } from '@/formats/chart/document';
import type { ChartCounts, ChartFiles } from '@/formats/inputs/chart';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { SelectField } from '../kit/field';
import { useAction, type Action } from '../kit/use-action';
import { FromShops } from '../shared/from-shops';
import { useFormat, usePreferences } from '../shell/preferences-context';

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
type Taking = Charted & Tables<'jobs' | 'referencePoints' | 'referenceDimensions' | 'referenceStations'>;

const UNITS = [
  ['mm', 'millimetres'],
  ['cm', 'centimetres'],
  ['m', 'metres'],
  ['in', 'inches'],
  ['ft', 'feet'],
] as const;

interface Importing {
  readonly rows: Taking;
  /** The edition of the chart in use. */
  readonly referenceId: string;
  readonly importChart: Action<ChartFiles, ChartCounts>;
}

/** Brings in a chart, or a corrected one again: what it changes is shown first; all of it is taken or nothing. */
export function ChartImport(importing: Importing) {
  const [taken, setTaken] = useState('');
  return (
    <>
      <FormDialog
        wide
        title="Bring in a chart"
        description="CSV of points, CSV of dimensions, or both at once; or a vinkel.chart/1 file"
        trigger={
          <Button onClick={() => setTaken('')}>
            <Upload size={18} aria-hidden /> Bring in a chart
          </Button>
        }
      >
        {(close) => (
          <ImportForm
            {...importing}
            done={(counts) => {
              setTaken(countsText(counts));
              close();
            }}
          />
        )}
      </FormDialog>
      <p role="status" className="text-sm">
        {taken}
      </p>
    </>
  );
}

const countsText = ({ changed, gone, same, ...counts }: ChartCounts) =>
  counts.new + changed + gone === 0
    ? `The chart says nothing new: ${same} the same.`
    : `Taken: ${counts.new} new, ${changed} changed, ${gone} gone, ${same} the same.`;

function ImportForm({ rows, referenceId, importChart, done }: Importing & { done: (counts: ChartCounts) => void }) {
  const { preferences, format } = usePreferences();
  const [identity] = useState(() => crypto.randomUUID());
  const [files, setFiles] = useState<readonly PickedFile[]>([]);
  const [unit, setUnit] = useState<LengthUnit>(preferences.units === 'mm' ? 'mm' : 'in');
  const [asItSays, setAsItSays] = useState(false);
  const { run, faults, pending } = useAction(importChart);
  const preview = files.length > 0 ? previewOf(files, unit, rows) : undefined;
  const faulty = preview ? preview.faults.length + preview.rows.filter((row) => row.faults.length > 0).length : 0;
  const isJson = files.some(({ name }) => /\.json$/i.test(name));
  const odd = preview && faulty === 0 ? unlikelySize(preview.draft, isJson ? 'mm' : unit) : undefined;
  const take = async () => {
    const outcome = await run({ jobId: rows.jobs[0]!.id, files: [...files], unit, asItSays }, identity);
    if (outcome.ok) done(outcome.value);
  };
  return (
    <>
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
          options={UNITS.map(([each, word]) => [each, format.name(word)])}
        />
      </div>
      <p className="text-sm">
        <ChartTemplates />
      </p>
      <FromShops kind="chart" onFile={(file) => setFiles([file])} />
      {preview && faulty > 0 ? <PreviewTable preview={preview} faulty={faulty} /> : null}
      {preview && faulty === 0 ? (
        <Changes rows={preview.rows.length} changes={compareChart(preview.draft, rows, referenceId)} />
      ) : null}
      {odd ? <OddSize {...{ odd, asItSays, setAsItSays, setUnit }} /> : null}
      <Faults faults={faults} title="Nothing was taken" />
      <Button
        look="main"
        disabled={!preview || faulty > 0 || pending || (odd !== undefined && !asItSays)}
        onClick={take}
        className="self-start"
      >
        {pending ? 'Taking …' : preview ? `Take all ${preview.rows.length} rows` : 'Choose a file first'}
      </Button>
    </>
  );
}

interface Asking {
  readonly odd: UnlikelySize;
  readonly asItSays: boolean;
  readonly setAsItSays: (so: boolean) => void;
  readonly setUnit: (unit: LengthUnit) => void;
}

/** Asks about a chart of a size no shell has, with the units in which it would make sense. */
function OddSize({ odd, asItSays, setAsItSays, setUnit }: Asking) {
  const format = useFormat();
  return (
    <div role="alert" className="flex flex-col gap-2 border-l-4 border-minus bg-sheet p-3">
      <p>
        A shell of {format.length(odd.length)} {format.unit} from end to end?
        {odd.units.length > 0 ? ' Perhaps its bare numbers are in another unit.' : ''}
      </p>
      <div className="flex flex-wrap gap-3">
        {odd.units.map((each) => (
          <Button key={each} onClick={() => setUnit(each)}>
            Read it in {format.name(UNITS.find(([unit]) => unit === each)![1])}
          </Button>
        ))}
        <label className="flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="size-5"
            checked={asItSays}
            onChange={(event) => setAsItSays(event.target.checked)}
          />
          it is as it says
        </label>
      </div>
    </div>
  );
}

const KIND_ORDER = ['changed', 'gone', 'new', 'same'] as const;

/** What taking the chart would change, against the edition in use. */
function Changes({ rows, changes }: { rows: number; changes: readonly ChartChange[] }) {
  const format = useFormat();
  const of = (kind: ChartChange['kind']) => changes.filter((each) => each.kind === kind);
  const value = (each: number | string) => (typeof each === 'number' ? format.length(each) : format.name(each) || '–');
  const telling = KIND_ORDER.filter((kind) => kind !== 'same').flatMap(of);
  return (
    <div>
      <p role="status" className="font-medium">
        {counted(rows, 'row')}, all sound: {of('new').length} new, {of('changed').length} changed, {of('gone').length}{' '}
        gone, {of('same').length} the same
      </p>
      {of('gone').length > 0 ? (
        <p className="text-sm">
          What is gone is not judged by the next edition; its readings and the rounds measured with it stay as they are.
        </p>
      ) : null}
      <div
        className="max-h-72 overflow-auto border-y border-rule"
        tabIndex={0}
        role="region"
        aria-label="What would change"
      >
        <table className="ruled">
          <tbody>
            {telling.slice(0, MOST_SHOWN).map(({ list, code, kind, fields }) => (
              <tr key={`${list} ${code}`} data-kind={kind}>
                <td className="font-medium">{code}</td>
                <td>{kind}</td>
                <td>
                  {fields.map(({ field, before, after }) => `${field} ${value(before)} → ${value(after)}`).join('; ')}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </div>
  );
}

function previewOf(files: readonly PickedFile[], unit: LengthUnit, rows: Taking): ChartPreview {
  const here = knownCodes(rows);
  const json = files.find((file) => /\.json$/i.test(file.name));
  return json
    ? readChartJson(json.text, here)
    : readChartCsv(files, { unit, driverSide: rows.jobs[0]!.driverSide }, here);
}

function PreviewTable({ preview, faulty }: { preview: ChartPreview; faulty: number }) {
  const sorted = [...preview.rows].sort((a, b) => Number(b.faults.length > 0) - Number(a.faults.length > 0));
  return (
    <div>
      <p role="status" className="font-medium">
        {counted(preview.rows.length, 'row')}, {faulty} with a fault: mend the file and choose it again
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
