'use client';

import { useRouter } from 'next/navigation';
import type { Job } from '@/core/shell/job/entities';
import { newJob, type NewJobInput } from '@/formats/inputs/jobs';
import { Button } from '../kit/button';
import { Faults } from '../kit/faults';
import { SelectField, TextField } from '../kit/field';
import type { Action } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { JobFields } from './job-fields';

const FIELDS = { name: '', shell: '', identityNumber: '', owner: '', shop: '', bench: '', afterId: '' };
type Values = typeof FIELDS & { driverSide: NewJobInput['driverSide'] };

/** A job that the next car of the same model can begin from. */
export interface EarlierJob extends Pick<Job, 'id' | 'name' | 'shell' | 'driverSide' | 'bench' | 'shop'> {
  readonly isSigned: boolean;
}

interface NewJobProps {
  readonly createJob: Action<NewJobInput, { jobId: string }>;
  readonly earlier: readonly EarlierJob[];
  /** The one that was asked for; empty where none was. */
  readonly afterId: string;
}

/** A job by hand: the shell, its papers, and which side the driver sits on: asked once. It begins empty, or from an earlier one. */
export function NewJob({ createJob, earlier, afterId }: NewJobProps) {
  const router = useRouter();
  const of = (id: string) => earlier.find((each) => each.id === id);
  const defaults: Values = { ...FIELDS, afterId, driverSide: of(afterId)?.driverSide ?? 'left' };
  const form = useEntryForm({
    schema: newJob,
    action: createJob,
    defaults,
    read: ({ afterId: after, ...values }, faults, id) => {
      if (!values.name.trim()) faults.push({ path: 'name', message: 'Give the job a name, such as the shell’s.' });
      // What is not said is as it was on the car before.
      const { shell = values.name, bench = '', shop = '' } = of(after ?? '') ?? {};
      const said = (typed: string, else_: string) => typed.trim() || else_;
      return {
        ...{ ...values, id, afterId: after || null },
        ...{ shell: said(values.shell, shell), bench: said(values.bench, bench), shop: said(values.shop, shop) },
      };
    },
    done: ({ jobId }) => router.push(`/jobs/${jobId}/chart`),
  });
  const chosen = of(form.watch('afterId') ?? '');
  return (
    <main className="mx-auto flex max-w-2xl flex-col gap-4 p-6">
      <h1 className="text-2xl">A shell comes in</h1>
      <form onSubmit={form.submit} className="flex flex-col gap-4" noValidate>
        <TextField label="Name of the job" {...form.field('name')} autoFocus />
        {earlier.length > 0 ? (
          <SelectField
            label="It begins from"
            {...form.field('afterId')}
            options={[
              ['', 'nothing: an empty chart and the usual steps'],
              ...earlier.map(({ id, name, isSigned }) => [id, `${name}${isSigned ? ', signed' : ''}`] as const),
            ]}
          />
        ) : null}
        {chosen ? <TakenOver from={chosen} /> : null}
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

/** What the second car of a model has from the first, and what it has not. */
const TakenOver = ({ from }: { from: EarlierJob }) => (
  <aside aria-label="Taken over" className="flex flex-col gap-1 border-l-4 border-ink bg-sheet px-3 py-2 text-sm">
    <p>
      From <span data-typed>{from.name}</span> it has the points and the chart in use, set-ups with their stacks, the
      structure, the braces that were fitted, what was cut with its joints and how they were welded, how panels are set,
      the steps with the hours they took, and how far the metal came home when a pull was let go. Shell, shop and bench
      are as there where you leave them empty.
    </p>
    <p className="text-soft">
      Nothing that was found, read or done on it: rust, damage, readings, records and pulls are its own. The structure
      is taken to be sound until you say otherwise.
      {from.isSigned ? '' : ' No record of it is signed yet: look at what is taken over.'}
    </p>
  </aside>
);
