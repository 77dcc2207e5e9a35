'use client';

import { Printer } from 'lucide-react';
import type { BuiltMount } from '@/core/plan/set-up/build';
import { hasBeams } from '@/core/plan/set-up/build';
import type { TickInput } from '@/formats/inputs/set-up';
import { Button } from '../kit/button';
import { Faults } from '../kit/faults';
import { useAction, type Action } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import type { InHand } from './in-hand';

/** The card for the floor: a line a mount in the order of building, ticked off as it is built. */
export function SetUpCard({ planned, built, words, noteSetUp }: InHand & { noteSetUp: Action<TickInput> }) {
  const format = useFormat();
  const ticking = useAction(noteSetUp);
  const beams = hasBeams(planned.bench.version);
  if (built.mounts.length === 0) return null;
  const ticked = new Set(planned.ticked);
  const tick = (mountId: string) =>
    ticking.run({
      ...{ id: crypto.randomUUID(), itemId: planned.setUp.id, key: mountId, reason: '' },
      kind: ticked.has(mountId) ? 'unticked' : 'ticked',
    });
  return (
    <section aria-label="Set-up card" className="flex flex-col gap-2">
      <div className="flex items-center gap-3">
        <h2 className="text-xl">Set-up card</h2>
        <span className="text-soft">
          {ticked.size} of {built.mounts.length} built
        </span>
        <Button className="no-print ml-auto" onClick={() => window.print()}>
          <Printer size={18} aria-hidden /> Print
        </Button>
      </div>
      <Faults faults={ticking.faults} />
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Mounts in the order of building">
        <table className="ruled">
          <thead>
            <tr>
              <th>Built</th>
              <th>Point</th>
              {beams ? <th className="num">Hole</th> : <th className="num">From the front {format.unit}</th>}
              {beams ? <th className="num">Off the beam {format.unit}</th> : null}
              <th className="num">From the middle {format.unit}</th>
              <th>Stack, from below</th>
              <th>Head</th>
              <th className="num">Screw out {format.unit}</th>
              <th className="num">Height to check {format.unit}</th>
            </tr>
          </thead>
          <tbody>
            {built.mounts.map((mount) => (
              <CardRow
                key={mount.id}
                {...{ mount, planned, words, beams }}
                done={ticked.has(mount.id)}
                onTick={() => tick(mount.id)}
              />
            ))}
          </tbody>
        </table>
      </div>
      <p className="text-sm text-soft">
        Heights are from {beams ? 'the rails’ top' : 'the floor'} to the point. Stands under the shell before anybody is
        under it; lower it slowly, nobody between shell and bench; the maker’s instructions and local rules decide.
      </p>
    </section>
  );
}

interface Row extends Pick<InHand, 'planned' | 'words'> {
  readonly mount: BuiltMount;
  readonly beams: boolean;
  readonly done: boolean;
  readonly onTick: () => void;
}

function CardRow({ mount, planned, words, beams, done, onTick }: Row) {
  const format = useFormat();
  const code = new Map(planned.bench.items.map(({ id, code: name }) => [id, name]));
  const name = words.mount(mount.id);
  return (
    <tr data-mount={name}>
      <td>
        <label className="flex min-h-11 min-w-11 items-center justify-center">
          <input type="checkbox" className="h-6 w-6" aria-label={`${name} is built`} checked={done} onChange={onTick} />
        </label>
      </td>
      <td className="font-medium">{name}</td>
      <td className="num">{beams ? (mount.hole === undefined ? '–' : mount.hole + 1) : format.length(mount.x)}</td>
      {beams ? (
        <td className="num">
          {mount.offset === undefined
            ? '–'
            : `${format.length(Math.abs(mount.offset))} ${Math.abs(mount.offset) < 0.05 ? '' : mount.offset < 0 ? 'fore' : 'aft'}`}
        </td>
      ) : null}
      <td className="num">
        {format.length(Math.abs(mount.side))} {Math.abs(mount.side) < 0.05 ? '' : mount.side < 0 ? 'left' : 'right'}
      </td>
      <td>
        {mount.pieceIds
          ? mount.pieceIds.length > 0
            ? mount.pieceIds.map((id) => code.get(id)).join(' + ')
            : 'none'
          : 'nothing reaches'}
      </td>
      <td>{mount.headId ? code.get(mount.headId) : ''}</td>
      <td className="num">{mount.lift === undefined ? '' : format.length(mount.lift)}</td>
      <td className="num">{format.length(mount.height + planned.bench.version.beamTop)}</td>
    </tr>
  );
}
