import { useState } from 'react';
import type { Timer } from '@/core/shell/job/entities';
import { MS_PER_MINUTE } from '@/core/maths/units/time';
import { parseDuration } from '@/formats/duration';
import { newTimer } from '@/formats/inputs/calendar';
import { Button } from '../kit/button';
import { Faults } from '../kit/faults';
import { TextField } from '../kit/field';
import { useAction } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { useFormat } from '../shell/preferences-context';
import type { CalendarActions } from './actions';

interface TimersProps {
  readonly jobId: string;
  readonly timers: readonly Timer[];
  readonly actions: Pick<CalendarActions, 'setTimer' | 'hearTimer'>;
}

const CLOCK_DAY = 1440;

/** What rings, and when; a new one. */
export function Timers({ jobId, timers, actions }: TimersProps) {
  const format = useFormat();
  const hearing = useAction(actions.hearTimer);
  const [set, setSet] = useState(0);
  return (
    <section aria-label="Timers" className="flex flex-col gap-2">
      <h2 className="text-xl">Timers</h2>
      <ul>
        {timers.map(({ id, name, ringsAt }) => (
          <li key={id} className="flex flex-wrap items-center gap-x-3">
            <span>
              {format.name(name)} <span className="text-soft">rings {format.moment(ringsAt)}</span>
            </span>
            <Button look="quiet" aria-label={`Stop ${name}`} onClick={() => hearing.run({ id })}>
              Stop it
            </Button>
          </li>
        ))}
      </ul>
      <Faults faults={hearing.faults} />
      <SetTimer key={set} jobId={jobId} setTimer={actions.setTimer} done={() => setSet(set + 1)} />
    </section>
  );
}

interface SetProps {
  readonly jobId: string;
  readonly setTimer: CalendarActions['setTimer'];
  readonly done: () => void;
}

function SetTimer({ jobId, setTimer, done }: SetProps) {
  const format = useFormat();
  const form = useEntryForm({
    schema: newTimer,
    action: setTimer,
    defaults: { name: '', after: '' },
    read: ({ name, after }, faults, id) => {
      const minutes = parseDuration(after, CLOCK_DAY);
      if (!name.trim()) faults.push({ path: 'name', message: 'what it rings for' });
      if (!minutes) faults.push({ path: 'after', message: 'so long: 45 min, 24 h' });
      const ringsAt = new Date(Date.now() + (minutes ?? 0) * MS_PER_MINUTE).toISOString();
      return { id, jobId, name: name.trim(), stepId: null, ringsAt };
    },
    done,
  });
  return (
    <form className="flex flex-wrap items-end gap-2" onSubmit={form.submit} noValidate>
      <TextField label="Rings for" placeholder={format.name('primer on the left sill')} {...form.field('name')} />
      <TextField label="After" placeholder="45 min" {...form.field('after')} />
      <Button type="submit" disabled={form.pending}>
        Set it
      </Button>
      <Faults faults={form.faults} />
    </form>
  );
}
