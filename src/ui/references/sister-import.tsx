'use client';

import { useMemo, useState } from 'react';
import type { Position } from '@/core/maths/geometry/vector';
import { Job } from '@/core/shell/job/job';
import type { JobRows } from '@/core/shell/job/job-rows';
import { positionOf } from '@/core/shell/references/chosen';
import { matchByPosition, matchRms } from '@/core/findings/references/match-points';
import { counted } from '@/core/report/vocabulary/words';
import { typedUnit } from '@/formats/preferences';
import { readSister, type SisterFile } from '@/formats/sister';
import { sisterFile, type SisterFileInput } from '@/formats/inputs/references';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { SelectField, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import type { Action } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { useFormat, usePreferences } from '../shell/preferences-context';
import { Select } from '../kit/select';

type ReadSister = Extract<SisterFile, { ok: true }>;

interface Importing {
  readonly rows: JobRows;
  readonly importSister: Action<SisterFileInput, { roundId: string; readings: number }>;
}

/** Brings a round of another shell in from a file; points with other names are matched by position, and the match is shown. */
export const SisterImport = (importing: Importing) => (
  <FormDialog
    title="A sister car from a file"
    description="A survey of readings (JSON), or points with coordinates (CSV or chart JSON), in whatever axes they were taken."
    trigger={<Button>Sister car from a file</Button>}
  >
    {(close) => <SisterFromFile {...importing} done={close} />}
  </FormDialog>
);

type PickedFile = SisterFileInput['file'];

function SisterFromFile({ rows, importSister, done }: Importing & { done: () => void }) {
  const { preferences } = usePreferences();
  const [file, setFile] = useState<PickedFile>();
  const unit = typedUnit(preferences);
  const read = useMemo(() => file && readSister(file.text, file.name, unit), [file, unit]);
  return (
    <div className="flex flex-col gap-3">
      <label className="flex min-h-11 flex-wrap items-center gap-3">
        <span className="caps">File</span>
        <input
          type="file"
          accept=".json,.csv,.txt"
          onChange={async (event) => {
            const chosen = event.target.files?.[0];
            setFile(chosen ? { name: chosen.name, text: await chosen.text() } : undefined);
          }}
        />
      </label>
      {read && !read.ok ? (
        <ul role="alert" className="text-minus">
          {read.faults.slice(0, 8).map((fault) => (
            <li key={fault}>{fault}</li>
          ))}
        </ul>
      ) : null}
      {file && read?.ok ? (
        <SisterForm key={file.name + file.text.length} {...{ rows, importSister, done, file }} sister={read} />
      ) : null}
    </div>
  );
}

function SisterForm({
  rows,
  importSister,
  done,
  file,
  sister,
}: Importing & { done: () => void; file: PickedFile; sister: ReadSister }) {
  const { preferences } = usePreferences();
  const match = useMatching(sister, rows);
  const { mapping, matched } = match;
  const form = useEntryForm({
    schema: sisterFile,
    action: importSister,
    defaults: { shell: '', instrumentVersionId: rows.instrumentVersions[0]?.id ?? '' },
    read: ({ shell = '', instrumentVersionId }, faults) => {
      if (matched < 3) faults.push({ path: 'mapping', message: 'at least three points must be matched' });
      const chosen = Object.fromEntries(Object.entries(mapping).filter(([, to]) => to));
      const unit = typedUnit(preferences);
      return { jobId: rows.jobs[0]!.id, shell, instrumentVersionId, unit, file, mapping: chosen };
    },
    done,
  });
  return (
    <>
      <MatchSummary sister={sister} match={match} />
      <Matches sister={sister} rows={rows} match={match} />
      <FormFields form={form} yes="Bring it in as a round">
        <TextField label="Which car it is" {...form.field('shell')} />
        <SelectField
          label="Its readings are as sure as those of"
          {...form.field('instrumentVersionId')}
          options={rows.instrumentVersions.map((version) => [
            version.id,
            rows.instruments.find(({ id }) => id === version.instrumentId)!.name,
          ])}
        />
      </FormFields>
    </>
  );
}

/** Which point of this shell each of the other is: by name, by position where asked, by hand above all. */
function useMatching(sister: ReadSister, rows: JobRows) {
  const [byPosition, setByPosition] = useState(false);
  const [byHand, setByHand] = useState<Readonly<Record<string, string>>>({});
  const named = useMemo(() => matchByName(sister, rows), [sister, rows]);
  const ours = useMemo(() => referencePositions(rows), [rows]);
  const found = useMemo(() => (byPosition ? matchByPosition(sister.positions, ours) : []), [sister, byPosition, ours]);
  const mapping: Readonly<Record<string, string>> = {
    ...Object.fromEntries(named),
    ...Object.fromEntries(found.map(({ theirs, ours: to }) => [theirs, to])),
    ...byHand,
  };
  return {
    ...{ named, found, mapping, byPosition },
    matched: Object.values(mapping).filter(Boolean).length,
    /** Whether there is anything to match positions with. */
    canMatch: ours.size >= 3,
    toggle: () => setByPosition(!byPosition),
    set: (theirs: string, to: string) => setByHand({ ...byHand, [theirs]: to }),
  };
}

type Matching = ReturnType<typeof useMatching>;

function MatchSummary({ sister, match }: { sister: ReadSister; match: Matching }) {
  const format = useFormat();
  const { named, found, matched, byPosition, canMatch, toggle } = match;
  const otherwise = sister.positions.size - named.size;
  return (
    <>
      <p role="status" data-matched={matched}>
        {counted(sister.positions.size, 'point')}, {counted(sister.readings.length, 'reading')}
        {sister.leftOut ? `; left out: ${sister.leftOut}` : ''}. {matched} points are matched
        {found.length > 0
          ? `, ${found.length} of them by position within ${format.length(matchRms(found))} ${format.unit} (root mean square)`
          : ''}
        .
      </p>
      {otherwise > 0 ? (
        <p className="flex flex-wrap items-center gap-2">
          <span>
            {named.size < 3
              ? 'Its points have other names than this shell’s.'
              : `${otherwise} of its points have other names.`}
          </span>
          <Button disabled={!canMatch} onClick={toggle}>
            {byPosition ? 'Match by name only' : 'Match by position'}
          </Button>
          {canMatch ? null : <span className="text-soft">There are no reference positions to match with.</span>}
        </p>
      ) : null}
    </>
  );
}

function Matches({ sister, rows, match }: { sister: ReadSister; rows: JobRows; match: Matching }) {
  const format = useFormat();
  const off = new Map(match.found.map((each) => [each.theirs, each.off]));
  return (
    <div className="max-h-60 overflow-auto border border-rule">
      <table className="ruled">
        <thead className="sticky top-0 bg-paper">
          <tr>
            <th>Its point</th>
            <th>Is this shell’s</th>
            <th className="num">Apart {format.unit}</th>
          </tr>
        </thead>
        <tbody>
          {[...sister.positions.keys()].map((theirs) => (
            <tr key={theirs}>
              <td className="font-mono">{theirs}</td>
              <td>
                <Select
                  aria-label={`${theirs} is`}
                  value={match.mapping[theirs] ?? ''}
                  onChange={(event) => match.set(theirs, event.target.value)}
                  options={[['', '– left out'], ...rows.points.map(({ id, code }) => [id, code] as const)]}
                />
              </td>
              <td className="num text-soft">{off.has(theirs) ? format.length(off.get(theirs)!) : ''}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function matchByName({ positions }: ReadSister, rows: JobRows): Map<string, string> {
  const byCode = new Map(rows.points.map(({ id, code }) => [code.toLowerCase(), id]));
  return new Map(
    [...positions.keys()].flatMap((theirs) => {
      const id = byCode.get(theirs.toLowerCase());
      return id ? [[theirs, id] as const] : [];
    }),
  );
}

const referencePositions = (rows: JobRows): Map<string, Position<'chart'>> =>
  new Map([...Job.of(rows).references.points].map(([id, { row }]) => [id, positionOf(row)]));
