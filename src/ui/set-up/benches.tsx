'use client';

import { useState } from 'react';
import type { ListedBench } from '@/core/shell/benches';
import { counted } from '@/core/report/vocabulary/words';
import { readBenchFile } from '@/formats/bench';
import type { Fault } from '@/formats/faults';
import type { BenchVersionInput, NewBench } from '@/formats/inputs/set-up';
import { shelfText } from '@/formats/shelf-text';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { Empty, Faults } from '../kit/faults';
import { useAction, type Action } from '../kit/use-action';
import { FromShops } from '../shared/from-shops';
import { useFormat } from '../shell/preferences-context';
import { AddBench, BENCH_WORD, ReviseBench } from './bench-form';

/** The shop's benches and what lies on their shelves. */
export function Benches({
  benches,
  addBench,
  reviseBench,
}: {
  benches: readonly ListedBench[];
  addBench: Action<NewBench>;
  reviseBench: Action<BenchVersionInput>;
}) {
  const format = useFormat();
  return (
    <main className="mx-auto flex max-w-4xl flex-col gap-4 p-6">
      <div className="flex items-center">
        <h1 className="text-2xl">Benches of the shop</h1>
        <FormDialog
          title="A new bench"
          description={`Figures in ${format.unit}`}
          trigger={<Button className="ml-auto">New bench</Button>}
          wide
        >
          {(close) => <AddBench addBench={addBench} done={close} />}
        </FormDialog>
      </div>
      <p className="text-soft">
        What a shell can be held on: rails with beams at numbered holes, clamps, a frame of your own, or stands. A
        change is a new version: set-ups keep the one they were planned on.
      </p>
      <BringBench addBench={addBench} />
      {benches.length === 0 ? (
        <Empty title="No bench is written down yet">
          Write down the rails, the beams and what lies on the shelf: towers, spacers, heads, clamps, stands.
        </Empty>
      ) : null}
      {benches.map((listed) => (
        <BenchRow key={listed.bench.id} listed={listed} reviseBench={reviseBench} />
      ))}
    </main>
  );
}

/** Brings a bench in from the file another shop has exported, or shares on this server. */
function BringBench({ addBench }: { addBench: Action<NewBench> }) {
  const { run, faults: refused } = useAction(addBench);
  const [faults, setFaults] = useState<readonly Fault[]>([]);
  const bring = async (text: string) => {
    const read = readBenchFile(text, () => crypto.randomUUID());
    setFaults(read.ok ? [] : read.faults);
    if (read.ok) await run(read.value);
  };
  return (
    <>
      <label className="flex min-h-11 flex-wrap items-center gap-3">
        <span className="caps">A bench from a file</span>
        <input
          type="file"
          accept=".json"
          onChange={(event) => {
            void event.target.files?.[0]?.text().then(bring);
            event.target.value = '';
          }}
        />
      </label>
      <FromShops kind="bench" onFile={({ text }) => void bring(text)} />
      <Faults faults={[...faults, ...refused]} />
    </>
  );
}

function BenchRow({ listed, reviseBench }: { listed: ListedBench; reviseBench: Action<BenchVersionInput> }) {
  const format = useFormat();
  const { bench, version, items } = listed;
  const with_ = (mm: number) => `${format.length(mm)} ${format.unit}`;
  return (
    <section aria-label={bench.name} className="flex flex-col gap-2 border-t border-rule pt-3">
      <div className="flex flex-wrap items-baseline gap-3">
        <h2 className="text-lg">{bench.name}</h2>
        <span className="text-soft">
          {BENCH_WORD[bench.kind]}, version {version.number}
        </span>
        <a className="ml-auto underline" href={`/api/benches/${bench.id}`}>
          Export
        </a>
        <FormDialog title={bench.name} description={`Figures in ${format.unit}`} trigger={<Button>Change</Button>} wide>
          {(close) => <ReviseBench known={listed} reviseBench={reviseBench} done={close} />}
        </FormDialog>
      </div>
      <p>
        {version.rails > 0 ? `Rails ${with_(version.rails)}, a hole every ${with_(version.pitch)}. ` : ''}
        {version.beams > 0
          ? `${counted(version.beams, 'beam')} of ${with_(version.span)}, top at ${with_(version.beamTop)}. `
          : ''}
        {version.note}
      </p>
      <pre
        className="overflow-x-auto border-l-2 border-rule pl-3 font-mono text-sm"
        tabIndex={0}
        aria-label="On the shelf"
      >
        {items.length === 0 ? 'nothing on its shelf' : shelfText(items, format.length)}
      </pre>
    </section>
  );
}
