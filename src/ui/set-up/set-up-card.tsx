'use client';

import { Printer } from 'lucide-react';
import { useState } from 'react';
import { parseLength } from '@/core/maths/units/length';
import type { BuiltMount } from '@/core/plan/set-up/build';
import { hasBeams } from '@/core/plan/set-up/build';
import type { BuiltMountInput, TickInput } from '@/formats/inputs/set-up';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { Faults } from '../kit/faults';
import { useAction, type Action } from '../kit/use-action';
import { FieldError, inputClass } from '../kit/field';
import { useFormat, usePreferences } from '../shell/preferences-context';
import type { InHand } from './in-hand';

/** The card for the floor: a line a mount in the order of building, ticked off as it is built. */
export function SetUpCard({
  planned,
  built,
  words,
  tickMount,
  noteSetUp,
}: InHand & { tickMount: Action<BuiltMountInput>; noteSetUp: Action<TickInput> }) {
  const format = useFormat();
  const ticking = useAction(tickMount);
  const checking = useAction(noteSetUp);
  const beams = hasBeams(planned.bench.version);
  if (built.mounts.length === 0) return null;
  const ticked = new Set(planned.ticked);
  const tick = (mount: BuiltMount) => ticking.run(tickOf(planned.setUp.id, mount, ticked.has(mount.id)));
  const check = (mountId: string, value: number) =>
    checking.run({
      ...{ id: crypto.randomUUID(), itemId: planned.setUp.id, key: mountId, reason: '' },
      ...{ kind: 'checked', value },
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
      <Faults faults={[...ticking.faults, ...checking.faults]} />
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
              <th className="num">Found {format.unit}</th>
            </tr>
          </thead>
          <tbody>
            {built.mounts.map((mount) => (
              <CardRow
                key={mount.id}
                {...{ mount, planned, words, beams }}
                done={ticked.has(mount.id)}
                onTick={() => tick(mount)}
                onCheck={(value) => check(mount.id, value)}
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

/** A mount ticked off, with what it was built of; or, where it was, built no more. */
function tickOf(setUpId: string, { id, headId, lift, pieceIds = [] }: BuiltMount, wasTicked: boolean): BuiltMountInput {
  const event = { id: crypto.randomUUID(), itemId: setUpId, key: id, reason: '', value: null };
  if (wasTicked || headId === undefined)
    return { event: { ...event, kind: wasTicked ? 'unticked' : 'ticked' }, headId: null, lift: null, pieces: [] };
  const pieces = pieceIds.map((shelfItemId, ordinal) => ({
    ...{ id: crypto.randomUUID(), mountId: id },
    ...{ ordinal, shelfItemId },
  }));
  return { event: { ...event, kind: 'ticked' }, headId, lift: lift ?? null, pieces };
}

interface Row extends Pick<InHand, 'planned' | 'words'> {
  readonly mount: BuiltMount;
  readonly beams: boolean;
  readonly done: boolean;
  readonly onTick: () => void;
  readonly onCheck: (height: number) => void;
}

function CardRow({ mount, planned, words, beams, done, onTick, onCheck }: Row) {
  const format = useFormat();
  const height = mount.height + planned.bench.version.beamTop;
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
      <td className="num">{format.length(height)}</td>
      <td className="num">
        <FoundHeight
          key={planned.checked.get(mount.id)}
          name={`Height of ${name} as found`}
          wanted={height}
          found={planned.checked.get(mount.id)}
          onFound={onCheck}
        />
      </td>
    </tr>
  );
}

/** Farther than this from its height a head is built otherwise than planned, mm. */
const AS_PLANNED = 1;

interface FoundHeightProps {
  readonly name: string;
  readonly wanted: number;
  readonly found: number | undefined;
  readonly onFound: (height: number) => void;
}

/** The height a mount was found at; written when the field is left, and how far it is off beside it. */
function FoundHeight({ name, wanted, found, onFound }: FoundHeightProps) {
  const { format, preferences } = usePreferences();
  const shown = found === undefined ? '' : format.length(found);
  const [typed, type] = useState(shown);
  const [fault, setFault] = useState<string>();
  const leave = () => {
    if (typed.trim() === '' || typed === shown) return;
    const parsed = parseLength(typed, typedUnit(preferences));
    setFault(parsed.ok ? undefined : parsed.reason);
    if (parsed.ok) onFound(parsed.mm);
  };
  return (
    <span className="flex flex-col items-end">
      <input
        className={`${inputClass} max-w-24`}
        aria-label={`${name}, ${format.unit}`}
        aria-invalid={fault ? true : undefined}
        inputMode="decimal"
        value={typed}
        onChange={(event) => type(event.target.value)}
        onBlur={leave}
        onKeyDown={(event) => event.key === 'Enter' && leave()}
      />
      <FieldError error={fault} />
      {found !== undefined && Math.abs(found - wanted) > AS_PLANNED ? (
        <span className="text-sm text-minus">{format.difference(found - wanted)}: build it again, or keep it so</span>
      ) : null}
    </span>
  );
}
