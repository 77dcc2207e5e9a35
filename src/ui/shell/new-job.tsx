'use client';

import { useRouter } from 'next/navigation';
import { newJob, type NewJobInput } from '@/formats/inputs/jobs';
import { Button } from '../kit/button';
import { Faults } from '../kit/faults';
import { TextField } from '../kit/field';
import type { Action } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { JobFields } from './job-fields';

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
          <JobFields field={form.field} />
        </div>
        <Faults faults={form.faults} />
        <Button type="submit" look="main" disabled={form.pending} className="self-start">
          Start the job
        </Button>
      </form>
    </main>
  );
}
