import type { Dimension, Point } from '@/core/shell/job/entities';
import { chartDimension, type ChartDimension } from '@/formats/inputs/chart';
import { SelectField, TextField } from '../kit/field';
import type { Action } from '../kit/use-action';
import { figureToWrite, RowDialog, RowFields, useRowForm, type ChartedDimension } from './row-form';

interface Edited {
  readonly jobId: string;
  readonly referenceId: string;
  readonly row?: ChartedDimension;
  readonly points: readonly Point[];
  readonly save: Action<ChartDimension>;
  readonly remove?: Action<string>;
}

/** Adds or edits a dimension with its charted length. */
export function DimensionDialog(edited: Edited) {
  return (
    <RowDialog kind="dimension" code={edited.row?.dimension.code}>
      {(close) => <DimensionForm {...edited} done={close} />}
    </RowDialog>
  );
}

function DimensionForm({ jobId, referenceId, row, points, save, remove, done }: Edited & { done: () => void }) {
  const { dimension, reference } = row ?? {};
  const form = useRowForm({
    schema: chartDimension,
    save,
    texts: {
      code: dimension?.code ?? '',
      name: dimension?.name ?? '',
      from: row?.from ?? '',
      to: row?.to ?? '',
      measure: dimension?.measure ?? ('tip' as Dimension['measure']),
    },
    lengths: { value: reference?.value ?? null, tolerance: reference?.tolerance ?? 3 },
    compose: (values, length, faults, over) => {
      const end = (field: 'from' | 'to') => {
        const text = values[field].trim();
        const found = points.find((point) => point.code.toLowerCase() === text.toLowerCase());
        if (!found) faults.push({ path: field, message: text ? `no point "${text}"` : 'a point is missing' });
        return found?.id ?? '';
      };
      const [fromPointId, toPointId] = [end('from'), end('to')];
      if (fromPointId && fromPointId === toPointId)
        faults.push({ path: 'to', message: 'a point to itself has no length' });
      const id = dimension?.id ?? crypto.randomUUID();
      return {
        dimension: {
          ...{ id, jobId, code: values.code.trim(), name: values.name, fromPointId, toPointId },
          measure: values.measure,
          version: over?.thing?.version ?? dimension?.version ?? 1,
        },
        reference: {
          ...figureToWrite(over, reference, referenceId),
          ...{ dimensionId: id, value: length('value'), tolerance: length('tolerance') },
        },
      };
    },
    done,
  });
  return (
    <RowFields {...{ form, remove, done }} rowId={row?.id}>
      <TextField label="Code" {...form.field('code')} />
      <TextField label="Name" {...form.field('name')} />
      <TextField label="From point" {...form.field('from')} />
      <TextField label="To point" {...form.field('to')} />
      <TextField label="Charted length" {...form.field('value')} />
      <TextField label="Limit" {...form.field('tolerance')} />
      <SelectField
        label="Measured"
        options={[
          ['tip', 'tip to tip'],
          ['level', 'level'],
        ]}
        {...form.field('measure')}
      />
    </RowFields>
  );
}
