'use client';

import { Pencil, Plus, Trash2 } from 'lucide-react';
import { useState, type FormEvent } from 'react';
import type { Dimension, Point, ReferenceDimension, ReferencePoint } from '@/core/job/entities';
import { formatLength, parseLength } from '@/core/units/length';
import type { Fault } from '@/formats/faults';
import type { Outcome } from '@/formats/outcome';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { SelectField, TextField } from '../kit/field';
import { useAction, type Action } from '../kit/use-action';
import { styleOf, typedUnit } from '@/formats/preferences';
import { usePreferences } from '../shell/preferences-context';
import { errorOf } from '../shell/new-job';

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
function StaleNote({ outcome, onReload }: { outcome: Outcome<unknown> | undefined; onReload: () => void }) {
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

interface RowAction {
  readonly save: Action;
  readonly remove?: Action;
}

/** Adds or edits a point with its chart position. */
export function PointDialog({
  jobId,
  referenceId,
  row,
  save,
  remove,
}: { jobId: string; referenceId: string; row?: ChartedPoint } & RowAction) {
  const [open, setOpen] = useState(false);
  const [own, setOwn] = useState<readonly Fault[]>([]);
  const [outcome, setOutcome] = useState<Outcome<unknown>>();
  const saving = useAction(save);
  const removing = useAction(remove ?? save);
  const { show, reader } = useLengths();
  const submit = async (event: FormEvent<HTMLFormElement>, force = false) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const faults: Fault[] = [];
    const before: Record<string, number> = row
      ? { x: row.reference.x, y: row.reference.y, z: row.reference.z, tolerance: row.reference.tolerance }
      : {};
    if (row?.point.holeDiameter) before.hole = row.point.holeDiameter;
    const read = reader(form, faults, before);
    const [x, y, z, tolerance] = [read('x'), read('y'), read('z'), read('tolerance')];
    const hole = String(form.get('hole') ?? '').trim() === '' ? null : read('hole');
    const side = String(form.get('side'));
    if (y !== undefined && ((side === 'left' && y > 0) || (side === 'right' && y < 0)))
      faults.push({
        path: 'y',
        message:
          side === 'left' ? 'left-hand points have widths below zero' : 'right-hand points have widths above zero',
      });
    setOwn(faults);
    if (faults.length > 0) return;
    const current = force ? currentOf(outcome) : undefined;
    const id = row?.id ?? crypto.randomUUID();
    const result = await saving.run({
      point: {
        id,
        jobId,
        code: String(form.get('code')).trim(),
        name: String(form.get('name')),
        side,
        holeDiameter: hole,
        substituteForId: row?.point.substituteForId ?? null,
        mirrored: row?.point.mirrored ?? true,
        version: current?.thing?.version ?? row?.point.version ?? 1,
      },
      reference: { ...figureToWrite(current, row?.reference, referenceId), pointId: id, x, y, z, tolerance },
    });
    setOutcome(result);
    if (result.ok) setOpen(false);
  };
  const faults = [...own, ...saving.faults];
  return (
    <Dialog
      title={row ? `Point ${row.point.code}` : 'A new point'}
      open={open}
      onOpenChange={setOpen}
      trigger={<RowTrigger what={row?.point.code} kind="point" />}
    >
      <form id="point-form" onSubmit={submit} className="grid gap-3 sm:grid-cols-2" noValidate>
        <TextField
          label="Code"
          name="code"
          defaultValue={row?.point.code}
          error={errorOf(faults, 'point.code') ?? errorOf(faults, 'code')}
        />
        <TextField label="Name" name="name" defaultValue={row?.point.name} />
        <SelectField
          label="Side"
          name="side"
          defaultValue={row?.point.side ?? 'left'}
          options={[
            ['left', 'left'],
            ['right', 'right'],
            ['centre', 'centre'],
          ]}
        />
        <TextField
          label="Length from the front datum"
          name="x"
          defaultValue={row ? show(row.reference.x) : ''}
          error={errorOf(faults, 'x')}
        />
        <TextField
          label="Width from the centre plane, left below zero"
          name="y"
          defaultValue={row ? show(row.reference.y) : ''}
          error={errorOf(faults, 'y')}
        />
        <TextField
          label="Height from the datum plane"
          name="z"
          defaultValue={row ? show(row.reference.z) : ''}
          error={errorOf(faults, 'z')}
        />
        <TextField
          label="Limit on each axis"
          name="tolerance"
          defaultValue={row ? show(row.reference.tolerance) : show(3)}
          error={errorOf(faults, 'tolerance') ?? errorOf(faults, 'reference.tolerance')}
        />
        <TextField
          label="Hole, diameter"
          name="hole"
          defaultValue={row?.point.holeDiameter ? show(row.point.holeDiameter) : ''}
          error={errorOf(faults, 'hole')}
        />
        <StaleNote outcome={outcome} onReload={() => forceSubmit('point-form', submit)} />
        <Faults
          faults={[
            ...saving.faults.filter((fault) => !/code|row/.test(fault.path) || !currentOf(outcome)),
            ...removing.faults,
          ]}
        />
        <FormButtons
          editing={Boolean(row)}
          pending={saving.pending}
          onRemove={remove && row ? () => removing.run(row.id) : undefined}
        />
      </form>
    </Dialog>
  );
}

/** The figure of the chart an edit goes to: the one somebody else left, the one that was read, or a new one. */
function figureToWrite(current: Current | undefined, read: Figure | undefined, referenceId: string): Figure {
  const {
    id,
    sd,
    version,
    referenceId: on,
  } = current?.reference ?? read ?? { id: crypto.randomUUID(), sd: null, version: 1, referenceId };
  return { id, sd, version, referenceId: on };
}

/** Submits again, this time over what somebody else wrote. */
function forceSubmit(
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
type Figure = Pick<ReferencePoint, 'id' | 'referenceId' | 'sd' | 'version'>;

/** Both rows of a line of the table, as somebody else left them. */
interface Current {
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

/** Adds or edits a dimension with its charted length. */
export function DimensionDialog({
  jobId,
  referenceId,
  row,
  points,
  save,
  remove,
}: { jobId: string; referenceId: string; row?: ChartedDimension; points: readonly Point[] } & RowAction) {
  const [open, setOpen] = useState(false);
  const [own, setOwn] = useState<readonly Fault[]>([]);
  const [outcome, setOutcome] = useState<Outcome<unknown>>();
  const saving = useAction(save);
  const removing = useAction(remove ?? save);
  const { show, reader } = useLengths();
  const submit = async (event: FormEvent<HTMLFormElement>, force = false) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const faults: Fault[] = [];
    const read = reader(form, faults, row ? { value: row.reference.value, tolerance: row.reference.tolerance } : {});
    const [value, tolerance] = [read('value'), read('tolerance')];
    const end = (field: 'from' | 'to') => {
      const text = String(form.get(field) ?? '').trim();
      const found = points.find((point) => point.code.toLowerCase() === text.toLowerCase());
      if (!found) faults.push({ path: field, message: text ? `no point "${text}"` : 'a point is missing' });
      return found?.id;
    };
    const [fromPointId, toPointId] = [end('from'), end('to')];
    if (fromPointId && fromPointId === toPointId)
      faults.push({ path: 'to', message: 'a point to itself has no length' });
    setOwn(faults);
    if (faults.length > 0) return;
    const current = force ? currentOf(outcome) : undefined;
    const id = row?.id ?? crypto.randomUUID();
    const result = await saving.run({
      dimension: {
        id,
        jobId,
        code: String(form.get('code')).trim(),
        name: String(form.get('name')),
        fromPointId,
        toPointId,
        measure: String(form.get('measure')),
        version: current?.thing?.version ?? row?.dimension.version ?? 1,
      },
      reference: { ...figureToWrite(current, row?.reference, referenceId), dimensionId: id, value, tolerance },
    });
    setOutcome(result);
    if (result.ok) setOpen(false);
  };
  const faults = [...own, ...saving.faults];
  return (
    <Dialog
      title={row ? `Dimension ${row.dimension.code}` : 'A new dimension'}
      open={open}
      onOpenChange={setOpen}
      trigger={<RowTrigger what={row?.dimension.code} kind="dimension" />}
    >
      <form id="dimension-form" onSubmit={submit} className="grid gap-3 sm:grid-cols-2" noValidate>
        <TextField
          label="Code"
          name="code"
          defaultValue={row?.dimension.code}
          error={errorOf(faults, 'code') ?? errorOf(faults, 'dimension.code')}
        />
        <TextField label="Name" name="name" defaultValue={row?.dimension.name} />
        <TextField label="From point" name="from" defaultValue={row?.from} error={errorOf(faults, 'from')} />
        <TextField label="To point" name="to" defaultValue={row?.to} error={errorOf(faults, 'to')} />
        <TextField
          label="Charted length"
          name="value"
          defaultValue={row ? show(row.reference.value) : ''}
          error={errorOf(faults, 'value') ?? errorOf(faults, 'reference.value')}
        />
        <TextField
          label="Limit"
          name="tolerance"
          defaultValue={row ? show(row.reference.tolerance) : show(3)}
          error={errorOf(faults, 'tolerance')}
        />
        <SelectField
          label="Measured"
          name="measure"
          defaultValue={row?.dimension.measure ?? 'tip'}
          options={[
            ['tip', 'tip to tip'],
            ['level', 'level'],
          ]}
        />
        <StaleNote outcome={outcome} onReload={() => forceSubmit('dimension-form', submit)} />
        <Faults faults={removing.faults} />
        <FormButtons
          editing={Boolean(row)}
          pending={saving.pending}
          onRemove={remove && row ? () => removing.run(row.id) : undefined}
        />
      </form>
    </Dialog>
  );
}
