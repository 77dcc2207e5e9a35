import { useState, type FormEvent } from 'react';
import type { Fault } from '@/formats/faults';
import type { Outcome } from '@/formats/outcome';
import { Dialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { SelectField, TextField } from '../kit/field';
import { useAction } from '../kit/use-action';
import { errorOf } from '../shell/new-job';
import {
  type ChartedPoint,
  useLengths,
  StaleNote,
  type RowAction,
  figureToWrite,
  forceSubmit,
  currentOf,
  RowTrigger,
  FormButtons,
} from './row-form';

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
