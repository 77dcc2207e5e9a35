import type { Point } from '@/core/shell/job/entities';
import type { Fault } from '@/formats/faults';
import { SelectField, TextField } from '../kit/field';
import { errorOf } from '../shell/new-job';
import { figureToWrite, RowDialog, type ChartedDimension, type Current, type Reader, type RowAction } from './row-form';

interface Edited {
  readonly jobId: string;
  readonly referenceId: string;
  readonly row?: ChartedDimension;
  readonly points: readonly Point[];
}

/** Adds or edits a dimension with its charted length. */
export function DimensionDialog({ jobId, referenceId, row, points, save, remove }: Edited & RowAction) {
  return (
    <RowDialog
      kind="dimension"
      code={row?.dimension.code}
      rowId={row?.id}
      before={row ? { value: row.reference.value, tolerance: row.reference.tolerance } : {}}
      compose={(form, read, faults, current) =>
        dimensionOf({ jobId, referenceId, row, points }, form, read, faults, current)
      }
      {...{ save, remove }}
    >
      {(faults, show) => (
        <>
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
        </>
      )}
    </RowDialog>
  );
}

function dimensionOf(
  { jobId, referenceId, row, points }: Edited,
  form: FormData,
  read: Reader,
  faults: Fault[],
  current: Current | undefined,
) {
  const [value, tolerance] = [read('value'), read('tolerance')];
  const end = (field: 'from' | 'to') => {
    const text = String(form.get(field) ?? '').trim();
    const found = points.find((point) => point.code.toLowerCase() === text.toLowerCase());
    if (!found) faults.push({ path: field, message: text ? `no point "${text}"` : 'a point is missing' });
    return found?.id;
  };
  const [fromPointId, toPointId] = [end('from'), end('to')];
  if (fromPointId && fromPointId === toPointId) faults.push({ path: 'to', message: 'a point to itself has no length' });
  const id = row?.id ?? crypto.randomUUID();
  return {
    dimension: {
      ...{ id, jobId, code: String(form.get('code')).trim(), name: String(form.get('name')), fromPointId, toPointId },
      measure: String(form.get('measure')),
      version: current?.thing?.version ?? row?.dimension.version ?? 1,
    },
    reference: { ...figureToWrite(current, row?.reference, referenceId), dimensionId: id, value, tolerance },
  };
}
