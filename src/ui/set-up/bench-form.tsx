import { BENCH_KINDS, type Bench } from '@/core/shell/job/entities';
import type { ListedBench } from '@/core/shell/benches';
import type { LengthUnit } from '@/core/maths/units/length';
import type { Fault } from '@/formats/faults';
import type { Formatter } from '@/formats/formatter';
import { benchVersion, newBench, type BenchVersionInput, type NewBench } from '@/formats/inputs/set-up';
import { typedUnit } from '@/formats/preferences';
import { readShelf, SHELF_COLUMNS, shelfLine, shelfText } from '@/formats/shelf-text';
import { SelectField, TextArea, TextField } from '../kit/field';
import { FormFields, type DrawnForm } from '../kit/form-fields';
import type { Action } from '../kit/use-action';
import { lengthsOf, useEntryForm } from '../kit/use-entry-form';
import { useFormat, usePreferences } from '../shell/preferences-context';

export const BENCH_WORD: Readonly<Record<Bench['kind'], string>> = {
  fixture: 'fixture bench',
  clamps: 'clamps on the pinch flange',
  ownFrame: 'own frame',
  stands: 'stands on the floor',
};

const LENGTHS = ['rails', 'pitch', 'firstHole', 'span', 'beamWidth', 'beamTop', 'reach', 'footprint'] as const;
type LengthField = (typeof LENGTHS)[number];
const LABEL: Readonly<Record<LengthField, string>> = {
  rails: 'Length of the rails',
  pitch: 'Hole to hole along them',
  firstHole: 'First hole from the end',
  span: 'Length of a beam, across',
  beamWidth: 'Width of a beam',
  beamTop: 'Beam’s top over the rails',
  reach: 'A head stands off its beam by up to',
  footprint: 'Room a tower needs across',
};
/** A plain bench of four metres, to begin with. */
const USUAL: Readonly<Record<LengthField, number>> = {
  rails: 4200,
  pitch: 100,
  firstHole: 50,
  span: 1500,
  beamWidth: 80,
  beamTop: 120,
  reach: 60,
  footprint: 90,
};
const SHELF_HINT = `a kind of piece a line: ${SHELF_COLUMNS.join('; ')}`;

const figuresOf = (format: Formatter, known?: ListedBench) => ({
  ...(Object.fromEntries(LENGTHS.map((name) => [name, format.length((known?.version ?? USUAL)[name])])) as Record<
    LengthField,
    string
  >),
  beams: String(known?.version.beams ?? 6),
  note: known?.version.note ?? '',
  shelf: known ? shelfText(known.items, format.length) : '',
});
type Figures = ReturnType<typeof figuresOf>;

function readBench(
  values: Figures,
  { benchId, unit, format, known }: { benchId: string; unit: LengthUnit; format: Formatter; known?: ListedBench },
  faults: Fault[],
): BenchVersionInput {
  const typed = lengthsOf(values, unit, faults);
  const shown = figuresOf(format, known);
  // What was not touched stays to the last digit, not to the digit shown.
  const length = (name: LengthField) => (known && values[name] === shown[name] ? known.version[name] : typed(name));
  const id = crypto.randomUUID();
  const beams = Number(values.beams);
  if (!Number.isInteger(beams) || beams < 0)
    faults.push({ path: 'beams', message: 'a whole number; 0 where there are none' });
  const untouched = new Map((known?.items ?? []).map((item) => [shelfLine(item, format.length), item]));
  const shelf = readShelf(values.shelf, unit, id, () => crypto.randomUUID(), untouched);
  faults.push(...shelf.faults);
  const lengths = Object.fromEntries(LENGTHS.map((name) => [name, length(name)])) as Record<LengthField, number>;
  return { version: { id, benchId, ...lengths, beams, note: values.note.trim() }, items: shelf.items };
}

/** A new version of a bench: set-ups keep the one they were planned on. */
export function ReviseBench({
  known,
  reviseBench,
  done,
}: {
  known: ListedBench;
  reviseBench: Action<BenchVersionInput>;
  done: () => void;
}) {
  const { format, preferences } = usePreferences();
  const form = useEntryForm({
    schema: benchVersion,
    action: reviseBench,
    defaults: figuresOf(format, known),
    read: (values, faults) =>
      readBench(values, { benchId: known.bench.id, unit: typedUnit(preferences), format, known }, faults),
    done,
  });
  return <BenchFields form={form} yes="Make it a new version" />;
}

export function AddBench({ addBench, done }: { addBench: Action<NewBench>; done: () => void }) {
  const { format, preferences } = usePreferences();
  const form = useEntryForm({
    schema: newBench,
    action: addBench,
    defaults: { ...figuresOf(format), name: '', kind: BENCH_KINDS[0] as Bench['kind'] },
    read: ({ name, kind, ...figures }, faults) => {
      const id = crypto.randomUUID();
      const read = readBench(figures, { benchId: id, unit: typedUnit(preferences), format }, faults);
      return { ...read, bench: { id, name: name.trim(), kind } };
    },
    done,
  });
  return (
    <BenchFields form={form} yes="Add">
      <TextField label="Name" {...form.field('name')} />
      <SelectField label="Kind" options={BENCH_KINDS.map((kind) => [kind, BENCH_WORD[kind]])} {...form.field('kind')} />
    </BenchFields>
  );
}

interface FiguresForm extends DrawnForm {
  readonly field: (name: keyof Figures) => Partial<React.ComponentProps<'input'>> & { readonly error?: string };
}

function BenchFields({ form, yes, children }: { form: FiguresForm; yes: string; children?: React.ReactNode }) {
  const format = useFormat();
  const shelf = form.field('shelf') as unknown as React.ComponentProps<'textarea'> & { readonly error?: string };
  return (
    <FormFields form={form} yes={yes}>
      {children}
      {LENGTHS.map((name) => (
        <TextField key={name} label={`${format.name(LABEL[name])}, ${format.unit}`} {...form.field(name)} />
      ))}
      <TextField label="Beams there are; 0 where it has none" inputMode="numeric" {...form.field('beams')} />
      <TextField label="Note" {...form.field('note')} />
      <div className="sm:col-span-2">
        <TextArea label={`On the shelf, ${format.unit}`} hint={SHELF_HINT} rows={8} {...shelf} />
      </div>
    </FormFields>
  );
}
