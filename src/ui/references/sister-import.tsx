'use client';

import { useMemo, useState } from 'react';
import type { Position } from '@/core/maths/geometry/vector';
import { Job } from '@/core/shell/job/job';
import type { JobRows } from '@/core/shell/job/job-rows';
import { positionOf } from '@/core/shell/references/chosen';
import { matchByPosition, matchRms, type PointMatch } from '@/core/findings/references/match-points';
import { counted } from '@/core/report/vocabulary/words';
import { typedUnit } from '@/formats/preferences';
import { readSister, type SisterFile } from '@/formats/sister';
import type { SisterFileInput } from '@/formats/inputs/references';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { SelectField, TextField } from '../kit/field';
import { useAction, type Action } from '../kit/use-action';
import { useFormat, usePreferences } from '../shell/preferences-context';
import { Select } from '../kit/select';

type ReadSister = Extract<SisterFile, { ok: true }>;

/** Brings a round of another shell in from a file; points with other names are matched by position, and the match is shown. */
export function SisterImport({
  rows,
  importSister,
}: {
  rows: JobRows;
  importSister: Action<SisterFileInput, { roundId: string; readings: number }>;
}) {
  const { preferences } = usePreferences();
  const [open, setOpen] = useState(false);
  const [file, setFile] = useState<{ name: string; text: string }>();
  const [shell, setShell] = useState('');
  const [versionId, setVersion] = useState(rows.instrumentVersions[0]?.id ?? '');
  const [byPosition, setByPosition] = useState(false);
  const [byHand, setByHand] = useState<Readonly<Record<string, string>>>({});
  const { run, faults, pending, clear } = useAction(importSister);
  const unit = typedUnit(preferences);
  const read = useMemo(() => file && readSister(file.text, file.name, unit), [file, unit]);
  const sister = read?.ok ? read : undefined;
  const named = useMemo(() => (sister ? matchByName(sister, rows) : new Map<string, string>()), [sister, rows]);
  const ours = useMemo(() => referencePositions(rows), [rows]);
  const found = useMemo(
    () => (sister && byPosition ? matchByPosition(sister.positions, ours) : []),
    [sister, byPosition, ours],
  );
  const mapping = useMemo(
    () => ({
      ...Object.fromEntries(named),
      ...(byPosition ? Object.fromEntries(found.map(({ theirs, ours: to }) => [theirs, to])) : {}),
      ...byHand,
    }),
    [named, found, byPosition, byHand],
  );
  const matched = Object.values(mapping).filter(Boolean).length;
  const take = async () => {
    if (!file) return;
    const cleaned = Object.fromEntries(Object.entries(mapping).filter(([, to]) => to));
    const outcome = await run({
      jobId: rows.jobs[0]!.id,
      shell,
      instrumentVersionId: versionId,
      unit,
      file,
      mapping: cleaned,
    });
    if (!outcome.ok) return;
    setOpen(false);
    setFile(undefined);
  };
  return (
    <Dialog
      title="A sister car from a file"
      description="A survey of readings (JSON), or points with coordinates (CSV or chart JSON), in whatever axes they were taken."
      open={open}
      onOpenChange={(now) => {
        setOpen(now);
        clear();
      }}
      trigger={<Button>Sister car from a file</Button>}
    >
      <div className="flex flex-col gap-3">
        <label className="flex min-h-11 flex-wrap items-center gap-3">
          <span className="caps">File</span>
          <input
            type="file"
            accept=".json,.csv,.txt"
            onChange={async (event) => {
              const chosen = event.target.files?.[0];
              setByHand({});
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
        {sister ? (
          <>
            <p role="status" data-matched={matched}>
              {counted(sister.positions.size, 'point')}, {counted(sister.readings.length, 'reading')}
              {sister.leftOut ? `; left out: ${sister.leftOut}` : ''}. {matched} points are matched
              {byPosition && found.length > 0
                ? `, ${found.length} of them by position within ${matchRms(found).toFixed(1)} mm (root mean square)`
                : ''}
              .
            </p>
            {named.size < sister.positions.size ? (
              <p className="flex flex-wrap items-center gap-2">
                <span>
                  {named.size < 3
                    ? 'Its points have other names than this shell’s.'
                    : `${sister.positions.size - named.size} of its points have other names.`}
                </span>
                <Button disabled={ours.size < 3} onClick={() => setByPosition(!byPosition)}>
                  {byPosition ? 'Match by name only' : 'Match by position'}
                </Button>
                {ours.size < 3 ? (
                  <span className="text-soft">There are no reference positions to match with.</span>
                ) : null}
              </p>
            ) : null}
            <Matches
              sister={sister}
              rows={rows}
              mapping={mapping}
              found={found}
              onChange={(theirs, to) => setByHand({ ...byHand, [theirs]: to })}
            />
            <TextField label="Which car it is" value={shell} onChange={(event) => setShell(event.target.value)} />
            <SelectField
              label="Its readings are as sure as those of"
              value={versionId}
              onChange={(event) => setVersion(event.target.value)}
              options={rows.instrumentVersions.map((version) => [
                version.id,
                rows.instruments.find(({ id }) => id === version.instrumentId)!.name,
              ])}
            />
            <Faults faults={faults} />
            <Button look="main" disabled={pending || matched < 3} onClick={take} className="self-start">
              Bring it in as a round
            </Button>
            {matched < 3 ? <p className="text-soft">At least three points must be matched.</p> : null}
          </>
        ) : null}
      </div>
    </Dialog>
  );
}

function Matches({
  sister,
  rows,
  mapping,
  found,
  onChange,
}: {
  sister: ReadSister;
  rows: JobRows;
  mapping: Readonly<Record<string, string>>;
  found: readonly PointMatch[];
  onChange: (theirs: string, ours: string) => void;
}) {
  const format = useFormat();
  const off = new Map(found.map((match) => [match.theirs, match.off]));
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
                  value={mapping[theirs] ?? ''}
                  onChange={(event) => onChange(theirs, event.target.value)}
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
