import { useState } from 'react';
import type { PlannedStep } from '@/core/days/calendar/schedule';
import type { Slack } from '@/core/days/calendar/slack';
import { MS_PER_MINUTE } from '@/core/maths/units/time';
import { causeText, slackText, waitText, workText, type CalendarNames } from '@/core/report/calendar-words';
import type { CalendarPage, CalendarStep } from '@/core/report/pages/calendar';
import { RUNG_WORD, STEP_STATE_WORD } from '@/core/report/vocabulary/words';
import { booking } from '@/formats/inputs/calendar';
import { parseDuration } from '@/formats/duration';
import { Button } from '../kit/button';
import { Faults } from '../kit/faults';
import { TextField } from '../kit/field';
import { useAction } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { useFormat } from '../shell/preferences-context';
import type { CalendarActions } from './actions';
import { PlanStep } from './step-form';

interface InHandProps {
  readonly jobId: string;
  readonly page: CalendarPage;
  readonly step: CalendarStep;
  readonly at: PlannedStep | undefined;
  readonly slack: Slack | undefined;
  readonly names: CalendarNames;
  readonly actions: CalendarActions;
}

/** One step: when and why then, what it needs, what was booked on it, and what can be said of it. */
export function StepInHand({ jobId, page, step: of, at, slack, names, actions }: InHandProps) {
  const format = useFormat();
  const { step, state, needs, people, booked, wait } = of;
  const item = page.items.find(({ id }) => id === step.itemId);
  const who = page.people.filter(({ id }) => people.includes(id)).map(({ name }) => format.name(name));
  return (
    <section aria-label="Step in hand" className="flex flex-col gap-2" data-in-hand={step.title}>
      <h2 className="text-xl">{format.name(step.title)}</h2>
      <p className="text-soft">
        {[
          RUNG_WORD[step.rung],
          STEP_STATE_WORD[state],
          item ? format.name(`${item.code} ${item.name}`) : '',
          who.join(', ') || 'nobody named',
          step.minutes === null ? 'how long is not said' : workText(step.minutes),
          wait > 0 ? `then waits ${waitText(Math.round(wait))}` : '',
          step.keeps === null ? '' : `keeps ${waitText(step.keeps)}`,
          booked > 0 ? `${workText(booked)} booked` : '',
        ]
          .filter(Boolean)
          .join(' · ')}
      </p>
      {at && state !== 'done' && state !== 'curing' ? (
        <p>
          {names.moment(at.starts)} to {names.moment(at.ends)}. {causeText(at.cause, names)}{' '}
          {slack ? slackText(slack.minutes) : ''}
        </p>
      ) : null}
      {needs.length > 0 ? <p className="text-soft">After: {needs.map(names.step).join('; ')}</p> : null}
      <Says key={state} {...{ jobId, of, actions }} />
      <div className="flex flex-wrap gap-2">
        <PlanStep {...{ page, step: of }} planStep={actions.planStep} />
        {step.notBefore !== null ? <Earlier of={of} planStep={actions.planStep} /> : null}
      </div>
      <Book stepId={step.id} book={actions.book} />
    </section>
  );
}

/** What came of it: its work is done and it cures from now on, or all of it is done. */
function Says({ jobId, of, actions }: Pick<InHandProps, 'jobId' | 'actions'> & { readonly of: CalendarStep }) {
  const recording = useAction(actions.recordStepEvent);
  const ringing = useAction(actions.setTimer);
  const { step, state, wait } = of;
  // Pressed twice it is said once, and rings once.
  const [ids] = useState(() => ({ event: crypto.randomUUID(), timer: crypto.randomUUID() }));
  const say = (kind: 'begun' | 'done' | 'reopened') =>
    recording.run({ id: crypto.randomUUID(), stepId: step.id, kind, until: null, note: '' });
  const worked = async () => {
    const until = new Date(Date.now() + wait * MS_PER_MINUTE).toISOString();
    const said = await recording.run({ id: ids.event, stepId: step.id, kind: 'curing', until, note: '' });
    if (said.ok)
      await ringing.run({
        id: ids.timer,
        jobId,
        name: `${step.title}: the wait is over`.slice(0, 200),
        stepId: step.id,
        ringsAt: until,
      });
  };
  const pending = recording.pending || ringing.pending;
  return (
    <div className="flex flex-wrap gap-2">
      {state === 'done' || state === 'dropped' ? (
        <Button look="quiet" disabled={pending} onClick={() => say('reopened')}>
          Open it again
        </Button>
      ) : (
        <>
          {state === 'begun' || state === 'curing' ? null : (
            <Button disabled={pending} onClick={() => say('begun')}>
              Begin
            </Button>
          )}
          {wait > 0 && state !== 'curing' ? (
            <Button disabled={pending} onClick={() => void worked()}>
              Worked: it waits from now on, and rings
            </Button>
          ) : null}
          <Button look={state === 'curing' ? 'main' : 'plain'} disabled={pending} onClick={() => say('done')}>
            {state === 'curing' ? 'The wait is over' : 'Done'}
          </Button>
        </>
      )}
      <Faults faults={[...recording.faults, ...ringing.faults]} />
    </div>
  );
}

/** Takes back that it was put later. */
function Earlier({ of, planStep }: { readonly of: CalendarStep; readonly planStep: CalendarActions['planStep'] }) {
  const { run, faults, pending } = useAction(planStep);
  return (
    <>
      <Button
        look="quiet"
        disabled={pending}
        onClick={() => run({ step: { ...of.step, notBefore: null }, needs: [...of.needs], people: [...of.people] })}
      >
        As early as it can be
      </Button>
      <Faults faults={faults} />
    </>
  );
}

interface BookProps {
  readonly stepId: string;
  readonly book: CalendarActions['book'];
}

/** Time that was worked on it: an empty field again each time something is booked. */
function Book(props: BookProps) {
  const [booked, setBooked] = useState(0);
  return <BookForm key={booked} {...props} done={() => setBooked(booked + 1)} />;
}

function BookForm({ stepId, book, done }: BookProps & { readonly done: () => void }) {
  const form = useEntryForm({
    schema: booking,
    action: book,
    defaults: { minutes: '' },
    read: (values, faults, id) => {
      const taken = values.minutes.startsWith('-');
      const minutes = parseDuration(values.minutes.replace(/^-/, ''), 480);
      if (!minutes) faults.push({ path: 'minutes', message: 'so long: 2 h, 45 min; with a minus to take a slip back' });
      return { id, stepId, minutes: (taken ? -1 : 1) * (minutes ?? 0), note: '' };
    },
    done,
  });
  return (
    <form className="flex items-end gap-2" onSubmit={form.submit} noValidate>
      <div className="w-48">
        <TextField label="Worked on it" placeholder="2 h 30" {...form.field('minutes')} />
        <Faults faults={form.faults} />
      </div>
      <Button type="submit" disabled={form.pending}>
        Book
      </Button>
    </form>
  );
}
