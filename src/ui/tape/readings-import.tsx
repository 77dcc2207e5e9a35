'use client';

import { useMemo, useState } from 'react';
import type { JobRows } from '@/core/shell/job/job-rows';
import { counted } from '@/core/report/vocabulary/words';
import { typedUnit } from '@/formats/preferences';
import {
  MOST_READINGS,
  previewReadings,
  READING_COLUMNS,
  type ImportedReading,
  type ReadingColumn,
  type ReadingMapping,
  type ReadingsPreview,
  type ReadingsTable,
} from '@/formats/readings-import';
import { Button } from '../kit/button';
import { usePreferences } from '../shell/preferences-context';
import { subjectsOf } from './reading-lines';
import { Select } from '../kit/select';
import { useReadingsFile, type ReadingsFile } from './use-readings-file';

const COLUMN_WORD: Readonly<Record<ReadingColumn, string>> = {
  subject: 'Point or station',
  to: 'Second point',
  quantity: 'Quantity',
  value: 'Value',
  measure: 'Tip or level',
};
const MOST_SHOWN = 60;

/** Brings readings in from a CSV, a thousand at a time: columns matched, every row shown before anything is taken. */
export function ReadingsImport({ rows, onTake }: { rows: JobRows; onTake: (line: string) => void }) {
  const { preferences } = usePreferences();
  const file = useReadingsFile();
  const [mapping, setMapping] = useState<ReadingMapping>();
  const [taken, setTaken] = useState('');
  const subjects = useMemo(() => subjectsOf(rows), [rows]);
  const { table } = file;
  const unit = typedUnit(preferences);
  const preview = useMemo(
    () => (table ? previewReadings(table, subjects, unit, mapping) : undefined),
    [table, subjects, unit, mapping],
  );
  const take = (lines: readonly string[]) => {
    if (!table) return;
    lines.forEach(onTake);
    const after = table.before + MOST_READINGS;
    const left = Math.max(0, table.total - after);
    setTaken(
      `Taken: ${counted(lines.length, 'reading')}.${left > 0 ? ` ${counted(left, 'row')} of the file left.` : ''}`,
    );
    if (left > 0) return file.turn(after / MOST_READINGS);
    file.cancel();
    setMapping(undefined);
  };
  return (
    <section aria-label="Readings from a file" className="flex flex-col gap-2">
      <label className="flex min-h-11 flex-wrap items-center gap-3">
        <span className="caps">Readings from a CSV</span>
        <input
          type="file"
          accept=".csv,.txt"
          onChange={(event) => {
            setMapping(undefined);
            setTaken('');
            file.choose(event.target.files?.[0]);
          }}
        />
      </label>
      <p role="status">{taken}</p>
      <ReadingFile file={file} />
      {table && preview ? (
        <>
          <Columns {...preview} onChoose={setMapping} />
          {table.total > MOST_READINGS ? <Part table={table} onTurn={file.turn} /> : null}
          <Rows rows={preview.rows} onTake={take} />
        </>
      ) : null}
    </section>
  );
}

/** How far the file is read, with a way out, or why it cannot be read. */
function ReadingFile({ file: { share, fault, cancel } }: { file: ReadingsFile }) {
  if (fault) return <p role="alert">{fault}</p>;
  if (share === undefined) return null;
  return (
    <p className="flex items-center gap-3">
      <progress aria-label="Reading the file" value={share} className="h-2 w-60" />
      <span className="num">{Math.round(share * 100)} %</span>
      <Button onClick={cancel}>Stop</Button>
    </p>
  );
}

function Columns({
  headers,
  mapping,
  onChoose,
}: Pick<ReadingsPreview, 'headers' | 'mapping'> & { onChoose: (mapping: ReadingMapping) => void }) {
  return (
    <div className="grid gap-2 sm:grid-cols-5">
      {READING_COLUMNS.map((column) => (
        <label key={column} className="flex flex-col">
          <span className="caps">{COLUMN_WORD[column]}</span>
          <Select
            aria-label={COLUMN_WORD[column]}
            value={mapping[column]}
            onChange={(event) => onChoose({ ...mapping, [column]: Number(event.target.value) })}
            options={[[-1, 'none'], ...headers.map((header, i) => [i, header || `column ${i + 1}`] as const)]}
          />
        </label>
      ))}
    </div>
  );
}

/** Which thousand of a long file is in hand. */
function Part({ table, onTurn }: { table: ReadingsTable; onTurn: (part: number) => void }) {
  const part = table.before / MOST_READINGS;
  const last = Math.ceil(table.total / MOST_READINGS) - 1;
  return (
    <p className="flex flex-wrap items-center gap-3">
      <Button disabled={part === 0} onClick={() => onTurn(part - 1)}>
        Rows before
      </Button>
      <span>
        Rows {table.before + 1} to {table.before + table.cells.length} of {table.total}: a thousand at a time
      </span>
      <Button disabled={part === last} onClick={() => onTurn(part + 1)}>
        Rows after
      </Button>
    </p>
  );
}

/** The readings of the part in hand, those with a fault first. */
function Rows({ rows, onTake }: { rows: readonly ImportedReading[]; onTake: (lines: readonly string[]) => void }) {
  const faulty = rows.filter(({ fault }) => fault);
  const shown = [...faulty, ...rows.filter(({ fault }) => !fault)].slice(0, MOST_SHOWN);
  return (
    <>
      <p role="status" className="font-medium">
        {counted(rows.length, 'reading')},{' '}
        {faulty.length === 0 ? 'all sound' : `${faulty.length} with a fault: mend the file, or match the columns`}
      </p>
      <div
        className="max-h-60 overflow-auto border-y border-rule"
        tabIndex={0}
        role="region"
        aria-label="Preview of the readings"
      >
        <table className="ruled">
          <tbody>
            {shown.map(({ number, line, fault }) => (
              <tr key={number}>
                <td className="num">{number}</td>
                <td className="font-mono text-sm">{line}</td>
                <td className="text-minus">{fault}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <Button
        look="main"
        className="self-start"
        disabled={faulty.length > 0 || rows.length === 0}
        onClick={() => onTake(rows.map(({ line }) => line))}
      >
        Take all {rows.length}
      </Button>
    </>
  );
}
