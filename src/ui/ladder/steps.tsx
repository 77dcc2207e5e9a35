'use client';

import { useState } from 'react';
import type { Rung, Step, StepEvent } from '@/core/shell/job/entities';
import { CAUTIONS, DEFERENCE, type LadderStep } from '@/core/days/ladder';
import {
  correctedStep,
  newStep,
  stepEvent,
  type CorrectedStep,
  type NewStep,
  type StepEventInput,
} from '@/formats/inputs/work';
import { MS_PER_HOUR } from '@/core/maths/units/time';
import type { NewTimer } from '@/formats/inputs/calendar';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { SelectField, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { useAction, type Action } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { useFormat } from '../shell/preferences-context';
import { STEP_EVENT_WORD, STEP_STATE_WORD } from '@/core/report/vocabulary/words';

/** What can be done to the steps of a rung. */
export interface StepActions {
  readonly addStep: Action<NewStep>;
  readonly correctStep: Action<CorrectedStep>;
  readonly recordStepEvent: Action<StepEventInput>;
  readonly setTimer: Action<NewTimer>;
}

/** The steps of one rung with what can be done to each, and the cautions that belong to the rung. */
export function Steps({
  jobId,
  rung,
  steps,
  actions,
}: {
  jobId: string;
  rung: Rung;
  steps: readonly LadderStep[];
  actions: StepActions;
}) {
  const [added, setAdded] = useState(0);
  const recording = useAction(actions.recordStepEvent);
  return (
    <section className="flex flex-col gap-3" aria-label="Steps">
      <Cautions rung={rung} />
      {HOT_RUNGS.includes(rung) ? <FireWatch jobId={jobId} setTimer={actions.setTimer} /> : null}
      <Faults faults={recording.faults} />
      <ol className="border-y border-rule">
        {steps.map((step) => (
          <StepRow key={step.step.id} step={step} record={recording.run} correctStep={actions.correctStep} />
        ))}
        {steps.length === 0 ? <li className="px-2 py-3 text-soft">No steps on this rung yet.</li> : null}
      </ol>
      <AddStep key={added} {...{ jobId, rung, addStep: actions.addStep }} done={() => setAdded(added + 1)} />
    </section>
  );
}

/** Where sparks fly. */
const HOT_RUNGS: readonly Rung[] = ['brace', 'cut', 'pull', 'weld'];
/** From the last spark until it is looked again, ms. */
const WATCH = MS_PER_HOUR;

/** Begins the watch after the last spark: it rings when it is over, on every page of the job. */
function FireWatch({ jobId, setTimer }: { readonly jobId: string; readonly setTimer: StepActions['setTimer'] }) {
  const format = useFormat();
  const { run, faults, pending } = useAction(setTimer);
  const [until, setUntil] = useState<string>();
  // Pressed twice it is one watch.
  const [id, setId] = useState(() => crypto.randomUUID());
  const begin = async () => {
    const ringsAt = new Date(Date.now() + WATCH).toISOString();
    const name = 'Fire watch is over: feel both sides for heat, then look again';
    if (!(await run({ id, jobId, stepId: null, name, ringsAt })).ok) return;
    setUntil(ringsAt);
    setId(crypto.randomUUID());
  };
  return (
    <div className="flex flex-wrap items-center gap-3">
      <Button disabled={pending} onClick={() => void begin()}>
        Last spark now: watch for an hour
      </Button>
      {until ? <p role="status">Somebody watches until {format.time(until)}; it rings then.</p> : null}
      <Faults faults={faults} />
    </div>
  );
}

interface Adding {
  readonly jobId: string;
  readonly rung: Rung;
  readonly addStep: Action<NewStep>;
  readonly done: () => void;
}

function AddStep({ jobId, rung, addStep, done }: Adding) {
  const form = useEntryForm({
    schema: newStep,
    action: addStep,
    defaults: { title: '' },
    read: ({ title = '' }, faults, id) => {
      if (!title.trim()) faults.push({ path: 'title', message: 'say what is to be done' });
      return { id, jobId, rung, title, note: '', needs: '' };
    },
    done,
  });
  return (
    <form className="flex items-end gap-2" onSubmit={form.submit} noValidate>
      <div className="grow">
        <TextField label="Another step" {...form.field('title')} />
        <Faults faults={form.faults} />
      </div>
      <Button type="submit" disabled={form.pending}>
        Add
      </Button>
    </form>
  );
}

/** The usual cautions in plain words, and who decides. */
export function Cautions({ rung }: { rung: Rung }) {
  const format = useFormat();
  const cautions = CAUTIONS[rung];
  if (!cautions) return null;
  const dangerous = ['cut', 'pull', 'weld', 'setUp', 'brace'].includes(rung);
  return (
    <aside aria-label="Cautions" className="border-l-4 border-ink bg-sheet px-3 py-2 text-sm">
      <ul>
        {cautions.map((caution) => (
          <li key={caution}>{format.name(caution)}</li>
        ))}
      </ul>
      {dangerous ? <p className="mt-1 text-soft">{format.name(DEFERENCE)}</p> : null}
    </aside>
  );
}

type Record = Action<StepEventInput>;
interface Stepping {
  readonly step: LadderStep;
  readonly record: Record;
}

function StepRow({ step, record, correctStep }: Stepping & { correctStep: Action<CorrectedStep> }) {
  const format = useFormat();
  const finished = step.state === 'done' || step.state === 'dropped';
  const { event } = step;
  const say = (kind: StepEvent['kind']) =>
    record({ id: crypto.randomUUID(), stepId: step.step.id, kind, until: null, note: '' });
  return (
    <li className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-faint px-2 py-1.5 last:border-b-0">
      <div className="min-w-60 grow">
        <p className={finished ? 'text-soft' : ''}>{format.name(step.step.title)}</p>
        {step.step.needs ? <p className="text-sm text-soft">First: {format.name(step.step.needs)}</p> : null}
      </div>
      <p className="text-sm">
        <span className="font-medium">{STEP_STATE_WORD[step.state]}</span>
        {event ? (
          <span className="text-soft">
            {event.until ? ` until ${format.day(event.until)}` : ''} · {event.author}, {format.day(event.at)}
            {event.note ? ` · ${format.name(event.note)}` : ''}
          </span>
        ) : null}
      </p>
      <div className="flex">
        {finished ? (
          <Button look="quiet" onClick={() => say('reopened')}>
            {STEP_EVENT_WORD.reopened}
          </Button>
        ) : (
          <>
            {step.state === 'open' ? (
              <Button look="quiet" onClick={() => say('begun')}>
                {STEP_EVENT_WORD.begun}
              </Button>
            ) : null}
            <WaitDialog step={step} record={record} />
            <CorrectStep step={step.step} correctStep={correctStep} />
            <Button look="quiet" onClick={() => say('dropped')}>
              {STEP_EVENT_WORD.dropped}
            </Button>
            <Button onClick={() => say('done')}>{STEP_EVENT_WORD.done}</Button>
          </>
        )}
      </div>
    </li>
  );
}

/** A wait ends when the shop opens. */
const MORNING = 8;

const WAITS = [
  ['curing', 'it is curing'],
  ['missing', 'a part is missing'],
] as const;

function WaitDialog({ step, record }: Stepping) {
  return (
    <FormDialog title={step.step.title} trigger={<Button look="quiet">Wait …</Button>}>
      {(close) => <WaitForm stepId={step.step.id} record={record} done={close} />}
    </FormDialog>
  );
}

function WaitForm({ stepId, record, done }: { stepId: string; record: Record; done: () => void }) {
  const format = useFormat();
  const form = useEntryForm({
    schema: stepEvent,
    action: record,
    defaults: { kind: 'curing', until: '', note: '' },
    read: ({ kind, until = '', note = '' }, faults) => {
      if (until && until < format.date(new Date().toISOString()))
        faults.push({ path: 'until', message: 'that day is past: take one to come, or none' });
      return {
        ...{ id: crypto.randomUUID(), stepId, note },
        kind: kind as StepEvent['kind'],
        until: until ? format.instant(until, MORNING) : null,
      };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Wait">
      <SelectField label="Because" options={WAITS} {...form.field('kind')} />
      <TextField label="Until" type="date" {...form.field('until')} />
      <TextField label="What for" placeholder="primer, sealer, part on order" {...form.field('note')} />
    </FormFields>
  );
}

const CorrectStep = (correcting: { step: Step; correctStep: Action<CorrectedStep> }) => (
  <FormDialog
    title="Correct the step"
    description="How it was before is kept, with who changed it and when"
    trigger={<Button look="quiet">Correct …</Button>}
  >
    {(close) => <CorrectStepForm {...correcting} done={close} />}
  </FormDialog>
);

function CorrectStepForm({
  step,
  correctStep,
  done,
}: {
  step: Step;
  correctStep: Action<CorrectedStep>;
  done: () => void;
}) {
  const form = useEntryForm({
    schema: correctedStep,
    action: correctStep,
    defaults: { title: step.title, needs: step.needs },
    read: ({ title = '', needs = '' }, faults) => {
      if (!title.trim()) faults.push({ path: 'title', message: 'say what is to be done' });
      return { ...step, title, needs };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Keep it so">
      <TextField label="What is to be done" {...form.field('title')} />
      <TextField label="What must be there before it" {...form.field('needs')} />
    </FormFields>
  );
}
