'use client';

import { useRouter } from 'next/navigation';
import { newJob, type NewJobInput } from '@/formats/inputs/jobs';
import { Button } from '../kit/button';
import { Faults } from '../kit/faults';
import { SelectField, TextField } from '../kit/field';
import type { Action } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';

const FIELDS = { name: '', shell: '', identityNumber: '', owner: '', shop: '', bench: '' };
const DEFAULTS: typeof FIELDS & { driverSide: NewJobInput['driverSide'] } = { ...FIELDS, driverSide: 'left' };

/** A job by hand: the shell, its papers, and which side the driver sits on: asked once. */
export function NewJob({ createJob }: { createJob: Action<NewJobInput, { jobId: string }> }) {
  const router = useRouter();
  const form = useEntryForm({
    schema: newJob,
    action: createJob,
    defaults: DEFAULTS,
    read: (values, faults) => {
      if (!values.name.trim()) faults.push({ path: 'name', message: 'Give the job a name, such as the shell’s.' });
      return { ...values, id: crypto.randomUUID(), shell: values.shell.trim() || values.name };
    },
    done: ({ jobId }) => router.push(`/jobs/${jobId}/chart`),
  });
  return (
    <main className="mx-auto flex max-w-2xl flex-col gap-4 p-6">
      <h1 className="text-2xl">A shell comes in</h1>
      <form onSubmit={form.submit} className="flex flex-col gap-4" noValidate>
        <TextField label="Name of the job" {...form.field('name')} autoFocus />
        <div className="grid gap-4 sm:grid-cols-2">
          <TextField label="Shell, model and year" {...form.field('shell')} />
          <TextField label="Identity number stamped in it" {...form.field('identityNumber')} />
          <TextField label="Owner" {...form.field('owner')} />
          <TextField label="Shop" {...form.field('shop')} />
          <TextField label="Bench or stands" {...form.field('bench')} />
          <SelectField
            label="The driver sits on the"
            {...form.field('driverSide')}
            hint="Left and right are as seen from that seat"
            options={[
              ['left', 'left'],
              ['right', 'right'],
            ]}
          />
        </div>
        <Faults faults={form.faults} />
        <Button type="submit" look="main" disabled={form.pending} className="self-start">
          Start the job
        </Button>
      </form>
    </main>
  );
}
