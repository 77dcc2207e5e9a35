'use client';

import { useState } from 'react';
import { Job } from '@/core/shell/job/job';
import type { JobRows } from '@/core/shell/job/job-rows';
import { REFERENCE_WORD } from '@/core/report/vocabulary/words';
import { typedUnit } from '@/formats/preferences';
import { newReference, type NewReference } from '@/formats/inputs/references';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { SelectField, TextField } from '../kit/field';
import type { Action } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { usePreferences } from '../shell/preferences-context';
import { KindFields } from './kind-fields';
import { FIELDS, KINDS, readMaking, type Kind } from './reference-form';
import { FormFields } from '../kit/form-fields';

const EXPLAINED: Readonly<Record<Kind, string>> = {
  sisterCar:
    'The mean of one or more cars of the kind, brought to this shell’s axes; the more cars, the better the scatter is known.',
  mirroredSide:
    'The good side as it was measured, and its mirror image on the other. It does not see damage that is the same on both sides.',
  earlierRound: 'This shell as it stood in an earlier round. It says what changed since, not what is right.',
  plannedChange:
    'An offset from what is judged by now, agreed with the owner: a widened arch, a mounting moved. It is ranked first.',
  keptPart: 'Holes and lines of a part that was cut out and kept, typed one a line.',
  removedPart:
    'A part that was cut out and measured on the floor in a round of its own, joined to the shell through holes that both have.',
  chart: 'A chart typed from what there is, where there is none of the maker’s.',
};

const KIND_WORD: Readonly<Record<Kind, string>> = {
  ...REFERENCE_WORD,
  keptPart: 'kept part, its figures typed',
  removedPart: 'kept part, from a round of its own',
  chart: 'chart built by hand',
};

interface Making {
  readonly rows: JobRows;
  readonly makeReference: Action<NewReference, { referenceId: string }>;
}

/** Makes a reference out of a round, of sister cars, of a mirrored side, of an agreed change, or of typed figures. */
export function MakeReference(making: Making) {
  const [kind, setKind] = useState<Kind>('sisterCar');
  return (
    <FormDialog
      title="Make a reference"
      description={EXPLAINED[kind]}
      trigger={<Button look="main">Make a reference</Button>}
    >
      {(close) => (
        <>
          <SelectField
            label="Kind"
            value={kind}
            onChange={(event) => setKind(event.target.value as Kind)}
            options={KINDS.map((each) => [each, KIND_WORD[each]])}
          />
          <MakingForm key={kind} {...making} kind={kind} done={close} />
        </>
      )}
    </FormDialog>
  );
}

function MakingForm({ rows, makeReference, kind, done }: Making & { kind: Kind; done: () => void }) {
  const { preferences } = usePreferences();
  const form = useEntryForm({
    schema: newReference,
    action: makeReference,
    defaults: {
      ...FIELDS,
      name: kind === 'chart' ? 'Chart built from what there is' : KIND_WORD[kind],
      sisters: rows.rounds.filter(({ shell }) => shell !== '').map(({ id }) => id),
      round: Job.of(rows).ownRounds[0]?.id ?? '',
      part: rows.rounds.findLast(({ shell }) => shell !== '')?.id ?? '',
    },
    read: (values, faults) => ({
      jobId: rows.jobs[0]!.id,
      ...{ name: values.name.trim(), source: (values.source ?? '').trim() },
      of: readMaking(values, kind, rows.points, typedUnit(preferences), faults),
    }),
    done,
  });
  return (
    <FormFields form={form} yes="Make it">
      <TextField label="Name" {...form.field('name')} />
      <KindFields rows={rows} kind={kind} field={form.field} />
      <div className="sm:col-span-2">
        <TextField label="Where it comes from" {...form.field('source')} />
      </div>
    </FormFields>
  );
}
