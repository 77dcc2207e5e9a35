'use client';

import type { AdviceTaken } from '@/core/shell/job/entities';
import { decidedAdvice, type DecidedAdvice } from '@/formats/inputs/cut';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { useAction, type Action } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';

/** A proposal as it is decided on: what it is about and what it rested on. */
export type AdviceOn = Pick<AdviceTaken, 'jobId' | 'kind' | 'key' | 'basis' | 'shown'>;

interface DeclineProps {
  readonly title: string;
  readonly description: string;
  readonly placeholder: string;
  readonly on: AdviceOn;
  readonly decideAdvice: Action<DecidedAdvice>;
}

/** Declines a proposal for a reason. */
export const Decline = ({ title, description, ...rest }: DeclineProps) => (
  <FormDialog title={title} description={description} trigger={<Button>Decline …</Button>}>
    {(close) => <DeclineForm {...rest} done={close} />}
  </FormDialog>
);

function DeclineForm({
  placeholder,
  on,
  decideAdvice,
  done,
}: Omit<DeclineProps, 'title' | 'description'> & { readonly done: () => void }) {
  const form = useEntryForm({
    schema: decidedAdvice,
    action: decideAdvice,
    defaults: { reason: '' },
    read: ({ reason = '' }, faults, id) => {
      if (!reason.trim()) faults.push({ path: 'reason', message: 'say why not' });
      return { id, ...on, choice: 'declined' as const, reason };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Decline it">
      <TextField label="Why not" placeholder={placeholder} {...form.field('reason')} />
    </FormFields>
  );
}

interface DeclinedProps {
  readonly declined: readonly AdviceTaken[];
  /** What a key reads like. */
  readonly said: (key: string) => string;
  readonly on: (key: string) => AdviceOn;
  readonly decideAdvice: Action<DecidedAdvice>;
}

/** What was declined and why, each with what lets it be proposed again. */
export function Declined({ declined, said, on, decideAdvice }: DeclinedProps) {
  const allowing = useAction(decideAdvice);
  if (declined.length === 0) return null;
  return (
    <div className="text-sm text-soft">
      <h3 className="caps">Declined</h3>
      <Faults faults={allowing.faults} />
      <ul>
        {declined.map(({ id, key, reason, author }) => (
          <li key={id} className="flex flex-wrap items-center gap-2">
            {said(key)}: {reason} ({author})
            <Button
              look="quiet"
              onClick={() =>
                allowing.run({ id: crypto.randomUUID(), ...on(key), ...{ choice: 'allowed', reason: '' } })
              }
            >
              Allow again
            </Button>
          </li>
        ))}
      </ul>
    </div>
  );
}
