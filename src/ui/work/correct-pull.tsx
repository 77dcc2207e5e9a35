import type { Pull } from '@/core/shell/job/entities';
import { correctedPull, type CorrectedPull } from '@/formats/inputs/work';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import type { Action } from '../kit/use-action';
import { lengthsOf, useEntryForm } from '../kit/use-entry-form';
import { useFormat, usePreferences } from '../shell/preferences-context';

interface Correcting {
  readonly pull: Pull;
  readonly correctPull: Action<CorrectedPull>;
}

/** Corrects what was written of a pull; its readings stay what they were. */
export const CorrectPull = (correcting: Correcting) => (
  <FormDialog
    title={`Correct ${correcting.pull.code}`}
    description="How it was before is kept, with who changed it and when"
    trigger={<Button look="quiet">Correct …</Button>}
  >
    {(close) => <CorrectForm {...correcting} done={close} />}
  </FormDialog>
);

function CorrectForm({ pull, correctPull, done }: Correcting & { done: () => void }) {
  const format = useFormat();
  const { preferences } = usePreferences();
  const form = useEntryForm({
    schema: correctedPull,
    action: correctPull,
    defaults: {
      ...{ code: pull.code, heldAt: pull.heldAt, note: pull.note },
      ...{ aimX: format.length(pull.aimX), aimY: format.length(pull.aimY), aimZ: format.length(pull.aimZ) },
    },
    read: ({ code = '', heldAt = '', note = '', ...aims }, faults) => {
      if (!code.trim()) faults.push({ path: 'code', message: 'mark it with a code' });
      const length = lengthsOf(aims, typedUnit(preferences), faults);
      // What was not touched stays to the last digit, not to the digit shown.
      const aim = (axis: 'aimX' | 'aimY' | 'aimZ') =>
        aims[axis] === format.length(pull[axis]) ? pull[axis] : length(axis);
      return {
        ...{ ...pull, code: code.trim(), heldAt, note },
        ...{ aimX: aim('aimX'), aimY: aim('aimY'), aimZ: aim('aimZ') },
      };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Keep it so">
      <TextField label="Code" {...form.field('code')} />
      <TextField label={`Wanted rearward, ${format.unit}`} {...form.field('aimX')} />
      <TextField label="To the right" {...form.field('aimY')} />
      <TextField label="Up" {...form.field('aimZ')} />
      <TextField label="How it is held" {...form.field('heldAt')} />
      <TextField label="Note" {...form.field('note')} />
    </FormFields>
  );
}
