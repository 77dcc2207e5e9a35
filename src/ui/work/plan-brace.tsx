import type { ListedBrace } from '@/core/report/pages/braces';
import type { Brace } from '@/core/shell/job/entities';
import { correctedBrace, newBrace, type CorrectedBrace, type NewBrace } from '@/formats/inputs/work';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { FormFields } from '../kit/form-fields';
import type { Action } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { freeCode } from './free-code';
import { BraceFields, readBrace, type BraceFrom } from './brace-fields';

interface Planning {
  readonly from: BraceFrom;
  readonly latestRoundId: string | null;
  readonly planBrace: Action<NewBrace>;
}

export function PlanBrace(planning: Planning) {
  return (
    <FormDialog
      title="Plan a brace"
      trigger={
        <Button look="main" className="ml-auto">
          Plan a brace
        </Button>
      }
    >
      {(close) => <NewBraceForm {...planning} done={close} />}
    </FormDialog>
  );
}

function NewBraceForm({ from, latestRoundId, planBrace, done }: Planning & { done: () => void }) {
  const form = useEntryForm({
    schema: newBrace,
    action: planBrace,
    defaults: {
      code: freeCode(from.rows.braces, 'X'),
      kind: 'weldedTube' as Brace['kind'],
      ...{ from: '', to: '', section: '', holds: '' },
    },
    read: (values, faults, id) => {
      const { fields, dimensionIds } = readBrace(from, values, faults);
      return {
        brace: { id, jobId: from.rows.jobs[0]!.id, ...fields, roundId: latestRoundId, note: '' },
        dimensionIds,
      };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Plan it">
      <BraceFields from={from} field={form.field} watch={form.watch} />
    </FormFields>
  );
}

interface Correcting {
  readonly from: BraceFrom;
  readonly listed: ListedBrace;
  readonly correctBrace: Action<CorrectedBrace>;
}

/** Corrects what was written of a brace. */
export const CorrectBrace = (correcting: Correcting) => (
  <FormDialog
    title={`Correct ${correcting.listed.brace.code}`}
    description="How it was before is kept, with who changed it and when"
    trigger={<Button look="quiet">Correct …</Button>}
  >
    {(close) => <CorrectForm {...correcting} done={close} />}
  </FormDialog>
);

function CorrectForm({ from, listed, correctBrace, done }: Correcting & { done: () => void }) {
  const { brace } = listed;
  const form = useEntryForm({
    schema: correctedBrace,
    action: correctBrace,
    defaults: {
      ...{ code: brace.code, kind: brace.kind, section: brace.section, from: listed.from, to: listed.to },
      holds: listed.holds.map(({ code }) => code).join(' '),
    },
    read: (values, faults) => {
      const { fields, dimensionIds } = readBrace(from, values, faults);
      return { brace: { ...brace, ...fields }, dimensionIds };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Keep it so">
      <BraceFields from={from} field={form.field} watch={form.watch} />
    </FormFields>
  );
}
