'use client';

import { useState, type FormEvent } from 'react';
import { INSTRUMENT_KINDS, type Instrument, type InstrumentVersion } from '@/core/shell/job/entities';
import { parseLength } from '@/core/maths/units/length';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { SelectField, TextField } from '../kit/field';
import { useAction, type Action } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';

const KIND_WORD: Readonly<Record<Instrument['kind'], string>> = {
  tape: 'tape',
  tram: 'tram gauge',
  digitalTram: 'digital tram',
  caliper: 'caliper',
  heightStick: 'height stick',
  plumb: 'plumb or pointer',
  fixtureHead: 'fixture head',
  other: 'other',
};

/** The shop's instruments: what each can be trusted to. A change makes a new version; old readings keep the old one. */
export function Instruments({
  instruments,
  versions,
  reviseInstrument,
  addInstrument,
}: {
  instruments: readonly Instrument[];
  versions: readonly InstrumentVersion[];
  reviseInstrument: Action;
  addInstrument: Action;
}) {
  const format = useFormat();
  const newest = new Map(versions.map((version) => [version.instrumentId, version]));
  return (
    <main className="mx-auto flex max-w-4xl flex-col gap-4 p-6">
      <div className="flex items-center">
        <h1 className="text-2xl">Instruments of the shop</h1>
        <InstrumentDialog save={addInstrument} />
      </div>
      <p className="text-soft">
        One standard deviation is the spread of one careful reading; every ± in the program is two. A change is a new
        version: readings already taken keep the figures they were taken with. A steel instrument grows with the shell;
        any other is corrected to 20 °C.
      </p>
      <table className="ruled">
        <thead>
          <tr>
            <th>Instrument</th>
            <th>Kind</th>
            <th className="num">One sd {format.unit}</th>
            <th className="num">more each metre</th>
            <th className="num">Zero offset</th>
            <th className="num">Start mark</th>
            <th>Pointers</th>
            <th>Checked</th>
            <th className="num">Version</th>
            <th>
              <span className="sr-only">Actions</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {instruments.map((instrument) => {
            const version = newest.get(instrument.id)!;
            return (
              <tr key={instrument.id}>
                <td>{instrument.name}</td>
                <td className="text-soft">{KIND_WORD[instrument.kind]}</td>
                <td className="num">{version.sdConstant.toFixed(2)}</td>
                <td className="num">{version.sdPerMetre.toFixed(2)}</td>
                <td className="num">{format.difference(version.zeroOffset)}</td>
                <td className="num">{format.length(version.startMark)}</td>
                <td>{version.pointers}</td>
                <td>{version.checkedAt ? format.day(version.checkedAt) : <span className="text-soft">never</span>}</td>
                <td className="num">{version.number}</td>
                <td>
                  <InstrumentDialog instrument={instrument} version={version} save={reviseInstrument} />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </main>
  );
}

function InstrumentDialog({
  instrument,
  version,
  save,
}: {
  instrument?: Instrument;
  version?: InstrumentVersion;
  save: Action;
}) {
  const [open, setOpen] = useState(false);
  const [error, setError] = useState<Readonly<Record<string, string>>>({});
  const { run, faults, pending } = useAction(save);
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const text = (field: string) => String(form.get(field) ?? '').trim();
    const found: Record<string, string> = {};
    const read = (field: string) => {
      const parsed = parseLength(text(field), 'mm');
      if (!parsed.ok) found[field] = parsed.reason;
      return parsed.ok ? parsed.mm : 0;
    };
    const fields = {
      sdConstant: read('sdConstant'),
      sdPerMetre: read('sdPerMetre'),
      zeroOffset: read('zeroOffset'),
      startMark: read('startMark'),
    };
    if (fields.sdConstant <= 0 && !found.sdConstant) found.sdConstant = 'no instrument is without spread';
    setError(found);
    if (Object.keys(found).length > 0) return;
    const instrumentId = instrument?.id ?? crypto.randomUUID();
    const next = {
      ...fields,
      id: crypto.randomUUID(),
      instrumentId,
      steel: form.get('steel') === 'on',
      pointers: text('pointers'),
      checkedAt: text('checkedAt') ? new Date(`${text('checkedAt')}T12:00:00Z`).toISOString() : null,
      note: text('note'),
    };
    const outcome = await run(
      instrument
        ? next
        : {
            instrument: { id: instrumentId, name: text('name'), kind: text('kind') },
            version: next,
          },
    );
    if (outcome.ok) setOpen(false);
  };
  return (
    <Dialog
      title={instrument ? instrument.name : 'A new instrument'}
      description="Figures in millimetres"
      open={open}
      onOpenChange={setOpen}
      trigger={<Button className={instrument ? '' : 'ml-auto'}>{instrument ? 'Change' : 'New instrument'}</Button>}
    >
      <form onSubmit={submit} className="grid gap-3 sm:grid-cols-2" noValidate>
        {instrument ? null : (
          <>
            <TextField label="Name" name="name" error={faults.find((fault) => fault.path.endsWith('name'))?.message} />
            <SelectField label="Kind" name="kind" options={INSTRUMENT_KINDS.map((kind) => [kind, KIND_WORD[kind]])} />
          </>
        )}
        <TextField
          label="One standard deviation, mm"
          name="sdConstant"
          defaultValue={version?.sdConstant ?? '0.5'}
          error={error.sdConstant}
        />
        <TextField
          label="More each metre, mm"
          name="sdPerMetre"
          defaultValue={version?.sdPerMetre ?? '0'}
          error={error.sdPerMetre}
        />
        <TextField
          label="Zero offset, added to each reading, mm"
          name="zeroOffset"
          defaultValue={version?.zeroOffset ?? '0'}
          error={error.zeroOffset}
        />
        <TextField
          label="Start mark, taken off each reading, mm"
          name="startMark"
          defaultValue={version?.startMark ?? '0'}
          error={error.startMark}
        />
        <TextField
          label="Pointer lengths, mm"
          name="pointers"
          defaultValue={version?.pointers}
          hint="as a list: 50 120 300"
        />
        <TextField
          label="Last held against a standard"
          name="checkedAt"
          type="date"
          defaultValue={version?.checkedAt?.slice(0, 10)}
        />
        <TextField label="Note" name="note" defaultValue={version?.note} />
        <label className="flex min-h-11 items-center gap-2 self-end">
          <input type="checkbox" name="steel" defaultChecked={version?.steel} className="h-5 w-5" /> of steel
        </label>
        <div className="sm:col-span-2">
          <Faults faults={faults} />
        </div>
        <Button type="submit" look="main" disabled={pending} className="justify-self-start">
          {instrument ? 'Make it a new version' : 'Add'}
        </Button>
      </form>
    </Dialog>
  );
}
