'use client';

import { useState } from 'react';
import type { Rung, StepEvent } from '@/core/shell/job/entities';
import { CAUTIONS, DEFERENCE, type LadderStep } from '@/core/days/ladder';
import type { NewStep, StepEventInput } from '@/formats/inputs/work';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { TextField } from '../kit/field';
import { useAction, type Action } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import { STEP_EVENT_WORD, STEP_STATE_WORD } from '@/core/report/vocabulary/words';

/** The steps of one rung with what can be done to each, and the cautions that belong to the rung. */
export function Steps({
  jobId,
  rung,
  steps,
  addStep,
  recordStepEvent,
}: {
  jobId: string;
  rung: Rung;
  steps: readonly LadderStep[];
  addStep: Action<NewStep>;
  recordStepEvent: Action<StepEventInput>;
}) {
  const [title, setTitle] = useState('');
  const adding = useAction(addStep);
  const recording = useAction(recordStepEvent);
  const record = (step: LadderStep, kind: StepEvent['kind'], note = '', until: string | null = null) =>
    recording.run({
      id: crypto.randomUUID(),
      stepId: step.step.id,
      kind,
      until,
      note,
    });
  return (
    <section className="flex flex-col gap-3" aria-label="Steps">
      <Cautions rung={rung} />
      <Faults faults={[...adding.faults, ...recording.faults]} />
      <ol className="border-y border-rule">
        {steps.map((step) => (
          <StepRow key={step.step.id} step={step} record={record} />
        ))}
        {steps.length === 0 ? <li className="px-2 py-3 text-soft">No steps on this rung yet.</li> : null}
      </ol>
      <form
        className="flex items-end gap-2"
        onSubmit={async (event) => {
          event.preventDefault();
          if (!title.trim()) return;
          const outcome = await adding.run({ id: crypto.randomUUID(), jobId, rung, title, note: '', needs: '' });
          if (outcome.ok) setTitle('');
        }}
      >
        <div className="grow">
          <TextField label="Another step" value={title} onChange={(event) => setTitle(event.target.value)} />
        </div>
        <Button type="submit">Add</Button>
      </form>
    </section>
  );
}

/** The usual cautions in plain words, and who decides. */
export function Cautions({ rung }: { rung: Rung }) {
  const cautions = CAUTIONS[rung];
  if (!cautions) return null;
  const dangerous = ['cut', 'pull', 'weld', 'setUp', 'brace'].includes(rung);
  return (
    <aside aria-label="Cautions" className="border-l-4 border-ink bg-sheet px-3 py-2 text-sm">
      <ul>
        {cautions.map((caution) => (
          <li key={caution}>{caution}</li>
        ))}
      </ul>
      {dangerous ? <p className="mt-1 text-soft">{DEFERENCE}</p> : null}
    </aside>
  );
}

type Record = (step: LadderStep, kind: StepEvent['kind'], note?: string, until?: string | null) => Promise<unknown>;

function StepRow({ step, record }: { step: LadderStep; record: Record }) {
  const format = useFormat();
  const finished = step.state === 'done' || step.state === 'dropped';
  const { event } = step;
  return (
    <li className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-faint px-2 py-1.5 last:border-b-0">
      <div className="min-w-60 grow">
        <p className={finished ? 'text-soft' : ''}>{step.step.title}</p>
        {step.step.needs ? <p className="text-sm text-soft">First: {step.step.needs}</p> : null}
      </div>
      <p className="text-sm">
        <span className="font-medium">{STEP_STATE_WORD[step.state]}</span>
        {event ? (
          <span className="text-soft">
            {event.until ? ` until ${format.day(event.until)}` : ''} · {event.author}, {format.day(event.at)}
            {event.note ? ` · ${event.note}` : ''}
          </span>
        ) : null}
      </p>
      <div className="flex">
        {finished ? (
          <Button look="quiet" onClick={() => record(step, 'reopened')}>
            {STEP_EVENT_WORD.reopened}
          </Button>
        ) : (
          <>
            {step.state === 'open' ? (
              <Button look="quiet" onClick={() => record(step, 'begun')}>
                {STEP_EVENT_WORD.begun}
              </Button>
            ) : null}
            <WaitDialog step={step} record={record} />
            <Button look="quiet" onClick={() => record(step, 'dropped')}>
              {STEP_EVENT_WORD.dropped}
            </Button>
            <Button onClick={() => record(step, 'done')}>{STEP_EVENT_WORD.done}</Button>
          </>
        )}
      </div>
    </li>
  );
}

/** A wait ends when the shop opens. */
const MORNING = 8;

function WaitDialog({ step, record }: { step: LadderStep; record: Record }) {
  const format = useFormat();
  const [open, setOpen] = useState(false);
  const [until, setUntil] = useState('');
  const [note, setNote] = useState('');
  const wait = async (kind: 'curing' | 'missing') => {
    await record(step, kind, note, until ? format.instant(until, MORNING) : null);
    setOpen(false);
  };
  return (
    <Dialog title={step.step.title} open={open} onOpenChange={setOpen} trigger={<Button look="quiet">Wait …</Button>}>
      <TextField label="Until" type="date" value={until} onChange={(event) => setUntil(event.target.value)} />
      <TextField
        label="What for"
        value={note}
        onChange={(event) => setNote(event.target.value)}
        placeholder="primer, sealer, part on order"
      />
      <div className="flex gap-2">
        <Button onClick={() => wait('curing')}>It is curing</Button>
        <Button onClick={() => wait('missing')}>A part is missing</Button>
      </div>
    </Dialog>
  );
}
