'use client';

import { Link } from '../kit/link';
import type { CuttingPage } from '@/core/report/pages/cutting';
import { savedStage, type SavedStage } from '@/formats/inputs/cut';
import { Button, buttonClass } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import type { Action } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { useFormat } from '../shell/preferences-context';

interface StripProps {
  readonly page: CuttingPage;
  readonly stage: number;
  readonly room: 'brace' | 'cut';
  readonly saveStage: Action<SavedStage>;
}

const STATE_WORD = { planned: 'planned', out: 'metal out', tacked: 'new metal tacked', in: 'new metal in' } as const;

/** The stages on a line, the one in hand marked; each leads to the shell after it. */
export function StageStrip({ page, stage, room, saveStage }: StripProps) {
  const format = useFormat();
  return (
    <nav aria-label="Stages" className="no-print flex min-h-11 flex-wrap items-center gap-2">
      {page.stages.map(({ id, name, ordinal, state, panels }, i) => (
        <Link
          key={id}
          href={`/jobs/${page.jobId}/${room}?stage=${ordinal}`}
          aria-current={i === stage ? 'step' : undefined}
          className={buttonClass(i === stage ? 'main' : 'plain')}
        >
          <span>
            {i + 1} {format.name(name)}
            <span className="block text-xs">
              {panels.length} {panels.length === 1 ? 'panel' : 'panels'}, {STATE_WORD[state]}
            </span>
          </span>
        </Link>
      ))}
      <FormDialog
        title="A stage of the cutting"
        description="What comes out together; one side is finished before the other is begun"
        trigger={<Button>Another stage</Button>}
      >
        {(close) => <StageForm page={page} saveStage={saveStage} done={close} />}
      </FormDialog>
    </nav>
  );
}

function StageForm({ page, saveStage, done }: Pick<StripProps, 'page' | 'saveStage'> & { readonly done: () => void }) {
  const form = useEntryForm({
    schema: savedStage,
    action: saveStage,
    defaults: { name: '' },
    read: ({ name }, faults, id): SavedStage => {
      if (!name.trim()) faults.push({ path: 'name', message: 'say what comes out' });
      return newStage(page, id, name.trim());
    },
    done,
  });
  return (
    <FormFields form={form} yes="Begin it">
      <TextField label="What comes out" {...form.field('name')} />
    </FormFields>
  );
}

/** A stage after all others. */
export const newStage = ({ jobId, stages }: Pick<CuttingPage, 'jobId' | 'stages'>, id: string, name: string) => ({
  item: { id, jobId, kind: 'stage' as const, code: `stage-${id.slice(0, 8)}`, name, version: 1 },
  stage: { id, jobId, ordinal: stages.length, version: 1 },
});
