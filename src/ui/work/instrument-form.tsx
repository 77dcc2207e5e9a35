import type { ReactNode } from 'react';
import { INSTRUMENT_KINDS, type Instrument, type InstrumentVersion } from '@/core/shell/job/entities';
import type { Fault } from '@/formats/faults';
import type { ShopTime } from '@/formats/shop-time';
import {
  instrumentVersion,
  newInstrument,
  type InstrumentVersionInput,
  type NewInstrument,
} from '@/formats/inputs/jobs';
import { SelectField, TextField } from '../kit/field';
import type { Action } from '../kit/use-action';
import { lengthsOf, useEntryForm } from '../kit/use-entry-form';
import { useFormat } from '../shell/preferences-context';
import { FormFields, type DrawnForm } from '../kit/form-fields';

export const INSTRUMENT_WORD: Readonly<Record<Instrument['kind'], string>> = {
  tape: 'tape',
  tram: 'tram gauge',
  digitalTram: 'digital tram',
  caliper: 'caliper',
  heightStick: 'height stick',
  plumb: 'plumb or pointer',
  fixtureHead: 'fixture head',
  other: 'other',
};

/** What the form shows at first of an instrument's figures; a new one begins with the spread of a good tape. */
const figuresOf = (time: ShopTime, version?: InstrumentVersion) => ({
  sdConstant: String(version?.sdConstant ?? '0.5'),
  sdPerMetre: String(version?.sdPerMetre ?? '0'),
  zeroOffset: String(version?.zeroOffset ?? '0'),
  startMark: String(version?.startMark ?? '0'),
  pointers: version?.pointers ?? '',
  checkedAt: version?.checkedAt ? time.date(version.checkedAt) : '',
  note: version?.note ?? '',
  steel: version?.steel ?? false,
});
type Figures = ReturnType<typeof figuresOf>;

function readFigures(values: Figures, instrumentId: string, time: ShopTime, faults: Fault[]): InstrumentVersionInput {
  const length = lengthsOf(values, 'mm', faults);
  const sdConstant = length('sdConstant');
  if (sdConstant <= 0 && !faults.some(({ path }) => path === 'sdConstant'))
    faults.push({ path: 'sdConstant', message: 'no instrument is without spread' });
  return {
    id: crypto.randomUUID(),
    instrumentId,
    sdConstant,
    sdPerMetre: length('sdPerMetre'),
    zeroOffset: length('zeroOffset'),
    startMark: length('startMark'),
    steel: values.steel,
    pointers: values.pointers.trim(),
    checkedAt: values.checkedAt ? time.instant(values.checkedAt, 12) : null,
    note: values.note.trim(),
  };
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
  const format = useFormat();
  const form = useEntryForm({
    schema: instrumentVersion,
    action: reviseInstrument,
    defaults: figuresOf(format, version),
    read: (values, faults) => readFigures(values, version.instrumentId, format, faults),
    done,
  });
  return (
    <InstrumentFields form={form} yes="Make it a new version">
      {null}
    </InstrumentFields>
  );
}

export function AddInstrument({ addInstrument, done }: { addInstrument: Action<NewInstrument>; done: () => void }) {
  const format = useFormat();
  const form = useEntryForm({
    schema: newInstrument,
    action: addInstrument,
    defaults: { ...figuresOf(format), name: '', kind: INSTRUMENT_KINDS[0] as Instrument['kind'] },
    read: ({ name, kind, ...figures }, faults) => {
      const id = crypto.randomUUID();
      return { instrument: { id, name: name.trim(), kind }, version: readFigures(figures, id, format, faults) };
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

const FIELDS = [
  ['sdConstant', 'One standard deviation, mm'],
  ['sdPerMetre', 'More each metre, mm'],
  ['zeroOffset', 'Zero offset, added to each reading, mm'],
  ['startMark', 'Start mark, taken off each reading, mm'],
] as const;

interface FiguresForm extends DrawnForm {
  readonly field: (name: keyof Figures) => Partial<React.ComponentProps<'input'>> & { readonly error?: string };
}

function InstrumentFields({ form, yes, children }: { form: FiguresForm; yes: string; children: ReactNode }) {
  const { error: _, ...steel } = form.field('steel');
  return (
    <FormFields form={form} yes={yes}>
      {children}
      {FIELDS.map(([name, label]) => (
        <TextField key={name} label={label} {...form.field(name)} />
      ))}
      <TextField label="Pointer lengths, mm" hint="as a list: 50 120 300" {...form.field('pointers')} />
      <TextField label="Last held against a standard" type="date" {...form.field('checkedAt')} />
      <TextField label="Note" {...form.field('note')} />
      <label className="flex min-h-11 items-center gap-2 self-end">
        <input type="checkbox" className="h-5 w-5" {...steel} /> of steel
      </label>
    </FormFields>
  );
}
