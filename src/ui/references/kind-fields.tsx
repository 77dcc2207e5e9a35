import { Job } from '@/core/shell/job/job';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { Fault } from '@/formats/faults';
import { SelectField, TextArea, TextField } from '../kit/field';
import { errorOf } from '../shell/new-job';
import type { Kind } from './reference-form';

/** The fields a reference of one kind needs. */
export function KindFields({ rows, kind, faults }: { rows: JobRows; kind: Kind; faults: readonly Fault[] }) {
  const own = Job.of(rows).ownRounds;
  const sisters = rows.rounds.filter(({ shell }) => shell !== '');
  return (
    <>
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
            error={errorOf(faults, 'through')}
          />
        </fieldset>
      ) : null}
      {kind === 'plannedChange' ? (
        <>
          <TextField
            label="Points"
            name="points"
            hint="Codes with blanks between"
            error={errorOf(faults, 'points')}
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
              <TextField key={axis} label={label} name={axis} defaultValue="0" error={errorOf(faults, axis)} />
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
          <TextField label="Trusted ±" name="trust" defaultValue="2" error={errorOf(faults, 'trust')} />
        </>
      ) : null}
    </>
  );
}
