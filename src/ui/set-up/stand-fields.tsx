'use client';

import { SUSPENSION_WORD } from '@/core/report/vocabulary/words';
import { hasBeams } from '@/core/plan/set-up/build';
import type { PlannedSetUp, SetUpPage } from '@/core/report/pages/set-up';
import type { ListedBench } from '@/core/shell/benches';
import type { SetUp } from '@/core/shell/job/entities';
import type { Fault } from '@/formats/faults';
import type { Formatter } from '@/formats/formatter';
import { setUpFields, type SetUpFields } from '@/formats/inputs/set-up';
import { typedUnit } from '@/formats/preferences';
import { parseLength } from '@/core/maths/units/length';
import { SelectField, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import type { Action } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { useFormat, usePreferences } from '../shell/preferences-context';
import { FoundPlacement } from './found-placement';

const PLACE = ['x', 'y', 'z'] as const;
const TURNS = ['turnX', 'turnY', 'turnZ'] as const;
const TURN_LABEL = {
  turnX: 'Turned about its length, °',
  turnY: 'about its width, °',
  turnZ: 'seen from above, °; 180 faces the other way',
};
const FLANGE = [
  ['', 'nobody said'],
  ['has', 'there is one'],
  ['hasNot', 'there is none'],
] as const;

const shownOf = ({ setUp }: PlannedSetUp, format: Formatter) => ({
  benchVersionId: setUp.benchVersionId,
  suspension: setUp.suspension,
  kilograms: setUp.kilograms === null ? '' : String(setUp.kilograms),
  centreX: setUp.centreX === null ? '' : format.length(setUp.centreX),
  centreY: setUp.centreY === null ? '' : format.length(setUp.centreY),
  x: format.length(setUp.x),
  y: format.length(setUp.y),
  z: format.length(setUp.z),
  turnX: String(setUp.turnX),
  turnY: String(setUp.turnY),
  turnZ: String(setUp.turnZ),
  flange: setUp.flange ?? '',
  lineFromId: setUp.lineFromId ?? '',
  lineToId: setUp.lineToId ?? '',
});

/** An angle in degrees; nothing typed is none. */
function turnOf(typed: string, path: string, faults: Fault[]): number {
  const degrees = typed.trim() === '' ? 0 : Number(typed.replace(',', '.').replace('−', '-'));
  if (!(Math.abs(degrees) <= 180)) faults.push({ path, message: 'an angle from −180 to 180' });
  return degrees;
}

type SelectProps = Partial<React.ComponentProps<'select'>> & { readonly error?: string };

/** The two points whose plumb marks carry the centre line. */
function LinePoints({
  page,
  field,
}: {
  page: SetUpPage;
  field: (name: 'lineFromId' | 'lineToId') => Partial<React.ComponentProps<'input'>> & { readonly error?: string };
}) {
  const format = useFormat();
  const options = [['', 'none'] as const, ...page.gauges.points.map(({ id, code }) => [id, code] as const)];
  return (
    <>
      <SelectField
        label={format.name('Centre line from the plumb mark of')}
        options={options}
        {...(field('lineFromId') as unknown as SelectProps)}
      />
      <SelectField label="to that of" options={options} {...(field('lineToId') as unknown as SelectProps)} />
    </>
  );
}

/** The version it was planned on, and the newest of every bench. */
const benchesFor = (own: ListedBench, { benches }: SetUpPage) =>
  [own, ...benches.filter(({ version }) => version.id !== own.version.id)].map(
    ({ bench, version }) => [version.id, `${bench.name}, version ${version.number}`] as const,
  );

/** Where the shell stands on the bench and what it weighs: typed here, or left as planned and estimated. */
export function StandFields({
  planned,
  page,
  changeSetUp,
}: {
  planned: PlannedSetUp;
  page: SetUpPage;
  changeSetUp: Action<SetUpFields>;
}) {
  const { format, preferences } = usePreferences();
  const { setUp, bench } = planned;
  const { estimated } = page;
  const ground = hasBeams(bench.version) ? 'rails' : 'floor';
  const shown = shownOf(planned, format);
  const form = useEntryForm({
    schema: setUpFields,
    action: changeSetUp,
    defaults: shown,
    read: (values, faults: Fault[]): SetUpFields => {
      const length = (name: keyof typeof shown & keyof SetUp) => {
        // What was not touched stays to the last digit, not to the digit shown.
        if (values[name] === shown[name]) return setUp[name] as number | null;
        if (values[name].trim() === '') return null;
        const parsed = parseLength(values[name], typedUnit(preferences));
        if (!parsed.ok) faults.push({ path: name, message: parsed.reason });
        return parsed.ok ? parsed.mm : 0;
      };
      const kilograms = values.kilograms.trim() === '' ? null : Number(values.kilograms.replace(',', '.'));
      const centre = [length('centreX'), length('centreY')] as const;
      if (kilograms !== null && !(kilograms > 0))
        faults.push({ path: 'kilograms', message: 'a weight in kg, or nothing' });
      if ((centre[0] === null) !== (centre[1] === null))
        faults.push({ path: centre[0] === null ? 'centreX' : 'centreY', message: 'type both, or neither' });
      const [x, y, z] = PLACE.map((axis) => length(axis) ?? 0) as [number, number, number];
      const [turnX, turnY, turnZ] = TURNS.map((name) => turnOf(values[name], name, faults)) as [number, number, number];
      const { benchVersionId, suspension } = values;
      const line = { lineFromId: values.lineFromId || null, lineToId: values.lineToId || null };
      if (line.lineFromId !== null && line.lineFromId === line.lineToId)
        faults.push({ path: 'lineToId', message: 'another point than the first' });
      const flange = (values.flange || null) as SetUp['flange'];
      const stands = { kilograms, centreX: centre[0], centreY: centre[1], x, y, z, turnX, turnY, turnZ };
      return { ...setUp, benchVersionId, suspension, ...stands, flange, ...line };
    },
  });
  return (
    <section aria-label="How it stands" className="flex flex-col gap-2">
      <h3 className="caps">In hand: how it stands</h3>
      <FoundPlacement planned={planned} changeSetUp={changeSetUp} />
      <FormFields form={form} yes="Use these">
        <TextField label={`Chart’s zero along the ${ground}, ${format.unit}`} {...form.field('x')} />
        <TextField label={`right of the middle, ${format.unit}`} {...form.field('y')} />
        <TextField label={`over the ${ground}, ${format.unit}`} {...form.field('z')} />
        {TURNS.map((name) => (
          <TextField key={name} label={TURN_LABEL[name]} inputMode="decimal" {...form.field(name)} />
        ))}
        {bench.bench.kind === 'clamps' ? (
          <SelectField label={format.name('Pinch flange on its sills')} options={FLANGE} {...form.field('flange')} />
        ) : null}
        {hasBeams(bench.version) ? null : <LinePoints page={page} field={form.field} />}
        <SelectField label="Bench" options={benchesFor(bench, page)} {...form.field('benchVersionId')} />
        <SelectField label="Suspension" options={Object.entries(SUSPENSION_WORD)} {...form.field('suspension')} />
        <TextField label="Weight, kg" hint={`estimated ${estimated.kilograms} kg`} {...form.field('kilograms')} />
        <TextField
          label={`It acts behind the chart’s zero, ${format.unit}`}
          hint={`estimated ${format.length(estimated.centre[0])}`}
          {...form.field('centreX')}
        />
        <TextField label={`and right of the middle, ${format.unit}`} hint="estimated 0" {...form.field('centreY')} />
      </FormFields>
    </section>
  );
}
