import type { UseFormRegisterReturn } from 'react-hook-form';
import { Job } from '@/core/shell/job/job';
import type { JobRows } from '@/core/shell/job/job-rows';
import { SelectField, TextArea, TextField } from '../kit/field';
import type { Fields, Kind } from './reference-form';

/** What a labelled field of this name is given. */
type Field = (name: keyof Fields) => UseFormRegisterReturn & { readonly error?: string };

/** The fields a reference of one kind needs. */
export function KindFields({ rows, kind, field }: { rows: JobRows; kind: Kind; field: Field }) {
  const own = Job.of(rows).ownRounds;
  const sisters = rows.rounds.filter(({ shell }) => shell !== '');
  const { error: _, ...sisterBox } = field('sisters');
  return (
    <>
      {kind === 'earlierRound' || kind === 'mirroredSide' ? (
        <SelectField
          label="Round"
          {...field('round')}
          options={own.map(({ id, number, name }) => [id, `${number}. ${name}`])}
        />
      ) : null}
      {kind === 'mirroredSide' ? (
        <SelectField
          label="Good side"
          {...field('good')}
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
              <input type="checkbox" value={id} className="h-5 w-5" {...sisterBox} /> {number}. {shell}
            </label>
          ))}
          <TextField
            label="Brought onto each other through"
            {...field('through')}
            hint="Point codes; left empty, the largest set that agrees is used."
          />
        </fieldset>
      ) : null}
      {kind === 'removedPart' ? (
        <>
          <SelectField
            label="Round of the part"
            {...field('part')}
            options={sisters.map(({ id, number, shell }) => [id, `${number}. ${shell}`])}
          />
          <TextField
            label="Joined to the shell through"
            {...field('through')}
            hint="Codes of holes that both have; left empty, all of them"
          />
        </>
      ) : null}
      {kind === 'plannedChange' ? (
        <>
          <TextField
            label="Points"
            {...field('points')}
            hint="Codes with blanks between"
            className="min-h-11 w-full border border-rule bg-sheet px-2.5 py-1.5"
          />
          <div className="grid grid-cols-3 gap-2">
            {(
              [
                ['x', 'Rearward'],
                ['y', 'Right'],
                ['z', 'Up'],
              ] as const
            ).map(([axis, label]) => (
              <TextField key={axis} label={label} {...field(axis)} />
            ))}
          </div>
        </>
      ) : null}
      {kind === 'keptPart' || kind === 'chart' ? (
        <>
          <div className="sm:col-span-2">
            <TextArea
              label="Figures, one a line"
              {...field('figures')}
              rows={6}
              hint="S1L 760 -690 150 for a point, CD1 1432.5 for a dimension"
            />
          </div>
          <TextField label="Trusted ±" {...field('trust')} />
        </>
      ) : null}
    </>
  );
}
