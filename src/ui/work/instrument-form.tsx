import type { ReactNode } from 'react';
import { INSTRUMENT_KINDS, type Instrument, type InstrumentVersion } from '@/core/shell/job/entities';
import type { Fault } from '@/formats/faults';
import {
  instrumentVersion,
  newInstrument,
  type InstrumentVersionInput,
  type NewInstrument,
} from '@/formats/inputs/jobs';
import { SelectField, TextField } from '../kit/field';
import type { Action } from '../kit/use-action';
import { lengthsOf, useEntryForm, wordsOf } from '../kit/use-entry-form';
import { parseLength, type LengthUnit } from '@/core/maths/units/length';
import type { Formatter } from '@/formats/formatter';
import { typedUnit } from '@/formats/preferences';
import { useFormat, usePreferences } from '../shell/preferences-context';
import { FormFields, type DrawnForm } from '../kit/form-fields';

export const INSTRUMENT_WORD: Readonly<Record<Instrument['kind'], string>> = {
  tape: 'tape',
  tram: 'tram gauge',
  digitalTram: 'digital tram',
  caliper: 'caliper',
  feeler: 'feeler, card or washers',
  heightStick: 'height stick',
  plumb: 'plumb or pointer',
  fixtureHead: 'fixture head',
  other: 'other',
};

/** The figures of an instrument, mm; a new one begins with the spread of a good tape. */
const lengthsKept = (version?: InstrumentVersion) => ({
  sdConstant: version?.sdConstant ?? 0.5,
  sdPerMetre: version?.sdPerMetre ?? 0,
  zeroOffset: version?.zeroOffset ?? 0,
  startMark: version?.startMark ?? 0,
});
type LengthField = keyof ReturnType<typeof lengthsKept>;
const LENGTHS = ['sdConstant', 'sdPerMetre', 'zeroOffset', 'startMark'] as const satisfies readonly LengthField[];

/** What the form shows at first, in the user's unit. */
const figuresOf = (format: Formatter, version?: InstrumentVersion) => ({
  ...(Object.fromEntries(LENGTHS.map((name) => [name, format.fine(lengthsKept(version)[name])])) as Record<
    LengthField,
    string
  >),
  pointers: pointersShown(version?.pointers ?? '', format),
  checkedAt: version?.checkedAt ? format.date(version.checkedAt) : '',
  note: version?.note ?? '',
  steel: version?.steel ?? false,
});
type Figures = ReturnType<typeof figuresOf>;

const pointersShown = (millimetres: string, format: Formatter): string =>
  wordsOf(millimetres)
    .map((each) => (Number.isFinite(Number(each)) ? format.fine(Number(each)).replace(/\.?0+$/, '') : each))
    .join(' ');

interface Asked {
  readonly instrumentId: string;
  readonly format: Formatter;
  readonly unit: LengthUnit;
  readonly version?: InstrumentVersion;
}

function readFigures(values: Figures, asked: Asked, faults: Fault[]): InstrumentVersionInput {
  const { instrumentId, format, unit, version } = asked;
  const [shown, kept] = [figuresOf(format, version), lengthsKept(version)];
  const typed = lengthsOf(values, unit, faults);
  // What was not touched stays to the last digit, not to the digit shown.
  const length = (name: LengthField) => (values[name] === shown[name] ? kept[name] : typed(name));
  const sdConstant = length('sdConstant');
  if (sdConstant <= 0 && !faults.some(({ path }) => path === 'sdConstant'))
    faults.push({ path: 'sdConstant', message: 'no instrument is without spread' });
  const pointers =
    values.pointers === shown.pointers ? (version?.pointers ?? '') : pointersTyped(values.pointers, unit, faults);
  return {
    ...{ id: crypto.randomUUID(), instrumentId, sdConstant, steel: values.steel, pointers },
    sdPerMetre: length('sdPerMetre'),
    zeroOffset: length('zeroOffset'),
    startMark: length('startMark'),
    checkedAt: values.checkedAt ? format.instant(values.checkedAt, 12) : null,
    note: values.note.trim(),
  };
}

/** Pointer lengths as typed, kept as a list of millimetres. */
function pointersTyped(text: string, unit: LengthUnit, faults: Fault[]): string {
  const lengths = wordsOf(text).map((each) => parseLength(each, unit));
  const bad = lengths.find((each) => !each.ok);
  if (bad && !bad.ok) faults.push({ path: 'pointers', message: bad.reason });
  return lengths.flatMap((each) => (each.ok ? [String(Math.round(each.mm * 100) / 100)] : [])).join(' ');
}

/** A new version of an instrument: readings already taken keep the one they were taken with. */
export function ReviseInstrument({
  version,
  reviseInstrument,
  done,
}: {
  version: InstrumentVersion;
  reviseInstrument: Action<InstrumentVersionInput>;
  done: () => void;
}) {
  const { format, preferences } = usePreferences();
  const unit = typedUnit(preferences);
  const form = useEntryForm({
    schema: instrumentVersion,
    action: reviseInstrument,
    defaults: figuresOf(format, version),
    read: (values, faults) =>
      readFigures(values, { instrumentId: version.instrumentId, format, unit, version }, faults),
    done,
  });
  return (
    <InstrumentFields form={form} yes="Make it a new version">
      {null}
    </InstrumentFields>
  );
}

export function AddInstrument({ addInstrument, done }: { addInstrument: Action<NewInstrument>; done: () => void }) {
  const { format, preferences } = usePreferences();
  const unit = typedUnit(preferences);
  const form = useEntryForm({
    schema: newInstrument,
    action: addInstrument,
    defaults: { ...figuresOf(format), name: '', kind: INSTRUMENT_KINDS[0] as Instrument['kind'] },
    read: ({ name, kind, ...figures }, faults) => {
      const id = crypto.randomUUID();
      return {
        instrument: { id, name: name.trim(), kind },
        version: readFigures(figures, { instrumentId: id, format, unit }, faults),
      };
    },
    done,
  });
  return (
    <InstrumentFields form={form} yes="Add">
      <TextField label="Name" {...form.field('name')} />
      <SelectField
        label="Kind"
        options={INSTRUMENT_KINDS.map((kind) => [kind, INSTRUMENT_WORD[kind]])}
        {...form.field('kind')}
      />
    </InstrumentFields>
  );
}

const LABEL: Readonly<Record<LengthField, string>> = {
  sdConstant: 'One standard deviation',
  sdPerMetre: 'More each metre',
  zeroOffset: 'Zero offset, added to each reading',
  startMark: 'Start mark, taken off each reading',
};

interface FiguresForm extends DrawnForm {
  readonly field: (name: keyof Figures) => Partial<React.ComponentProps<'input'>> & { readonly error?: string };
}

function InstrumentFields({ form, yes, children }: { form: FiguresForm; yes: string; children: ReactNode }) {
  const format = useFormat();
  const { error: _, ...steel } = form.field('steel');
  return (
    <FormFields form={form} yes={yes}>
      {children}
      {LENGTHS.map((name) => (
        <TextField key={name} label={`${format.name(LABEL[name])}, ${format.unit}`} {...form.field(name)} />
      ))}
      <TextField
        label={`Pointer lengths, ${format.unit}`}
        hint="as a list, with blanks between"
        {...form.field('pointers')}
      />
      <TextField label="Last held against a standard" type="date" {...form.field('checkedAt')} />
      <TextField label="Note" {...form.field('note')} />
      <label className="flex min-h-11 items-center gap-2 self-end">
        <input type="checkbox" className="h-5 w-5" {...steel} /> of steel
      </label>
    </FormFields>
  );
}
