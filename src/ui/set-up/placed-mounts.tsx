'use client';

import { ArrowUp, X } from 'lucide-react';
import { useState } from 'react';
import { hasBeams } from '@/core/plan/set-up/build';
import { parseLength } from '@/core/maths/units/length';
import { mount as mountSchema, type Mount } from '@/core/shell/job/entities';
import { parseShape, type Fault } from '@/formats/faults';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { inputClass, TextField } from '../kit/field';
import { usePreferences } from '../shell/preferences-context';
import type { InHand } from './in-hand';

/** The mounts in the order they are built: the shell is lowered on the first four, the rest come after. */
export function PlacedMounts({ plan, planned, words }: InHand) {
  const { mounts } = plan;
  const floored = !hasBeams(planned.bench.version);
  const setFloor = (mount: Mount, floor: number | null) =>
    plan.set(mounts.map((each) => (each === mount ? { ...each, floor } : each)));
  const earlier = (i: number) =>
    plan.set([...mounts.slice(0, i - 1), mounts[i]!, mounts[i - 1]!, ...mounts.slice(i + 1)]);
  return (
    <section aria-label="Mounts in hand" className="flex flex-col gap-2">
      <div className="flex items-center gap-2">
        <h3 className="caps">In hand: {mounts.length === 0 ? 'no mount yet' : 'built in this order'}</h3>
        <FormDialog
          title="A clamp or stand at a place"
          description="Where it takes the shell, from the chart’s zero planes"
          trigger={<Button className="ml-auto">Add a place</Button>}
        >
          {(close) => (
            <AddPlace
              setUpId={planned.setUp.id}
              onAdd={(mount) => {
                plan.set([...mounts, mount]);
                close();
              }}
            />
          )}
        </FormDialog>
      </div>
      <ol className="border-y border-rule empty:hidden">
        {mounts.map((mount, i) => (
          <li key={mount.id} className="flex min-h-11 items-center gap-2 border-b border-faint">
            <span className="num w-6 text-soft">{i + 1}</span>
            <span className="font-medium">{words.mount(mount.id)}</span>
            {floored ? (
              <FloorField
                key={String(mount.floor)}
                mount={mount}
                name={words.mount(mount.id)}
                onFloor={(floor) => setFloor(mount, floor)}
              />
            ) : null}
            {mount.hole === null ? null : (
              <Button
                look="quiet"
                className="ml-auto text-sm"
                onClick={() => plan.set(mounts.map((each) => (each === mount ? { ...each, hole: null } : each)))}
              >
                hole {mount.hole + 1}, by hand: let go
              </Button>
            )}
            <Button
              look="quiet"
              className={mount.hole === null && !floored ? 'ml-auto w-11' : 'w-11'}
              aria-label={`${words.mount(mount.id)} earlier`}
              disabled={i === 0}
              onClick={() => earlier(i)}
            >
              <ArrowUp size={18} aria-hidden />
            </Button>
            <Button
              look="quiet"
              className="w-11"
              aria-label={`Leave out ${words.mount(mount.id)}`}
              onClick={() => plan.set(mounts.filter((each) => each !== mount))}
            >
              <X size={18} aria-hidden />
            </Button>
          </li>
        ))}
      </ol>
    </section>
  );
}

/** How high the floor stands under a mount; written when the field is left. */
function FloorField({ mount, name, onFloor }: { mount: Mount; name: string; onFloor: (floor: number | null) => void }) {
  const { format, preferences } = usePreferences();
  const shown = mount.floor === null ? '' : format.length(mount.floor);
  const [typed, type] = useState(shown);
  const [fault, setFault] = useState(false);
  const leave = () => {
    if (typed === shown) return;
    const parsed = parseLength(typed, typedUnit(preferences));
    setFault(typed.trim() !== '' && !parsed.ok);
    if (typed.trim() === '') onFloor(null);
    else if (parsed.ok) onFloor(parsed.mm);
  };
  return (
    <input
      className={`${inputClass} ml-auto max-w-20`}
      aria-label={`Floor under ${name}, over its plane, ${format.unit}`}
      aria-invalid={fault || undefined}
      placeholder="floor"
      value={typed}
      onChange={(event) => type(event.target.value)}
      onBlur={leave}
      onKeyDown={(event) => event.key === 'Enter' && leave()}
    />
  );
}

const FIELDS = ['x', 'y', 'z'] as const;
const LABEL = {
  x: 'Behind the front zero plane',
  y: 'Right of the middle; left is negative',
  z: 'Over the datum plane',
};

function AddPlace({ setUpId, onAdd }: { setUpId: string; onAdd: (mount: Mount) => void }) {
  const { format, preferences } = usePreferences();
  const [typed, setTyped] = useState({ name: '', x: '', y: '', z: '' });
  const [faults, setFaults] = useState<readonly Fault[]>([]);
  const field = (name: keyof typeof typed) => ({
    value: typed[name],
    onChange: (event: React.ChangeEvent<HTMLInputElement>) => setTyped({ ...typed, [name]: event.target.value }),
    error: faults.find(({ path }) => path === name)?.message,
  });
  const add = () => {
    const found: Fault[] = typed.name.trim() === '' ? [{ path: 'name', message: 'type something here' }] : [];
    const [x, y, z] = FIELDS.map((axis) => {
      const parsed = parseLength(typed[axis], typedUnit(preferences));
      if (!parsed.ok) found.push({ path: axis, message: parsed.reason });
      return parsed.ok ? parsed.mm : 0;
    }) as [number, number, number];
    const made = { id: crypto.randomUUID(), setUpId, ordinal: 0, pointId: null, name: typed.name.trim() };
    const shape = parseShape(mountSchema, { ...made, x, y, z, hole: null, floor: null, headId: null, lift: null });
    if (!shape.ok) found.push(...shape.faults);
    setFaults(found);
    if (shape.ok && found.length === 0) onAdd(shape.value);
  };
  return (
    <form
      className="flex flex-col gap-3"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        add();
      }}
    >
      <TextField label="What it is called" hint="Front left clamp" {...field('name')} />
      {FIELDS.map((axis) => (
        <TextField key={axis} label={`${LABEL[axis]}, ${format.unit}`} {...field(axis)} />
      ))}
      <Faults faults={faults.filter(({ path }) => !(path in typed))} />
      <Button type="submit" look="main" className="self-start">
        Add
      </Button>
    </form>
  );
}
