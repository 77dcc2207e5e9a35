import { Pencil, Plus, Trash2 } from 'lucide-react';
import { useRef, useState, type ReactNode } from 'react';
import type { FieldValues } from 'react-hook-form';
import type { z } from 'zod';
import type { Dimension, Point, ReferenceDimension, ReferencePoint } from '@/core/shell/job/entities';
import { formatLength } from '@/core/maths/units/length';
import type { Fault } from '@/formats/faults';
import { styleOf, typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { useAction, type Action } from '../kit/use-action';
import { lengthsOf, useEntryForm } from '../kit/use-entry-form';
import { usePreferences } from '../shell/preferences-context';

export interface ChartedPoint {
  readonly id: string;
  readonly point: Point;
  /** Absent where the chart says nothing of it. */
  readonly reference?: ReferencePoint;
  /** An earlier edition speaks of it: it can be brought back. */
  readonly retired?: boolean;
}

export interface ChartedDimension {
  readonly id: string;
  readonly dimension: Dimension;
  readonly reference: ReferenceDimension;
  readonly from: string;
  readonly to: string;
}

/** How a form shows a length, mm, in the user's unit: what it shows unchanged, it can read back. */
function useShownLength() {
  const style = styleOf(usePreferences().preferences);
  return (mm: number | null | undefined) => (mm == null ? '' : formatLength(mm, style).replace('−', '-'));
}

/** Told when somebody else came first: their figures stand beside, what was typed stays typed. */
function StaleNote({ current, onOverwrite }: { current: Current | undefined; onOverwrite: () => void }) {
  if (!current) return null;
  return (
    <div role="alert" className="border-l-4 border-minus bg-sheet px-3 py-2 text-sm">
      <p className="font-medium">Somebody else changed this row while you were typing. What you typed is still here.</p>
      <p className="font-mono">{[current.thing, current.reference].map(summary).join(', ')}</p>
      <Button className="mt-2" onClick={onOverwrite}>
        Write mine over theirs
      </Button>
    </div>
  );
}

const summary = (current: unknown): string =>
  current && typeof current === 'object'
    ? Object.entries(current)
        .filter(([key]) => !/id$/i.test(key) && key !== 'version')
        .map(([key, value]) => `${key} ${String(value)}`)
        .join(', ')
    : 'The row is not here any more.';

interface RowForm<Values extends FieldValues, Schema extends z.ZodType> {
  readonly schema: Schema;
  readonly save: Action<z.input<Schema>>;
  readonly texts: Values;
  /** The lengths the form shows, mm, so that one left alone keeps every digit it has; null for an empty field. */
  readonly lengths: Readonly<Record<string, number | null>>;
  /** What is to be saved, by the form and by what somebody else left; pushes what is wrong. */
  readonly compose: (
    values: Values & Readonly<Record<string, string>>,
    length: (field: string) => number,
    faults: Fault[],
    over: Current | undefined,
  ) => z.input<Schema>;
  readonly done: () => void;
}

/**
 * The form of one line of the chart's table. Bad input is faulted at its field; where somebody else came first, what
 * was typed stays typed and can be written over theirs.
 */
export function useRowForm<Values extends FieldValues, Schema extends z.ZodType>(row: RowForm<Values, Schema>) {
  const { preferences } = usePreferences();
  const show = useShownLength();
  const over = useRef<Current>(undefined);
  const shown = Object.fromEntries(Object.entries(row.lengths).map(([field, mm]) => [field, show(mm)]));
  type Texts = Values & Readonly<Record<string, string>>;
  const form = useEntryForm<Texts, Schema, unknown>({
    schema: row.schema,
    action: row.save,
    defaults: { ...row.texts, ...shown } as Texts,
    read: (values, faults) => {
      const typed = lengthsOf(values, typedUnit(preferences), faults);
      // A figure the user left alone keeps every digit it has, whatever the screen shows of it.
      const length = (field: string) =>
        row.lengths[field] != null && values[field] === shown[field] ? row.lengths[field] : typed(field);
      return row.compose(values, length, faults, over.current);
    },
    done: row.done,
  });
  return {
    ...form,
    current: form.current as Current | undefined,
    overwrite: () => {
      over.current = form.current as Current | undefined;
      void form.submit();
    },
  };
}

type Form = Pick<ReturnType<typeof useRowForm>, 'submit' | 'faults' | 'pending' | 'current' | 'overwrite'>;

/** The fields of a line with what was refused and the buttons under them. */
export function RowFields({
  form,
  rowId,
  remove,
  restsOn,
  done,
  children,
}: {
  form: Form;
  /** Of the line edited; absent for a new one. */
  rowId?: string;
  remove?: Action<string>;
  /** What rests on the row, a sentence each: asked before it is removed. */
  restsOn?: (id: string) => Promise<readonly string[]>;
  done: () => void;
  children: ReactNode;
}) {
  const [resting, setResting] = useState<readonly string[]>([]);
  const removing = useAction(remove ?? nothing);
  const elsewhere = form.faults.filter(({ path }) => path !== 'row' || !form.current);
  const takeOut = async (id: string) => {
    const uses = resting.length === 0 && restsOn ? await restsOn(id) : [];
    if (uses.length > 0) return setResting(uses);
    const outcome = await removing.run(id);
    if (outcome.ok) done();
  };
  return (
    <form onSubmit={form.submit} className="grid gap-3 sm:grid-cols-2" noValidate>
      {children}
      <StaleNote current={form.current} onOverwrite={form.overwrite} />
      <Faults faults={[...elsewhere, ...removing.faults]} />
      {resting.length > 0 ? <Resting sentences={resting} /> : null}
      <FormButtons
        editing={rowId !== undefined}
        pending={form.pending}
        removal={resting.length > 0 ? 'Retire it all the same' : 'Remove'}
        onRemove={remove && rowId ? () => void takeOut(rowId) : undefined}
      />
    </form>
  );
}

const nothing: Action<string> = async () => ({ ok: true, value: null });

/** The dialog of one line of the chart's table. */
export function RowDialog({
  kind,
  code,
  children,
}: {
  kind: 'point' | 'dimension';
  /** Of the line edited; absent for a new one. */
  code?: string;
  children: (close: () => void) => ReactNode;
}) {
  return (
    <FormDialog
      title={code ? `${kind === 'point' ? 'Point' : 'Dimension'} ${code}` : `A new ${kind}`}
      trigger={<RowTrigger what={code} kind={kind} />}
    >
      {children}
    </FormDialog>
  );
}

/** The figure of the chart an edit goes to: the one somebody else left, the one that was read, or a new one. */
export function figureToWrite(current: Current | undefined, read: Figure | undefined, referenceId: string): Figure {
  const {
    id,
    sd,
    version,
    referenceId: on,
  } = current?.reference ?? read ?? { id: crypto.randomUUID(), sd: null, version: 1, referenceId };
  return { id, sd, version, referenceId: on };
}

/** What places a figure: its identity, its edition, its own spread. */
type Figure = Pick<ReferencePoint, 'id' | 'referenceId' | 'sd' | 'version'>;

/** Both rows of a line of the table, as somebody else left them. */
export interface Current {
  readonly thing: { readonly version: number } | null;
  readonly reference: Figure | null;
}

function RowTrigger({ what, kind, ...rest }: { what?: string; kind: string }) {
  return what ? (
    <Button look="quiet" aria-label={`Edit ${kind} ${what}`} className="w-11" {...rest}>
      <Pencil size={17} aria-hidden />
    </Button>
  ) : (
    <Button {...rest}>
      <Plus size={18} aria-hidden /> New {kind}
    </Button>
  );
}

/** What rests on a row, and what becomes of it when the row is taken out of the chart. */
const Resting = ({ sentences }: { sentences: readonly string[] }) => (
  <div role="alert" className="border-l-4 border-ink bg-sheet px-3 py-2 sm:col-span-2" data-resting>
    <ul className="list-disc pl-5">
      {sentences.map((each) => (
        <li key={each}>{each}</li>
      ))}
    </ul>
    <p>It is retired from the next edition of the chart, never removed; one button brings it back.</p>
  </div>
);

interface Buttons {
  readonly editing: boolean;
  readonly pending: boolean;
  readonly removal: string;
  readonly onRemove?: () => void;
}

function FormButtons({ editing, pending, removal, onRemove }: Buttons) {
  return (
    <div className="flex gap-2 sm:col-span-2">
      <Button type="submit" look="main" disabled={pending}>
        {editing ? 'Save' : 'Add'}
      </Button>
      {onRemove ? (
        <Button look="quiet" onClick={onRemove}>
          <Trash2 size={17} aria-hidden /> {removal}
        </Button>
      ) : null}
    </div>
  );
}
