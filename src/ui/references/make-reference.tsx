'use client';

import { useState, type FormEvent } from 'react';
import { ownRounds, type JobRows } from '@/core/job/job-rows';
import { parseLength } from '@/core/units/length';
import { REFERENCE_WORD } from '@/core/vocabulary/words';
import type { Fault } from '@/formats/faults';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { SelectField, TextArea, TextField } from '../kit/field';
import { useAction, type Action } from '../kit/use-action';
import { errorOf } from '../shell/new-job';
import { usePreferences } from '../shell/preferences-context';

const KINDS = ['sisterCar', 'mirroredSide', 'earlierRound', 'plannedChange', 'keptPart', 'chart'] as const;
type Kind = (typeof KINDS)[number];

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
  const [found, setFound] = useState<readonly Fault[]>([]);
  const { run, faults, pending, clear } = useAction(makeReference);
  const jobId = rows.jobs[0]!.id;
  const own = ownRounds(rows);
  const sisters = rows.rounds.filter(({ shell }) => shell !== '');
  const unit = typedUnit(preferences);
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const text = (field: string) => String(form.get(field) ?? '').trim();
    const mine: Fault[] = [];
    const length = (field: string) => {
      const parsed = parseLength(text(field) || '0', unit);
      if (!parsed.ok) mine.push({ path: field, message: parsed.reason });
      return parsed.ok ? parsed.mm : 0;
    };
    const points = (field: string) =>
      text(field)
        .split(/[\s,;]+/)
        .filter(Boolean)
        .flatMap((code) => {
          const point = rows.points.find((each) => each.code.toLowerCase() === code.toLowerCase());
          if (!point) mine.push({ path: field, message: `no point "${code}"` });
          return point ? [point.id] : [];
        });
    const of = {
      sisterCar: () => ({ roundIds: form.getAll('sister').map(String), through: points('through') }),
      mirroredSide: () => ({ roundId: text('round'), good: text('good') }),
      earlierRound: () => ({ roundId: text('round') }),
      plannedChange: () => ({ pointIds: points('points'), offset: [length('x'), length('y'), length('z')] }),
      keptPart: () => ({ figures: text('figures'), unit, trust: length('trust') / 2 }),
      chart: () => ({ figures: text('figures'), unit, trust: length('trust') / 2 }),
    }[kind]();
    setFound(mine);
    if (mine.length > 0) return;
    const outcome = await run({ jobId, name: text('name'), source: text('source'), of: { kind, ...of } });
    if (outcome.ok) setOpen(false);
  };
  const all = [...found, ...faults];
  return (
    <Dialog
      title="Make a reference"
      description={EXPLAINED[kind]}
      open={open}
      onOpenChange={(now) => {
        setOpen(now);
        clear();
        setFound([]);
      }}
      trigger={<Button look="main">Make a reference</Button>}
    >
      <form onSubmit={submit} className="grid gap-3 sm:grid-cols-2" noValidate>
        <SelectField
          label="Kind"
          value={kind}
          onChange={(event) => {
            setKind(event.target.value as Kind);
            clear();
            setFound([]);
          }}
          options={KINDS.map((each) => [each, each === 'chart' ? 'chart built by hand' : REFERENCE_WORD[each]])}
        />
        <TextField
          label="Name"
          name="name"
          key={kind}
          defaultValue={kind === 'chart' ? 'Chart built from what there is' : REFERENCE_WORD[kind]}
          error={errorOf(all, 'name')}
        />
        {kind === 'earlierRound' || kind === 'mirroredSide' ? (
          <SelectField
            label="Round"
            name="round"
            options={own.map(({ id, number, name }) => [id, `${number}. ${name}`])}
          />
        ) : null}
        {kind === 'mirroredSide' ? (
          <SelectField
            label="Good side"
            name="good"
            options={[
              ['left', 'left'],
              ['right', 'right'],
            ]}
          />
        ) : null}
        {kind === 'sisterCar' ? (
          <fieldset className="sm:col-span-2">
            <legend className="caps">Cars</legend>
            {sisters.length === 0 ? (
              <p className="text-soft">
                No round of a sister car is here yet: bring one in from a file, or open one under Measure.
              </p>
            ) : null}
            {sisters.map(({ id, number, shell }) => (
              <label key={id} className="flex min-h-11 items-center gap-2">
                <input type="checkbox" name="sister" value={id} defaultChecked className="h-5 w-5" /> {number}. {shell}
              </label>
            ))}
            <TextField
              label="Brought onto each other through"
              name="through"
              hint="Point codes; left empty, the largest set that agrees is used."
              error={errorOf(all, 'through')}
            />
          </fieldset>
        ) : null}
        {kind === 'plannedChange' ? (
          <>
            <TextField
              label="Points"
              name="points"
              hint="Codes with blanks between"
              error={errorOf(all, 'points')}
              className="min-h-11 w-full border border-rule bg-sheet px-2.5 py-1.5"
            />
            <div className="grid grid-cols-3 gap-2">
              {(
                [
                  ['x', 'Rearward'],
                  ['y', 'To the right'],
                  ['z', 'Up'],
                ] as const
              ).map(([axis, label]) => (
                <TextField key={axis} label={label} name={axis} defaultValue="0" error={errorOf(all, axis)} />
              ))}
            </div>
          </>
        ) : null}
        {kind === 'keptPart' || kind === 'chart' ? (
          <>
            <div className="sm:col-span-2">
              <TextArea
                label="Figures, one a line"
                name="figures"
                rows={6}
                hint="S1L 760 -690 150 for a point, CD1 1432.5 for a dimension"
              />
            </div>
            <TextField label="Trusted ±" name="trust" defaultValue="2" error={errorOf(all, 'trust')} />
          </>
        ) : null}
        <div className="sm:col-span-2">
          <TextField label="Where it comes from" name="source" />
        </div>
        <div className="sm:col-span-2">
          <Faults
            faults={all.filter(
              ({ path }) => path === 'of' || path === 'job' || path === 'server' || path.startsWith('of.'),
            )}
          />
        </div>
        <Button type="submit" look="main" disabled={pending} className="justify-self-start">
          Make it
        </Button>
      </form>
    </Dialog>
  );
}
