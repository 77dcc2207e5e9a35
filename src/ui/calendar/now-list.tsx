import type { CalendarTask } from '@/core/days/calendar/schedule';
import type { Today } from '@/core/days/calendar/today';
import { MS_PER_MINUTE } from '@/core/maths/units/time';
import { keepingText, workText, type CalendarNames } from '@/core/report/calendar-words';
import type { CalendarPage } from '@/core/report/pages/calendar';
import { Button } from '../kit/button';
import { Faults } from '../kit/faults';
import { useAction } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import type { CalendarActions } from './actions';

interface NowProps {
  readonly page: CalendarPage;
  readonly task: CalendarTask;
  readonly now: Today;
  readonly names: CalendarNames;
  readonly actions: Pick<CalendarActions, 'recordStepEvent'>;
}

/** What can be begun now and by whom, what waits, what must not wait longer, and what is to be looked after meanwhile. */
export function NowList({ page, task, now, names, actions }: NowProps) {
  const format = useFormat();
  const recording = useAction(actions.recordStepEvent);
  const stepOf = (id: string) => page.steps.find(({ step }) => step.id === id)!;
  const who = (ids: readonly string[]) =>
    page.people
      .filter(({ id }) => ids.includes(id))
      .map(({ name }) => format.name(name))
      .join(', ');
  return (
    <section aria-label="What can be done now" className="flex flex-col gap-2">
      <h2 className="text-xl">What can be done now</h2>
      {now.can.length === 0 ? <p className="text-soft">Nothing: all that is open waits for something.</p> : null}
      <ul>
        {now.can.map(({ id, slack }) => {
          const { step, people } = stepOf(id);
          return (
            <li
              key={id}
              className="flex flex-wrap items-center gap-x-3 border-b border-faint py-1"
              data-can={step.title}
            >
              <span className="grow">
                {names.step(id)}
                <span className="text-soft">
                  {people.length > 0 ? `, ${who(people)}` : ', nobody named'}
                  {step.minutes === null ? '; how long is not said, an hour is taken' : `, ${workText(step.minutes)}`}
                  {slack < 1 ? '; sets the end' : ''}
                </span>
              </span>
              <Button
                look="quiet"
                disabled={recording.pending}
                aria-label={`Begin ${names.step(id)}`}
                onClick={() =>
                  recording.run({ id: crypto.randomUUID(), stepId: id, kind: 'begun', until: null, note: '' })
                }
              >
                Begin
              </Button>
            </li>
          );
        })}
      </ul>
      <Faults faults={recording.faults} />
      {now.waiting.length > 0 ? (
        <>
          <h3 className="caps">Waits, and needs nobody</h3>
          <ul>
            {now.waiting.map(({ id, until }) => (
              <li key={id}>
                {names.step(id)} <span className="text-soft">until {names.moment(until)}</span>
                <Tending every={stepOf(id).step.tendEvery} task={task} id={id} until={until} names={names} />
              </li>
            ))}
          </ul>
        </>
      ) : null}
      {now.keeping.map(({ id, until, late }) => (
        <p key={id} role={late ? 'alert' : undefined} className={late ? 'border-l-4 border-minus pl-3' : ''}>
          {keepingText(names.step(id), names.moment(until), late)}
        </p>
      ))}
    </section>
  );
}

interface TendingProps extends Pick<NowProps, 'task' | 'names'> {
  readonly id: string;
  readonly every: number | null;
  readonly until: number;
}

/** When what waits is next looked after: wetted anew, turned, read. */
function Tending({ id, every, until, task, names }: TendingProps) {
  const is = task.steps.find((each) => each.id === id)?.is;
  if (!every || is?.kind !== 'worked') return null;
  const next = is.at + Math.ceil((task.now - is.at) / (every * MS_PER_MINUTE)) * every * MS_PER_MINUTE;
  return next < until ? <span>; look after it next at {names.moment(next)}</span> : null;
}
