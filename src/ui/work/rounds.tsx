'use client';

import { Job } from '@/core/shell/job/job';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState, type FormEvent } from 'react';
import { STATE_KINDS, SUPPORT_KINDS, type Round } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { ListedRound } from '@/core/report/pages/rounds';
import { Button, buttonClass } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Empty, Faults } from '../kit/faults';
import { SelectField, TextField } from '../kit/field';
import { useAction, type Action } from '../kit/use-action';
import { errorOf } from '../shell/new-job';
import { useFormat, usePreferences } from '../shell/preferences-context';
import { newestVersions } from '@/core/shell/instruments';
import { STATE_WORD, SUPPORT_WORD, SUSPENSION_WORD } from '@/core/report/vocabulary/words';

/** The rounds of a job, and a new one: state, support, instrument, temperature, who. */
export function Rounds({
  rows,
  rounds,
  openRound,
}: {
  rows: JobRows;
  rounds: readonly ListedRound[];
  openRound: Action<unknown, { roundId: string }>;
}) {
  const format = useFormat();
  const jobId = rows.jobs[0]!.id;
  const state = (round: Round) => rows.shellStates.find((each) => each.id === round.stateId)!;
  const support = (round: Round) => rows.supports.find((each) => each.id === round.supportId)!;
  return (
    <section aria-label="Rounds of measuring" className="flex flex-col gap-3">
      <div className="flex items-center gap-3">
        <h2 className="text-xl">Rounds of measuring</h2>
        <NewRound rows={rows} openRound={openRound} />
      </div>
      {rounds.length === 0 ? <Empty title="No round yet">Open the first one: the shell as found.</Empty> : null}
      <ol className="border-t-2 border-ink empty:hidden">
        {rounds.map(({ round, readings, inside, outside, undecided }) => (
          <li key={round.id} className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-rule py-2">
            <div className="min-w-56 grow">
              <p className="font-cond text-lg font-semibold">
                {round.number}. {round.name}
              </p>
              <p className="text-sm text-soft">
                {STATE_WORD[state(round).kind]} · {SUPPORT_WORD[support(round).kind]},{' '}
                {SUSPENSION_WORD[support(round).suspension]} · {round.author}, {format.day(round.startedAt)}
                {round.temperature === null ? '' : ` · ${round.temperature} °C`}
              </p>
            </div>
            <p className="figures text-sm">
              {readings} readings
              {inside + outside + undecided > 0 ? (
                <span className="text-soft">
                  {' '}
                  · {inside} inside, {outside} outside, {undecided} undecided
                </span>
              ) : null}
            </p>
            <Link prefetch={false} className={buttonClass()} href={`/jobs/${jobId}/rounds/${round.id}`}>
              Measure
            </Link>
            <Link prefetch={false} className={buttonClass()} href={`/jobs/${jobId}/rounds/${round.id}/sheet`}>
              Sheet
            </Link>
          </li>
        ))}
      </ol>
    </section>
  );
}

function NewRound({ rows, openRound }: { rows: JobRows; openRound: Action<unknown, { roundId: string }> }) {
  const router = useRouter();
  const { preferences } = usePreferences();
  const [open, setOpen] = useState(false);
  const [missing, setMissing] = useState<Readonly<Record<string, string>>>({});
  const { run, faults, pending } = useAction(openRound);
  const jobId = rows.jobs[0]!.id;
  const last = Job.of(rows).ownRounds.at(-1);
  const lastSupport = rows.supports.find((each) => each.id === last?.supportId);
  const versions = newestVersions({ rows });
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const text = (field: string) => String(form.get(field) ?? '').trim();
    const temperature = text('temperature').replace(',', '.');
    const found: Record<string, string> = {};
    if (!text('name')) found.name = 'the round needs a name';
    if (!text('author')) found.author = 'say who measures';
    if (temperature && !Number.isFinite(Number(temperature)))
      found.temperature = `"${temperature}" is not a temperature`;
    setMissing(found);
    if (Object.keys(found).length > 0) return;
    const id = crypto.randomUUID();
    const stateId = crypto.randomUUID();
    const supportId = crypto.randomUUID();
    const outcome = await run({
      round: {
        id,
        jobId,
        name: text('name'),
        stateId,
        supportId,
        instrumentVersionId: text('instrument'),
        temperature: temperature ? Number(temperature) : null,
        author: text('author'),
        shell: text('shell'),
      },
      state: { id: stateId, jobId, kind: text('state'), note: '' },
      support: {
        id: supportId,
        jobId,
        kind: text('support'),
        suspension: text('suspension'),
        note: text('supportNote'),
      },
      control: rows.roundControls.filter((each) => each.roundId === last?.id).map((each) => each.pointId),
    });
    if (outcome.ok) router.push(`/jobs/${jobId}/rounds/${outcome.value.roundId}`);
  };
  return (
    <Dialog
      title="A round of measuring"
      description="All readings taken in one state of the shell, on one support"
      open={open}
      onOpenChange={setOpen}
      trigger={
        <Button look="main" className="ml-auto">
          New round
        </Button>
      }
    >
      <form onSubmit={submit} className="grid gap-3 sm:grid-cols-2" noValidate>
        <TextField
          label="Name"
          name="name"
          defaultValue={rows.rounds.length === 0 ? 'As found' : ''}
          error={missing.name ?? errorOf(faults, 'round.name')}
        />
        <SelectField
          label="State of the shell"
          name="state"
          options={STATE_KINDS.map((kind) => [kind, STATE_WORD[kind]])}
        />
        <SelectField
          label="It stands on"
          name="support"
          defaultValue={lastSupport?.kind}
          options={SUPPORT_KINDS.map((kind) => [kind, SUPPORT_WORD[kind]])}
        />
        <SelectField
          label="Suspension"
          name="suspension"
          defaultValue={lastSupport?.suspension}
          options={(['off', 'onUnloaded', 'loaded'] as const).map((each) => [each, SUSPENSION_WORD[each]])}
        />
        <TextField label="Support, more exactly" name="supportNote" defaultValue={lastSupport?.note} />
        <SelectField
          label="Distances are taken with"
          name="instrument"
          defaultValue={last?.instrumentVersionId}
          options={rows.instruments.map((instrument) => [versions.get(instrument.id)!.id, instrument.name])}
        />
        <TextField
          label="Temperature, °C"
          name="temperature"
          inputMode="decimal"
          error={missing.temperature ?? errorOf(faults, 'round.temperature')}
        />
        <TextField
          label="Who measures"
          name="author"
          defaultValue={preferences.person || last?.author}
          error={missing.author}
        />
        <TextField label="Another shell, a sister car" name="shell" hint="Left empty for this job’s own shell" />
        <div className="sm:col-span-2">
          <Faults faults={faults} />
        </div>
        <Button type="submit" look="main" disabled={pending} className="justify-self-start">
          Start measuring
        </Button>
      </form>
    </Dialog>
  );
}
