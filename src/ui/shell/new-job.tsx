'use client';

import { useRouter } from 'next/navigation';
import { useState, type FormEvent } from 'react';
import type { Fault } from '@/formats/faults';
import { Button } from '../kit/button';
import { Faults } from '../kit/faults';
import { SelectField, TextField } from '../kit/field';
import { useAction, type Action } from '../kit/use-action';

/** What went wrong with one field of a form. */
export const errorOf = (faults: readonly Fault[], path: string): string | undefined =>
  faults.find((fault) => fault.path === path)?.message;

/** A job by hand: the shell, its papers, and which side the driver sits on: asked once. */
export function NewJob({ createJob }: { createJob: Action<unknown, { jobId: string }> }) {
  const router = useRouter();
  const { run, faults, pending } = useAction(createJob);
  const [missing, setMissing] = useState('');
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const text = (field: string) => String(form.get(field) ?? '').trim();
    if (!text('name')) return setMissing('Give the job a name, such as the shell’s.');
    setMissing('');
    const outcome = await run({
      id: crypto.randomUUID(),
      name: text('name'),
      shell: text('shell') || text('name'),
      identityNumber: text('identityNumber'),
      owner: text('owner'),
      shop: text('shop'),
      bench: text('bench'),
      driverSide: text('driverSide'),
    });
    if (outcome.ok) router.push(`/jobs/${outcome.value.jobId}/chart`);
  };
  return (
    <main className="mx-auto flex max-w-2xl flex-col gap-4 p-6">
      <h1 className="text-2xl">A shell comes in</h1>
      <form onSubmit={submit} className="flex flex-col gap-4" noValidate>
        <TextField label="Name of the job" name="name" error={missing || errorOf(faults, 'name')} autoFocus />
        <div className="grid gap-4 sm:grid-cols-2">
          <TextField label="Shell, model and year" name="shell" error={errorOf(faults, 'shell')} />
          <TextField
            label="Identity number stamped in it"
            name="identityNumber"
            error={errorOf(faults, 'identityNumber')}
          />
          <TextField label="Owner" name="owner" />
          <TextField label="Shop" name="shop" />
          <TextField label="Bench or stands" name="bench" />
          <SelectField
            label="The driver sits on the"
            name="driverSide"
            hint="Left and right are as seen from that seat"
            options={[
              ['left', 'left'],
              ['right', 'right'],
            ]}
          />
        </div>
        <Faults faults={faults} />
        <Button type="submit" look="main" disabled={pending} className="self-start">
          Start the job
        </Button>
      </form>
    </main>
  );
}
