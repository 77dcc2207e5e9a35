import { Pencil, Plus, Trash2 } from 'lucide-react';
import { useRef, useState, type ReactNode } from 'react';
import type { Dimension, Point, ReferenceDimension, ReferencePoint } from '@/core/shell/job/entities';
import { formatLength, parseLength } from '@/core/maths/units/length';
import type { Fault } from '@/formats/faults';
import type { Outcome } from '@/formats/outcome';
import { styleOf, typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { useAction, type Action } from '../kit/use-action';
import { usePreferences } from '../shell/preferences-context';

export interface ChartedPoint {
  readonly id: string;
  readonly point: Point;
  readonly reference: ReferencePoint;
}

export interface ChartedDimension {
  readonly id: string;
  readonly dimension: Dimension;
  readonly reference: ReferenceDimension;
  readonly from: string;
  readonly to: string;
}

/** A form's length by its field, mm; undefined, with a fault noted, where it is none. */
export type Reader = (field: string) => number | undefined;

/** Reads a form's lengths in the user's unit; each that is none becomes a fault at its field. */
function useLengths() {
  const { preferences } = usePreferences();
  const style = styleOf(preferences);
  const show = (mm: number) => formatLength(mm, style).replace('−', '-');
  const reader =
    (form: FormData, faults: Fault[], before: Readonly<Record<string, number>>): Reader =>
    (field) => {
      const text = String(form.get(field) ?? '');
      // A figure the user left alone keeps every digit it has, whatever the screen shows of it.
      if (before[field] !== undefined && text === show(before[field])) return before[field];
      const parsed = parseLength(text, typedUnit(preferences));
      if (parsed.ok) return parsed.mm;
      faults.push({ path: field, message: parsed.reason });
      return undefined;
    };
  return { show, reader };
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

export interface RowAction {
  readonly save: Action;
  readonly remove?: Action;
}

/**
 * The dialog of one line of the chart's table. Bad input is faulted at its field; where somebody else came first, what
 * was typed stays typed and can be written over theirs.
 */
export function RowDialog({
  kind,
  code,
  rowId,
  before,
  compose,
  children,
  save,
  remove,
}: RowAction & {
  kind: 'point' | 'dimension';
  /** Of the line edited; absent for a new one. */
  code?: string;
  rowId?: string;
  /** The lengths the form shows, mm, so that one left alone keeps every digit it has. */
  before: Readonly<Record<string, number>>;
  /** What is to be saved, by the form and by what somebody else left; pushes what is wrong. */
  compose: (form: FormData, read: Reader, faults: Fault[], current: Current | undefined) => unknown;
  children: (faults: readonly Fault[], show: (mm: number) => string) => ReactNode;
}) {
  const [open, setOpen] = useState(false);
  const [own, setOwn] = useState<readonly Fault[]>([]);
  const [outcome, setOutcome] = useState<Outcome<unknown>>();
  const form = useRef<HTMLFormElement>(null);
  const saving = useAction(save);
  const removing = useAction(remove ?? save);
  const { show, reader } = useLengths();
  const submit = async (over?: Current) => {
    const fields = new FormData(form.current!);
    const faults: Fault[] = [];
    const row = compose(fields, reader(fields, faults, before), faults, over);
    setOwn(faults);
    if (faults.length > 0) return;
    const result = await saving.run(row);
    setOutcome(result);
    if (result.ok) setOpen(false);
  };
  const current = currentOf(outcome);
  const elsewhere = saving.faults.filter(({ path }) => !/code|row/.test(path) || !current);
  return (
    <Dialog
      title={code ? `${kind === 'point' ? 'Point' : 'Dimension'} ${code}` : `A new ${kind}`}
      open={open}
      onOpenChange={setOpen}
      trigger={<RowTrigger what={code} kind={kind} />}
    >
      <form
        ref={form}
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
        className="grid gap-3 sm:grid-cols-2"
        noValidate
      >
        {children([...own, ...saving.faults], show)}
        <StaleNote current={current} onOverwrite={() => void submit(current)} />
        <Faults faults={[...elsewhere, ...removing.faults]} />
        <FormButtons
          editing={rowId !== undefined}
          pending={saving.pending}
          onRemove={remove && rowId ? () => removing.run(rowId) : undefined}
        />
      </form>
    </Dialog>
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

const currentOf = (outcome: Outcome<unknown> | undefined): Current | undefined =>
  outcome && !outcome.ok ? (outcome.current as Current | undefined) : undefined;

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

function FormButtons({ editing, pending, onRemove }: { editing: boolean; pending: boolean; onRemove?: () => void }) {
  return (
    <div className="flex gap-2 sm:col-span-2">
      <Button type="submit" look="main" disabled={pending}>
        {editing ? 'Save' : 'Add'}
      </Button>
      {onRemove ? (
        <Button look="quiet" onClick={onRemove}>
          <Trash2 size={17} aria-hidden /> Remove
        </Button>
      ) : null}
    </div>
  );
}
