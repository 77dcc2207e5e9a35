'use client';

import type { Instrument, InstrumentVersion } from '@/core/shell/job/entities';
import type { InstrumentVersionInput, NewInstrument } from '@/formats/inputs/jobs';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import type { Action } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import { AddInstrument, INSTRUMENT_WORD, ReviseInstrument } from './instrument-form';

/** The shop's instruments: what each can be trusted to. A change makes a new version; old readings keep the old one. */
export function Instruments({
  instruments,
  versions,
  reviseInstrument,
  addInstrument,
}: {
  instruments: readonly Instrument[];
  versions: readonly InstrumentVersion[];
  reviseInstrument: Action<InstrumentVersionInput>;
  addInstrument: Action<NewInstrument>;
}) {
  const format = useFormat();
  const newest = new Map(versions.map((version) => [version.instrumentId, version]));
  return (
    <main className="mx-auto flex max-w-4xl flex-col gap-4 p-6">
      <div className="flex items-center">
        <h1 className="text-2xl">Instruments of the shop</h1>
        <FormDialog
          title="A new instrument"
          description={`Figures in ${format.unit}`}
          trigger={<Button className="ml-auto">New instrument</Button>}
        >
          {(close) => <AddInstrument addInstrument={addInstrument} done={close} />}
        </FormDialog>
      </div>
      <p className="text-soft">
        One standard deviation is the spread of one careful reading; every ± in the program is two. A change is a new
        version: readings already taken keep the figures they were taken with. A steel instrument grows with the shell;
        any other is corrected to {format.temperature(20)}.
      </p>
      <table className="ruled">
        <thead>
          <tr>
            <th>Instrument</th>
            <th>Kind</th>
            <th className="num">One sd {format.unit}</th>
            <th className="num">{format.name('more each metre')}</th>
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
                <td className="text-soft">{INSTRUMENT_WORD[instrument.kind]}</td>
                <td className="num">{format.fine(version.sdConstant)}</td>
                <td className="num">{format.fine(version.sdPerMetre)}</td>
                <td className="num">{format.difference(version.zeroOffset)}</td>
                <td className="num">{format.length(version.startMark)}</td>
                <td>{version.pointers}</td>
                <td>{version.checkedAt ? format.day(version.checkedAt) : <span className="text-soft">never</span>}</td>
                <td className="num">{version.number}</td>
                <td>
                  <FormDialog
                    title={instrument.name}
                    description={`Figures in ${format.unit}`}
                    trigger={<Button>Change</Button>}
                  >
                    {(close) => <ReviseInstrument version={version} reviseInstrument={reviseInstrument} done={close} />}
                  </FormDialog>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </main>
  );
}
