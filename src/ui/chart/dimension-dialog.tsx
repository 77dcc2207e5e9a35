import { useState, type FormEvent } from 'react';
import type { Point } from '@/core/job/entities';
import type { Fault } from '@/formats/faults';
import type { Outcome } from '@/formats/outcome';
import { Dialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { SelectField, TextField } from '../kit/field';
import { useAction } from '../kit/use-action';
import { errorOf } from '../shell/new-job';
import {
  type ChartedDimension,
  useLengths,
  StaleNote,
  type RowAction,
  figureToWrite,
  forceSubmit,
  currentOf,
  RowTrigger,
  FormButtons,
} from './row-form';

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
