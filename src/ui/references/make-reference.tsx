'use client';

import { useState, type FormEvent } from 'react';
import type { JobRows } from '@/core/shell/job/job-rows';
import { REFERENCE_WORD } from '@/core/report/vocabulary/words';
import type { Fault } from '@/formats/faults';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { SelectField, TextField } from '../kit/field';
import { useAction, type Action } from '../kit/use-action';
import { errorOf } from '../shell/new-job';
import { usePreferences } from '../shell/preferences-context';
import { KindFields } from './kind-fields';
import { KINDS, readReferenceForm, type Kind } from './reference-form';

const EXPLAINED: Readonly<Record<Kind, string>> = {
  sisterCar:
    'The mean of one or more cars of the kind, brought to this shell’s axes; the more cars, the better the scatter is known.',
  mirroredSide:
    'The good side as it was measured, and its mirror image on the other. It does not see damage that is the same on both sides.',
  earlierRound: 'This shell as it stood in an earlier round. It says what changed since, not what is right.',
  plannedChange:
    'An offset from what is judged by now, agreed with the owner: a widened arch, a mounting moved. It is ranked first.',
  keptPart: 'Holes and lines of a part that was cut out and kept, typed one a line.',
  chart: 'A chart typed from what there is, where there is none of the maker’s.',
};

/** Makes a reference out of a round, of sister cars, of a mirrored side, of an agreed change, or of typed figures. */
export function MakeReference({
  rows,
  makeReference,
}: {
  rows: JobRows;
  makeReference: Action<unknown, { referenceId: string }>;
}) {
  const { preferences } = usePreferences();
  const [open, setOpen] = useState(false);
  const [kind, setKind] = useState<Kind>('sisterCar');
  const [own, setOwn] = useState<readonly Fault[]>([]);
  const { run, faults: refused, pending, clear } = useAction(makeReference);
  const forget = () => {
    clear();
    setOwn([]);
  };
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const { value, faults } = readReferenceForm(form, kind, rows.points, typedUnit(preferences));
    setOwn(faults);
    if (faults.length > 0) return;
    const outcome = await run({ jobId: rows.jobs[0]!.id, ...value });
    if (outcome.ok) setOpen(false);
  };
  const faults = [...own, ...refused];
  return (
    <Dialog
      title="Make a reference"
      description={EXPLAINED[kind]}
      open={open}
      onOpenChange={(now) => {
        setOpen(now);
        forget();
      }}
      trigger={<Button look="main">Make a reference</Button>}
    >
      <form onSubmit={submit} className="grid gap-3 sm:grid-cols-2" noValidate>
        <SelectField
          label="Kind"
          value={kind}
          onChange={(event) => {
            setKind(event.target.value as Kind);
            forget();
          }}
          options={KINDS.map((each) => [each, each === 'chart' ? 'chart built by hand' : REFERENCE_WORD[each]])}
        />
        <TextField
          label="Name"
          name="name"
          key={kind}
          defaultValue={kind === 'chart' ? 'Chart built from what there is' : REFERENCE_WORD[kind]}
          error={errorOf(faults, 'name')}
        />
        <KindFields rows={rows} kind={kind} faults={faults} />
        <div className="sm:col-span-2">
          <TextField label="Where it comes from" name="source" />
        </div>
        <div className="sm:col-span-2">
          <Faults faults={faults.filter(({ path }) => /^(of|job|server)(\.|$)/.test(path))} />
        </div>
        <Button type="submit" look="main" disabled={pending} className="justify-self-start">
          Make it
        </Button>
      </form>
    </Dialog>
  );
}
