import type { Fault } from '@/formats/faults';
import { SelectField, TextField } from '../kit/field';
import { errorOf } from '../shell/new-job';
import { figureToWrite, RowDialog, type ChartedPoint, type Current, type Reader, type RowAction } from './row-form';

interface Edited {
  readonly jobId: string;
  readonly referenceId: string;
  readonly row?: ChartedPoint;
}

/** Adds or edits a point with its chart position. */
export function PointDialog({ jobId, referenceId, row, save, remove }: Edited & RowAction) {
  const shown = row && {
    x: row.reference.x,
    y: row.reference.y,
    z: row.reference.z,
    tolerance: row.reference.tolerance,
  };
  const hole = row?.point.holeDiameter;
  return (
    <RowDialog
      kind="point"
      code={row?.point.code}
      rowId={row?.id}
      before={{ ...shown, ...(hole ? { hole } : {}) }}
      compose={(form, read, faults, current) => pointOf({ jobId, referenceId, row }, form, read, faults, current)}
      {...{ save, remove }}
    >
      {(faults, show) => (
        <>
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
        </>
      )}
    </RowDialog>
  );
}

function pointOf(
  { jobId, referenceId, row }: Edited,
  form: FormData,
  read: Reader,
  faults: Fault[],
  current: Current | undefined,
) {
  const [x, y, z, tolerance] = [read('x'), read('y'), read('z'), read('tolerance')];
  const holeDiameter = String(form.get('hole') ?? '').trim() === '' ? null : read('hole');
  const side = String(form.get('side'));
  if (y !== undefined && side === 'left' && y > 0)
    faults.push({ path: 'y', message: 'left-hand points have widths below zero' });
  if (y !== undefined && side === 'right' && y < 0)
    faults.push({ path: 'y', message: 'right-hand points have widths above zero' });
  const id = row?.id ?? crypto.randomUUID();
  return {
    point: {
      ...{ id, jobId, code: String(form.get('code')).trim(), name: String(form.get('name')), side, holeDiameter },
      substituteForId: row?.point.substituteForId ?? null,
      mirrored: row?.point.mirrored ?? true,
      version: current?.thing?.version ?? row?.point.version ?? 1,
    },
    reference: { ...figureToWrite(current, row?.reference, referenceId), pointId: id, x, y, z, tolerance },
  };
}
