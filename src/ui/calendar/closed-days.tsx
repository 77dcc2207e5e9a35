import { useState } from 'react';
import { dayAfter } from '@/core/days/calendar/work-time';
import type { ClosedDay } from '@/core/shell/job/entities';
import { readClosedDays } from '@/formats/calendar/ics';
import type { Fault } from '@/formats/faults';
import { closedDays } from '@/formats/inputs/calendar';
import { Button } from '../kit/button';
import { Faults } from '../kit/faults';
import { SelectField, TextField } from '../kit/field';
import { useAction } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { useFormat } from '../shell/preferences-context';
import type { CalendarActions } from './actions';

interface ClosedProps {
  readonly days: readonly ClosedDay[];
  readonly actions: Pick<CalendarActions, 'addClosedDays' | 'removeClosedDay'>;
}

const KIND_WORD: Readonly<Record<ClosedDay['kind'], string>> = {
  closed: 'nobody works',
  wet: 'too wet to work outdoors',
};
/** Days off are read two years ahead. */
const AHEAD = 730;

/** Days on which nobody works, or nothing is done outdoors: typed, or from another calendar. */
export function ClosedDays({ days, actions }: ClosedProps) {
  const format = useFormat();
  const removing = useAction(actions.removeClosedDay);
  const [added, setAdded] = useState(0);
  return (
    <section aria-label="Days off" className="flex flex-col gap-2">
      <h2 className="text-xl">Days off</h2>
      <ul className="flex flex-wrap gap-x-4">
        {days.map(({ id, day, kind, name }) => (
          <li key={id} className="flex items-center gap-1">
            {format.day(format.instant(day, 12))}
            <span className="text-soft">
              {name ? `${format.name(name)}, ` : ''}
              {KIND_WORD[kind]}
            </span>
            <Button look="quiet" aria-label={`Take out ${day}`} onClick={() => removing.run({ id })}>
              Take out
            </Button>
          </li>
        ))}
        {days.length === 0 ? <li className="text-soft">None is named.</li> : null}
      </ul>
      <Faults faults={removing.faults} />
      <AddDay key={added} addClosedDays={actions.addClosedDays} done={() => setAdded(added + 1)} />
      <FromFile addClosedDays={actions.addClosedDays} />
    </section>
  );
}

type Adding = Pick<CalendarActions, 'addClosedDays'>;

function AddDay({ addClosedDays, done }: Adding & { readonly done: () => void }) {
  const form = useEntryForm({
    schema: closedDays,
    action: addClosedDays,
    defaults: { day: '', kind: 'closed' as ClosedDay['kind'], name: '' },
    read: ({ day, kind, name }, faults, id) => {
      if (!day) faults.push({ path: 'day', message: 'which day' });
      return { days: [{ id, day: day || '2000-01-01', kind, name: name.trim() }] };
    },
    done,
  });
  return (
    <form className="flex flex-wrap items-end gap-2" onSubmit={form.submit} noValidate>
      <TextField label="Day" type="date" {...form.field('day')} />
      <SelectField
        label="On it"
        options={(['closed', 'wet'] as const).map((kind) => [kind, KIND_WORD[kind]])}
        {...form.field('kind')}
      />
      <TextField label="Why" placeholder="Christmas" {...form.field('name')} />
      <Button type="submit" disabled={form.pending}>
        Add
      </Button>
      <Faults faults={form.faults} />
    </form>
  );
}

/** Days off out of a file that another calendar exported. */
function FromFile({ addClosedDays }: Adding) {
  const format = useFormat();
  const { run, faults: refused } = useAction(addClosedDays);
  const [faults, setFaults] = useState<readonly Fault[]>([]);
  const [taken, setTaken] = useState<number>();
  const read = async (file: File | undefined) => {
    setTaken(undefined);
    if (!file) return;
    const today = format.date(new Date().toISOString());
    const found = readClosedDays(await file.text(), today, dayAfter(today, AHEAD));
    setFaults(found.ok ? [] : found.faults);
    if (!found.ok) return;
    const days = found.value
      .slice(0, 400)
      .map((each) => ({ ...each, id: crypto.randomUUID(), kind: 'closed' as const }));
    if ((await run({ days: days.map(({ name, ...day }) => ({ ...day, name: name.slice(0, 200) })) })).ok)
      setTaken(days.length);
  };
  return (
    <div className="flex flex-col gap-1">
      <label className="flex flex-wrap items-center gap-2">
        <span className="caps">From another calendar (.ics)</span>
        <input
          type="file"
          accept=".ics,text/calendar"
          className="min-h-11 py-2"
          onChange={(event) => void read(event.target.files?.[0])}
        />
      </label>
      {taken === undefined ? null : <p role="status">{taken} days were read.</p>}
      <Faults faults={[...faults, ...refused]} />
    </div>
  );
}
