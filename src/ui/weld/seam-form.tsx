import type { JointView, WeldingPage } from '@/core/report/pages/welding';
import { FREE_WORD, PROCESS_WORD, STRETCH_WORD, WELD_WORD } from '@/core/report/weld-words';
import { schoolsOf } from '@/core/plan/weld-order/schools';
import {
  FREE_ENDS,
  STRETCH_KINDS,
  WELD_KINDS,
  WELD_PROCESSES,
  type WeldSeam,
  type WeldStretch,
} from '@/core/shell/job/entities';
import type { Fault } from '@/formats/faults';
import { savedWeldSeam } from '@/formats/inputs/welding';
import { typedUnit } from '@/formats/preferences';
import { SelectField, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { lengthsOf, useEntryForm, wordsOf } from '../kit/use-entry-form';
import { useFormat, usePreferences } from '../shell/preferences-context';
import type { WeldActions } from './actions';

interface FormProps {
  readonly view: JointView;
  readonly points: WeldingPage['points'];
  /** Other seams of its panel that are marked out. */
  readonly siblings: readonly { readonly id: string; readonly beside: string }[];
  readonly actions: WeldActions;
  readonly done: () => void;
}

/**
 * Stretches typed as `corner 130, double 250 330`: what it is, where it begins and, but for a corner, where it ends. Faults
 * stand at `stretches`.
 */
export function readStretches(
  text: string,
  seamId: string,
  length: (text: string) => number,
  faults: Fault[],
): WeldStretch[] {
  const said: { what: string; figures: number[] }[] = [];
  for (const word of wordsOf(text)) {
    const last = said.at(-1);
    if (/^[A-Za-z]/.test(word)) said.push({ what: word.toLowerCase(), figures: [] });
    else if (last) last.figures.push(length(word));
    else faults.push({ path: 'stretches', message: `“${word}” follows nothing: say corner 130, or double 250 330` });
  }
  return said.flatMap(({ what, figures }): WeldStretch[] => {
    const kind = STRETCH_KINDS.find((each) => each === what);
    const [starts, ends = starts] = figures;
    const wanted = what === 'corner' ? 1 : 2;
    if (!kind) faults.push({ path: 'stretches', message: `no “${what}”: say ${STRETCH_KINDS.join(', ')}` });
    else if (figures.length !== wanted || starts === undefined || ends === undefined)
      faults.push({
        path: 'stretches',
        message: `${what} wants ${wanted === 1 ? 'one figure' : 'where it begins and ends'}`,
      });
    else return [{ id: crypto.randomUUID(), seamId, what: kind, starts, ends }];
    return [];
  });
}

/** What makes no sense together. */
function seamFaults(seam: WeldSeam, stretches: readonly WeldStretch[], faults: Fault[]): void {
  if (seam.long <= 0) faults.push({ path: 'long', message: 'how long the seam is, above zero' });
  if (seam.kind === 'spot' && seam.process !== 'resistance')
    faults.push({ path: 'process', message: 'spots are made with a spot gun' });
  if (seam.kind !== 'spot' && seam.process === 'resistance')
    faults.push({ path: 'process', message: 'a spot gun makes spots only' });
  const beyond = stretches.find(({ ends }) => ends > seam.long);
  if (beyond) faults.push({ path: 'stretches', message: `${beyond.what} lies beyond the end of the seam` });
}

/** How a joint is welded again. */
export function SeamForm({ view, points, siblings, actions, done }: FormProps) {
  const { preferences } = usePreferences();
  const format = useFormat();
  const unit = typedUnit(preferences);
  const { joint, plan } = view;
  const known = plan?.seam;
  const shown = (mm: number | null | undefined) => (mm == null ? '' : format.thin(mm));
  const form = useEntryForm({
    schema: savedWeldSeam,
    action: actions.saveWeldSeam,
    defaults: {
      kind: known?.kind ?? ('plug' as WeldSeam['kind']),
      process: known ? (known.process ?? '') : ('mig' as NonNullable<WeldSeam['process']> | ''),
      ...{ long: shown(known?.long), flange: shown(known?.flange), pitch: shown(known?.pitch) },
      ...{ first: known?.firstPointId ?? '', last: known?.lastPointId ?? '' },
      inTurnWith: known?.inTurnWithId ?? '',
      freeEnd: known?.freeEnd ?? ('both' as WeldSeam['freeEnd']),
      stretches: (plan?.stretches ?? [])
        .map(({ what, starts, ends }) => [what, shown(starts), ...(what === 'corner' ? [] : [shown(ends)])].join(' '))
        .join(', '),
      openFor: known?.openFor?.toString() ?? '',
      clampedFor: known?.clampedFor?.toString() ?? '',
    },
    read: (values, faults) => {
      const length = lengthsOf(values, unit, faults);
      const maybe = (name: 'flange' | 'pitch') => ((values[name] ?? '').trim() === '' ? null : length(name));
      const minutes = (name: 'openFor' | 'clampedFor') => {
        const text = (values[name] ?? '').trim().replace(',', '.');
        if (text !== '' && !(Number(text) > 0)) faults.push({ path: name, message: 'minutes, above zero' });
        return text === '' || values.kind !== 'bond' ? null : Number(text);
      };
      const process = values.kind === 'bond' || values.process === '' ? null : values.process;
      const stretches = readStretches(
        values.stretches ?? '',
        joint.id,
        (text) => lengthsOf({ stretches: text }, unit, faults)('stretches'),
        faults,
      );
      const seam: WeldSeam = {
        ...{ id: joint.id, jobId: joint.jobId, kind: values.kind, process, version: known?.version ?? 1 },
        ...{ long: length('long'), flange: maybe('flange'), pitch: maybe('pitch') },
        ...{ firstPointId: values.first || null, lastPointId: values.last || null, freeEnd: values.freeEnd },
        school: known && schoolsOf({ process }).includes(known.school) ? known.school : schoolsOf({ process })[0]!,
        ...{ openFor: minutes('openFor'), clampedFor: minutes('clampedFor') },
        inTurnWithId: values.inTurnWith || null,
      };
      seamFaults(seam, stretches, faults);
      return { seam, stretches };
    },
    done,
  });
  const pointOptions = [['', 'no datum point'] as const, ...points.map(({ id, code }) => [id, code] as const)];
  return (
    <FormFields form={form} yes="Mark it out">
      <SelectField
        label="Welded as"
        options={WELD_KINDS.map((kind) => [kind, WELD_WORD[kind]])}
        {...form.field('kind')}
      />
      <SelectField
        label="With"
        options={[['', 'not said'], ...WELD_PROCESSES.map((each) => [each, PROCESS_WORD[each]] as const)]}
        {...form.field('process')}
      />
      <TextField label={`Length of the seam, ${format.unit}`} {...form.field('long')} />
      <TextField label={`Width of the flange, ${format.unit}`} hint="empty: none" {...form.field('flange')} />
      <TextField
        label={`Pitch, ${format.unit}`}
        hint={`empty: as the factory’s spots; in a butt a tack each ${format.thin(30)} to ${format.thin(40)}`}
        {...form.field('pitch')}
      />
      <SelectField
        label="Can still move"
        options={FREE_ENDS.map((end) => [end, FREE_WORD[end]])}
        {...form.field('freeEnd')}
      />
      {siblings.length > 0 ? (
        <SelectField
          label="Laid in turn with"
          options={[
            ['', 'by itself'] as const,
            ...siblings.map(({ id, beside }) => [id, format.name(beside)] as const),
          ]}
          {...form.field('inTurnWith')}
        />
      ) : null}
      <SelectField label="First end near" options={pointOptions} {...form.field('first')} />
      <SelectField label="Last end near" options={pointOptions} {...form.field('last')} />
      <div className="sm:col-span-2">
        <TextField
          label="Where it is different, from the first end"
          hint={STRETCH_KINDS.map((kind) => `${kind}: ${STRETCH_WORD[kind]}`).join(' · ')}
          placeholder="corner 130, double 250 330, void 300 320"
          {...form.field('stretches')}
        />
      </div>
      <TextField label="Of an adhesive: open for, min" {...form.field('openFor')} />
      <TextField label="clamped for, min" {...form.field('clampedFor')} />
    </FormFields>
  );
}
