'use client';

import { Pencil } from 'lucide-react';
import type { Job } from '@/core/shell/job/entities';
import { jobFields, type JobFields as JobInput } from '@/formats/inputs/jobs';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { TextArea, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import type { Action } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { JobFields } from '../shell/job-fields';

interface Editing {
  readonly job: Job;
  readonly editJob: Action<JobInput, Job>;
}

/** Corrects what is known of the shell and its papers; how it was is kept, with who changed it and when. */
export const EditJob = (editing: Editing) => (
  <FormDialog
    title="The job itself"
    description="How it was before is kept, with who changed it and when"
    trigger={
      <Button look="quiet" aria-label="Change the job’s data">
        <Pencil size={17} aria-hidden />
      </Button>
    }
  >
    {(close) => <EditForm {...editing} done={close} />}
  </FormDialog>
);

function EditForm({ job, editJob, done }: Editing & { done: () => void }) {
  const { name, shell, identityNumber, owner, shop, bench, driverSide, note } = job;
  const fields = { name, shell, identityNumber, owner, shop, bench, driverSide, note };
  const form = useEntryForm({
    schema: jobFields,
    action: editJob,
    defaults: fields,
    read: (values, faults) => {
      if (!values.name?.trim()) faults.push({ path: 'name', message: 'a job needs a name' });
      const typed = Object.fromEntries(Object.entries(values).map(([key, value]) => [key, value ?? '']));
      return { ...job, ...fields, ...typed };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Keep it so">
      <TextField label="Name of the job" {...form.field('name')} />
      <JobFields field={form.field} />
      <TextArea label="Note" {...form.field('note')} />
    </FormFields>
  );
}
