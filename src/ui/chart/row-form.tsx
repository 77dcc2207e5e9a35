import { Pencil, Plus, Trash2 } from 'lucide-react';
import type { FormEvent } from 'react';
import type { Dimension, Point, ReferenceDimension, ReferencePoint } from '@/core/job/entities';
import { formatLength, parseLength } from '@/core/units/length';
import type { Fault } from '@/formats/faults';
import type { Outcome } from '@/formats/outcome';
import { Button } from '../kit/button';
import type { Action } from '../kit/use-action';
import { styleOf, typedUnit } from '@/formats/preferences';
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

type Reader = (field: string) => number | undefined;

/** Reads a form's lengths in the user's unit; each that is none becomes a fault at its field. */
export function useLengths() {
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
export function StaleNote({ outcome, onReload }: { outcome: Outcome<unknown> | undefined; onReload: () => void }) {
  const current = currentOf(outcome);
  if (!current) return null;
  return (
    <div role="alert" className="border-l-4 border-minus bg-sheet px-3 py-2 text-sm">
      <p className="font-medium">Somebody else changed this row while you were typing. What you typed is still here.</p>
      <p className="font-mono">{[current.thing, current.reference].map(summary).join(', ')}</p>
      <Button className="mt-2" onClick={onReload}>
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

/** Submits again, this time over what somebody else wrote. */
export function forceSubmit(
  formId: string,
  submit: (event: FormEvent<HTMLFormElement>, force: boolean) => Promise<void>,
): void {
  const form = document.getElementById(formId) as HTMLFormElement;
  void submit(
    {
      preventDefault: () => undefined,
      currentTarget: form,
    } as unknown as FormEvent<HTMLFormElement>,
    true,
  );
}

/** What places a figure: its identity, its edition, its own spread. */
export type Figure = Pick<ReferencePoint, 'id' | 'referenceId' | 'sd' | 'version'>;

/** Both rows of a line of the table, as somebody else left them. */
interface Current {
  readonly thing: { readonly version: number } | null;
  readonly reference: Figure | null;
}

export const currentOf = (outcome: Outcome<unknown> | undefined): Current | undefined =>
  outcome && !outcome.ok ? (outcome.current as Current | undefined) : undefined;

export function RowTrigger({ what, kind, ...rest }: { what?: string; kind: string }) {
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

export function FormButtons({
  editing,
  pending,
  onRemove,
}: {
  editing: boolean;
  pending: boolean;
  onRemove?: () => void;
}) {
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
