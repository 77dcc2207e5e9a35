'use client';

import { Undo2 } from 'lucide-react';
import type { Withdrawal } from '@/core/shell/job/entities';
import type { TakenBack } from '@/core/report/taken-back';
import { withdrawal, type WithdrawalInput } from '@/formats/inputs/work';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { useAction, type Action } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { useFormat } from '../shell/preferences-context';

/** Something written, and what takes it back. */
export interface Taking {
  readonly row: Pick<Withdrawal, 'jobId' | 'tableName' | 'rowId'>;
  /** What it is called: `brace X1`. */
  readonly what: string;
  readonly withdraw: Action<WithdrawalInput>;
}

/** Takes back something that was written by mistake; it stays in the record with the reason. */
export const TakeBack = ({ label = 'Take back', ...taking }: Taking & { label?: string }) => (
  <FormDialog
    title={`Take back ${taking.what}?`}
    description="It stays in the record as taken back, with the reason; it can be put back"
    trigger={<Button look="quiet">{label}</Button>}
  >
    {(close) => <TakeBackForm {...taking} done={close} />}
  </FormDialog>
);

function TakeBackForm({ row, withdraw, done }: Taking & { done: () => void }) {
  const form = useEntryForm({
    schema: withdrawal,
    action: withdraw,
    defaults: { reason: '' },
    read: ({ reason = '' }, faults, id) => {
      if (!reason.trim()) faults.push({ path: 'reason', message: 'say why it is taken back' });
      return { id, ...row, kind: 'withdrawn' as const, reason };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Take it back">
      <TextField label="Why" placeholder="pressed by mistake" {...form.field('reason')} />
    </FormFields>
  );
}

/** What was taken back here, each with the button that puts it back. */
export function TakenBackList({ list, withdraw }: { list: readonly TakenBack[]; withdraw: Action<WithdrawalInput> }) {
  const format = useFormat();
  const { run, faults } = useAction(withdraw);
  if (list.length === 0) return null;
  return (
    <section aria-label="Taken back" className="flex flex-col gap-1 text-sm text-soft">
      <h2 className="caps">Taken back</h2>
      <Faults faults={faults} />
      <ul>
        {list.map(({ what, withdrawal: { id, jobId, tableName, rowId, reason, author, at } }) => (
          <li key={id} className="flex flex-wrap items-center gap-x-3">
            <span>
              <s>{format.name(what)}</s>: {format.name(reason)} ({author}, {format.day(at)})
            </span>
            <Button
              look="quiet"
              onClick={() => run({ id: crypto.randomUUID(), jobId, tableName, rowId, kind: 'restored', reason: '' })}
            >
              <Undo2 size={16} aria-hidden /> Put it back
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
