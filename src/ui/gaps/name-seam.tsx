import type { SeamJudgement } from '@/core/round/judge/seams';
import type { Seam } from '@/core/shell/job/entities';
import { NEW_SEAM, SEAM_SIGHTS } from '@/core/shell/job/entities';
import type { GapsPage } from '@/core/report/pages/gaps';
import { SIGHT_WORD } from '@/core/report/vocabulary/words';
import type { Fault } from '@/formats/faults';
import type { Tables } from '@/core/shell/job/job-rows';
import { correctedSeam, newSeam, type CorrectedSeam, type NewSeam } from '@/formats/inputs/chart';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { SelectField, TextField } from '../kit/field';
import type { Action } from '../kit/use-action';
import { lengthsOf, useEntryForm } from '../kit/use-entry-form';
import { useFormat, usePreferences } from '../shell/preferences-context';
import { FormFields } from '../kit/form-fields';
import { SideField } from '../shell/side-field';

interface Naming {
  readonly rows: Tables<'jobs'>;
  readonly points: GapsPage['points'];
  readonly addSeam: Action<NewSeam>;
}

/** Where a seam lies, as it is typed, and how much people see of it. */
const PLACE = { sight: NEW_SEAM.sight as Seam['sight'], from: '', to: '' };

/** The two points a seam lies between; both or neither, each a point of the job. */
function readEnds(
  { from, to }: { readonly from: string; readonly to: string },
  points: GapsPage['points'],
  faults: Fault[],
): Pick<Seam, 'fromPointId' | 'toPointId'> {
  const idOf = (path: 'from' | 'to', text: string) => {
    const said = text.trim();
    if (said === '') return null;
    const found = points.find(({ code }) => code.toLowerCase() === said.toLowerCase());
    if (!found) faults.push({ path, message: `no point “${said}” in this job` });
    return found?.id ?? null;
  };
  const ends = { fromPointId: idOf('from', from), toPointId: idOf('to', to) };
  if ((from.trim() === '') !== (to.trim() === ''))
    faults.push({ path: from.trim() === '' ? 'from' : 'to', message: 'name both ends, or neither' });
  if (ends.fromPointId !== null && ends.fromPointId === ends.toPointId)
    faults.push({ path: 'to', message: 'a seam lies between two different points' });
  return ends;
}

interface PlaceProps {
  readonly field: (name: 'sight' | 'from' | 'to') => object;
}

/** Where a seam lies on the shell and how much of it is seen. */
const PlaceFields = ({ field }: PlaceProps) => (
  <>
    <SelectField label="Seen" options={SEAM_SIGHTS.map((sight) => [sight, SIGHT_WORD[sight]])} {...field('sight')} />
    <div className="grid grid-cols-2 gap-3">
      <TextField label="First station near" placeholder="B1L" {...field('from')} />
      <TextField label="Last near" placeholder="B3L" {...field('to')} />
    </div>
  </>
);

/** Names a seam with its stations and what is wanted at each. */
export function NameSeam(naming: Naming) {
  return (
    <FormDialog title="Name a seam" trigger={<Button className="ml-auto">Name a seam</Button>}>
      {(close) => <SeamForm {...naming} done={close} />}
    </FormDialog>
  );
}

const FIELDS = { code: '', name: '', side: 'left' as Seam['side'], pairing: '', stations: '', ...PLACE };
const WANTED = { mm: { gap: '5', limit: '1' }, in: { gap: '3/16', limit: '1/32' } };

function SeamForm({ rows, points, addSeam, done }: Naming & { done: () => void }) {
  const { preferences } = usePreferences();
  const form = useEntryForm({
    schema: newSeam,
    action: addSeam,
    defaults: { ...FIELDS, ...WANTED[preferences.units === 'mm' ? 'mm' : 'in'] },
    read: (values, faults) => {
      const length = lengthsOf(values, typedUnit(preferences), faults);
      const [gap, tolerance] = [length('gap'), length('limit')];
      const names = values.stations
        .split(',')
        .map((name) => name.trim())
        .filter(Boolean);
      if (!values.code.trim()) faults.push({ path: 'code', message: 'the seam needs a code' });
      if (names.length === 0) faults.push({ path: 'stations', message: 'name at least one station' });
      if (tolerance <= 0 && !faults.some(({ path }) => path === 'limit'))
        faults.push({ path: 'limit', message: 'a limit is above zero' });
      const seamId = crypto.randomUUID();
      const stations = names.map((name, i) => ({ id: crypto.randomUUID(), seamId, number: i + 1, name }));
      const target = (quantity: 'gap' | 'flush', value: number) =>
        stations.map(({ id: stationId }) => ({
          id: crypto.randomUUID(),
          ...{ stationId, quantity, value, tolerance },
          version: 1,
        }));
      return {
        seam: {
          id: seamId,
          jobId: rows.jobs[0]!.id,
          code: values.code.trim(),
          name: values.name.trim(),
          side: values.side,
          pairing: values.pairing.trim(),
          sight: values.sight,
          ...readEnds(values, points, faults),
          version: 1,
        },
        stations,
        targets: [...target('gap', gap), ...target('flush', 0)],
      };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Name it">
      <TextField label="Code" {...form.field('code')} placeholder="DL" />
      <TextField label="Name" {...form.field('name')} placeholder="Door rear edge to B post" />
      <SideField {...form.field('side')} />
      <TextField
        label="Compared with seams of the same"
        {...form.field('pairing')}
        placeholder="door rear edge"
        hint="The same word on both sides sets them side by side"
      />
      <TextField label="Stations, in order" {...form.field('stations')} placeholder="bottom, swage line, top" />
      <div className="grid grid-cols-2 gap-3">
        <TextField label="Gap wanted" {...form.field('gap')} />
        <TextField label="Limit" {...form.field('limit')} />
      </div>
      <PlaceFields field={form.field} />
    </FormFields>
  );
}

interface Correcting {
  readonly judged: SeamJudgement;
  readonly points: GapsPage['points'];
  readonly correctSeam: Action<CorrectedSeam>;
}

/** Corrects a seam and the gap wanted along it. */
export const CorrectSeam = (correcting: Correcting) => (
  <FormDialog
    title={`Correct ${correcting.judged.seam.code}`}
    description="How it was before is kept, with who changed it and when"
    trigger={<Button look="quiet">Correct …</Button>}
  >
    {(close) => <CorrectForm {...correcting} done={close} />}
  </FormDialog>
);

function CorrectForm({ judged: { seam, stations }, points, correctSeam, done }: Correcting & { done: () => void }) {
  const format = useFormat();
  const { preferences } = usePreferences();
  const codeOf = (id: string | null) => points.find((point) => point.id === id)?.code ?? '';
  const target = stations.find(({ quantity }) => quantity === 'gap')?.target;
  const before = target ? { gap: format.length(target.value), limit: format.length(target.limit) } : undefined;
  const form = useEntryForm({
    schema: correctedSeam,
    action: correctSeam,
    defaults: {
      ...{ code: seam.code, name: seam.name, side: seam.side, pairing: seam.pairing },
      ...{ sight: seam.sight, from: codeOf(seam.fromPointId), to: codeOf(seam.toPointId) },
      ...(before ?? { gap: '', limit: '' }),
    },
    read: ({ code = '', name = '', side, pairing = '', gap, limit, sight, from = '', to = '' }, faults) => {
      if (!code.trim()) faults.push({ path: 'code', message: 'the seam needs a code' });
      const isChanged = before && (gap !== before.gap || limit !== before.limit);
      const length = lengthsOf({ gap, limit }, typedUnit(preferences), faults);
      return {
        seam: { ...seam, code: code.trim(), name, side, pairing, sight, ...readEnds({ from, to }, points, faults) },
        wanted: isChanged ? { gap: length('gap'), limit: length('limit') } : null,
      };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Keep it so">
      <TextField label="Code" {...form.field('code')} />
      <TextField label="Name" {...form.field('name')} />
      <SideField {...form.field('side')} />
      <TextField label="Compared with seams of the same" {...form.field('pairing')} />
      <PlaceFields field={form.field} />
      {before ? (
        <>
          <TextField label="Gap wanted at every station" {...form.field('gap')} />
          <TextField label="Limit" {...form.field('limit')} />
        </>
      ) : null}
    </FormFields>
  );
}
