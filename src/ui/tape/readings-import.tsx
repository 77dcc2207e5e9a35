'use client';

import { useMemo, useState } from 'react';
import type { JobRows } from '@/core/shell/job/job-rows';
import { counted } from '@/core/report/vocabulary/words';
import { typedUnit } from '@/formats/preferences';
import {
  MOST_READINGS,
  READING_COLUMNS,
  readReadingsCsv,
  type ReadingColumn,
  type ReadingMapping,
} from '@/formats/readings-import';
import { Button } from '../kit/button';
import { usePreferences } from '../shell/preferences-context';
import { subjectsOf } from './reading-lines';
import { Select } from '../kit/select';

const COLUMN_WORD: Readonly<Record<ReadingColumn, string>> = {
  subject: 'Point or station',
  to: 'Second point',
  quantity: 'Quantity',
  value: 'Value',
  measure: 'Tip or level',
};
const MOST_SHOWN = 60;

/** Brings readings in from a CSV: columns matched, every row shown before anything is taken. */
export function ReadingsImport({ rows, onTake }: { rows: JobRows; onTake: (line: string) => void }) {
  const { preferences } = usePreferences();
  const [text, setText] = useState('');
  const [mapping, setMapping] = useState<ReadingMapping>();
  const [taken, setTaken] = useState('');
  const subjects = useMemo(() => subjectsOf(rows), [rows]);
  const preview = text ? readReadingsCsv(text, subjects, typedUnit(preferences), mapping) : undefined;
  const faulty = preview?.rows.filter(({ fault }) => fault) ?? [];
  const take = () => {
    preview?.rows.forEach(({ line }) => onTake(line));
    setTaken(`Taken: ${counted(preview?.rows.length ?? 0, 'reading')}.`);
    setText('');
    setMapping(undefined);
  };
  return (
    <section aria-label="Readings from a file" className="flex flex-col gap-2">
      <label className="flex min-h-11 flex-wrap items-center gap-3">
        <span className="caps">Readings from a CSV</span>
        <input
          type="file"
          accept=".csv,.txt"
          onChange={async (event) => {
            setMapping(undefined);
            setTaken('');
            setText((await event.target.files?.[0]?.text()) ?? '');
          }}
        />
      </label>
      <p role="status">{taken}</p>
      {preview ? (
        <>
          <div className="grid gap-2 sm:grid-cols-5">
            {READING_COLUMNS.map((column) => (
              <label key={column} className="flex flex-col">
                <span className="caps">{COLUMN_WORD[column]}</span>
                <Select
                  aria-label={COLUMN_WORD[column]}
                  value={preview.mapping[column]}
                  onChange={(event) => setMapping({ ...preview.mapping, [column]: Number(event.target.value) })}
                  options={[
                    [-1, 'none'],
                    ...preview.headers.map((header, i) => [i, header || `column ${i + 1}`] as const),
                  ]}
                />
              </label>
            ))}
          </div>
          <p role="status" className="font-medium">
            {preview.tooMany
              ? `More than ${MOST_READINGS} rows: split the file, and take one part after the other`
              : `${counted(preview.rows.length, 'reading')}, ${faulty.length === 0 ? 'all sound' : `${faulty.length} with a fault: mend the file, or match the columns`}`}
          </p>
          <div
            className="max-h-60 overflow-auto border-y border-rule"
            tabIndex={0}
            role="region"
            aria-label="Preview of the readings"
          >
            <table className="ruled">
              <tbody>
                {[...faulty, ...preview.rows.filter(({ fault }) => !fault)]
                  .slice(0, MOST_SHOWN)
                  .map(({ number, line, fault }) => (
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
            disabled={faulty.length > 0 || preview.rows.length === 0}
            onClick={take}
          >
            Take all {preview.rows.length}
          </Button>
        </>
      ) : null}
    </section>
  );
}
