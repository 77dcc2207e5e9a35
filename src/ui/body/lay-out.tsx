'use client';

import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { BODIES } from '@/core/shell/bodies';
import { morphed, type BodyPicture } from '@/core/shell/bodies/body';
import { BODY_TYPES, type BodyType, type Job } from '@/core/shell/job/entities';
import { mirroredCode } from '@/core/shell/mirrored-code';
import { counted } from '@/core/report/vocabulary/words';
import { parseLength, type LengthUnit } from '@/core/maths/units/length';
import { layingOut, type LayingOut } from '@/formats/inputs/lay-out';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { Faults } from '../kit/faults';
import { SelectField, TextField } from '../kit/field';
import type { Action } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { useFormat, usePreferences } from '../shell/preferences-context';
import { BodyDrawing } from './body-drawing';

interface LayingOutProps {
  readonly job: Job;
  /** Codes of the points there are already. */
  readonly here: readonly string[];
  readonly layOut: Action<LayingOut, { points: number }>;
}

const MEASURES = ['wheelbase', 'track', 'height'] as const;
const MEASURE_WORD = {
  wheelbase: 'Wheelbase, about',
  track: 'Track, about',
  height: 'Height of the shell, about',
} as const;

/** The first walk laid out on the picture of a bare shell: places chosen become points, measured from nothing. */
export function LayOut({ job, here, layOut }: LayingOutProps) {
  const router = useRouter();
  const format = useFormat();
  const { preferences } = usePreferences();
  const unit = typedUnit(preferences);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(() => new Set(floorOf(BODIES[job.body ?? 'twoDoor'])));
  const length = (mm: number | null) => (mm === null ? '' : format.length(mm));
  const form = useEntryForm({
    schema: layingOut,
    action: layOut,
    defaults: {
      body: (job.body ?? 'twoDoor') as BodyType,
      ...{ wheelbase: length(job.wheelbase), track: length(job.track), height: length(job.height), places: '' },
    },
    read: (values, faults) => {
      const measure = (name: (typeof MEASURES)[number]) => {
        const parsed = measured(values[name], unit);
        if (parsed === undefined) faults.push({ path: name, message: `“${values[name]}” is not a length` });
        return parsed ?? null;
      };
      const { places } = BODIES[values.body];
      return {
        jobId: job.id,
        body: values.body,
        ...{ wheelbase: measure('wheelbase'), track: measure('track'), height: measure('height') },
        places: places.map(({ code }) => code).filter((code) => chosen.has(code)),
      };
    },
    done: () => router.push(`/jobs/${job.id}/measure`),
  });
  const picture = BODIES[form.watch('body')];
  const texts = MEASURES.map((name) => form.watch(name)).join('|');
  const places = useMemo(() => {
    const [wheelbase, track, height] = texts.split('|').map((text) => measured(text, unit) ?? null);
    return morphed(picture, { wheelbase: wheelbase!, track: track!, height: height! });
  }, [picture, texts, unit]);
  const toggle = (code: string) => setChosen(toggledWithMirror(chosen, picture, code));
  const wanted = picture.places.filter(({ code }) => chosen.has(code));
  const known = new Set(here.map((code) => code.toLowerCase()));
  const fresh = wanted.filter(({ code }) => !known.has(code.toLowerCase()));
  return (
    <form onSubmit={form.submit} className="flex flex-col gap-4" noValidate>
      <h1 className="text-2xl">Lay out the first walk</h1>
      <p className="max-w-prose">
        Choose on the picture what can be measured on this shell. Each place becomes a point with no coordinates: the
        walk that follows finds them with a tape and a stick. Three rough measures bring the picture to this car’s size.
      </p>
      <div className="grid gap-4 xl:grid-cols-[1fr_20rem]">
        <BodyDrawing {...{ picture, places, chosen, toggle }} />
        <div className="flex flex-col gap-3">
          <SelectField
            label="Body"
            {...form.field('body')}
            options={BODY_TYPES.map((type) => [type, BODIES[type].name])}
          />
          {MEASURES.map((name) => (
            <TextField key={name} label={`${MEASURE_WORD[name]}, ${format.unit}`} {...form.field(name)} />
          ))}
          <div className="flex flex-wrap gap-2">
            <Button onClick={() => setChosen(new Set(picture.places.map(({ code }) => code)))}>All places</Button>
            <Button onClick={() => setChosen(new Set(floorOf(picture)))}>The floor only</Button>
            <Button onClick={() => setChosen(new Set())}>None</Button>
          </div>
          <p role="status">
            {counted(wanted.length, 'place')} chosen
            {wanted.length > fresh.length ? `, ${wanted.length - fresh.length} of them points already` : ''}.
          </p>
          <Faults faults={form.faults} />
          <Button type="submit" look="main" disabled={form.pending || wanted.length === 0}>
            {form.pending ? 'Making them …' : `Make ${counted(fresh.length, 'point')}`}
          </Button>
        </div>
      </div>
    </form>
  );
}

/** A typed measure, mm; null where nothing is typed, undefined where it is no length. */
function measured(text: string | undefined, unit: LengthUnit): number | null | undefined {
  if (!text?.trim()) return null;
  const parsed = parseLength(text, unit);
  return parsed.ok && parsed.mm > 0 ? parsed.mm : undefined;
}

/** The places low down, where a walk begins: under half the height of the shell. */
const floorOf = ({ places, size }: BodyPicture): string[] =>
  places.filter(({ at }) => at[2] < size.height / 2.5).map(({ code }) => code);

/** A place and its mirror image go together. */
function toggledWithMirror(chosen: ReadonlySet<string>, { places }: BodyPicture, code: string): Set<string> {
  const { side } = places.find((place) => place.code === code)!;
  const next = new Set(chosen);
  for (const each of new Set([code, mirroredCode(code, side)]))
    if (chosen.has(code)) next.delete(each);
    else if (places.some((place) => place.code === each)) next.add(each);
  return next;
}
