import type { BaseSyntheticEvent, ReactNode } from 'react';
import type { Fault } from '@/formats/faults';
import { Button } from './button';
import { Faults } from './faults';

/** What a form is to those that draw it. */
export interface DrawnForm {
  readonly submit: (event?: BaseSyntheticEvent) => Promise<void>;
  readonly faults: readonly Fault[];
  readonly pending: boolean;
}

/** The fields of a form in two columns, what was refused of the whole, and the button that sends it. */
export function FormFields({ form, yes, children }: { form: DrawnForm; yes: string; children: ReactNode }) {
  return (
    <form onSubmit={form.submit} className="grid gap-3 sm:grid-cols-2" noValidate>
      {children}
      <div className="sm:col-span-2">
        <Faults faults={form.faults} />
      </div>
      <Button type="submit" look="main" disabled={form.pending} className="justify-self-start">
        {yes}
      </Button>
    </form>
  );
}
