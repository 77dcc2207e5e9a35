'use client';

import type { ReadAxles } from '@/core/report/before-final';
import { axleSentences } from '@/core/report/verification-words';
import type { Job } from '@/core/shell/job/entities';
import { newAxleReading, type NewAxleReading } from '@/formats/inputs/welding';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { SelectField, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { lengthsOf, useEntryForm } from '../kit/use-entry-form';
import type { Action } from '../kit/use-action';
import { useFormat, usePreferences } from '../shell/preferences-context';

interface AxlesProps {
  readonly job: Pick<Job, 'id' | 'track'>;
  readonly read?: ReadAxles;
  /** Those that were measured, oldest first. */
  readonly rounds: readonly { readonly id: string; readonly number: number; readonly name: string }[];
  readonly readAxles: Action<NewAxleReading>;
}

/** Read last of all: both wheelbases, and how the axles stand to each other. */
export function Axles(props: AxlesProps) {
  const format = useFormat();
  const { read } = props;
  const lengths = {
    difference: format.difference,
    plusMinus: (mm: number) => `${format.plusMinus(mm)} ${format.unit}`,
    unit: format.unit,
  };
  return (
    <section aria-label="Wheelbases and axles" className="flex flex-col gap-2 border-t-2 border-ink pt-2">
      <div className="flex flex-wrap items-center gap-4">
        <h2 className="text-xl">Wheelbases and axles, read last</h2>
        <FormDialog
          wide
          title="Wheelbases and axles"
          description="From wheel to wheel, on its wheels or with the hubs hung: plumbed to the floor at the middles of the hubs, each side, and both diagonals."
          trigger={<Button look="quiet">{read ? 'Read them again' : 'Read them'}</Button>}
        >
          {(close) => <AxleForm {...props} done={close} />}
        </FormDialog>
      </div>
      {read ? (
        <ul data-axles={read.axles.difference.verdict}>
          {axleSentences(read.axles, lengths).map((sentence) => (
            <li key={sentence}>{sentence}</li>
          ))}
          <li className="text-soft">
            In “{format.name(read.round)}”, {read.reading.author}, {format.day(read.reading.at)}.
          </li>
        </ul>
      ) : (
        <p className="text-soft">
          Not read yet. A shell can agree point by point and still roll crooked: left and right wheelbase tell.
        </p>
      )}
    </section>
  );
}

/** What a tape between two plumb lines is worth, and what is let pass, mm; where nobody typed a track, one to begin with. */
const USUAL = { sd: 1.5, most: 5, track: 1300 } as const;

function AxleForm({ job, read, rounds, readAxles, done }: AxlesProps & { readonly done: () => void }) {
  const { preferences } = usePreferences();
  const format = useFormat();
  const unit = typedUnit(preferences);
  const known = read?.reading;
  const shown = (mm: number | null | undefined) => (mm == null ? '' : format.length(mm));
  const track = job.track ?? USUAL.track;
  const form = useEntryForm({
    schema: newAxleReading,
    action: readAxles,
    defaults: {
      roundId: rounds.at(-1)!.id,
      ...{ leftBase: shown(known?.leftBase), rightBase: shown(known?.rightBase) },
      ...{ leftDiagonal: shown(known?.leftDiagonal), rightDiagonal: shown(known?.rightDiagonal) },
      ...{ frontTrack: shown(known?.frontTrack ?? track), rearTrack: shown(known?.rearTrack ?? track) },
      ...{ sd: format.fine(known?.sd ?? USUAL.sd), most: format.thin(known?.most ?? USUAL.most) },
    },
    read: (values, faults, id) => {
      const length = lengthsOf(values, unit, faults);
      const maybe = (name: 'leftDiagonal' | 'rightDiagonal') =>
        (values[name] ?? '').trim() === '' ? null : length(name);
      return {
        ...{ id, jobId: job.id, roundId: values.roundId },
        ...{ leftBase: length('leftBase'), rightBase: length('rightBase') },
        ...{ leftDiagonal: maybe('leftDiagonal'), rightDiagonal: maybe('rightDiagonal') },
        ...{ frontTrack: length('frontTrack'), rearTrack: length('rearTrack') },
        ...{ sd: length('sd'), most: length('most') },
      };
    },
    done,
  });
  const field = (label: string, name: Parameters<typeof form.field>[0], hint?: string) => (
    <TextField label={`${label}, ${format.unit}`} {...(hint ? { hint } : {})} {...form.field(name)} />
  );
  return (
    <FormFields form={form} yes="Keep it">
      {field('Left wheelbase', 'leftBase')}
      {field('Right wheelbase', 'rightBase')}
      {field('Left front to right rear', 'leftDiagonal', 'empty: not read')}
      {field('Right front to left rear', 'rightDiagonal', 'empty: not read')}
      {field('Front track', 'frontTrack')}
      {field('Rear track', 'rearTrack')}
      {field('One standard deviation of each', 'sd')}
      {field('Let pass', 'most')}
      <SelectField
        label="In the round"
        options={rounds.map(({ id, number, name }) => [id, `${number}. ${format.name(name)}`] as const)}
        {...form.field('roundId')}
      />
    </FormFields>
  );
}
