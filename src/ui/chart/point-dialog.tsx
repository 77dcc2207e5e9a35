import { POINT_KINDS, type Point } from '@/core/shell/job/entities';
import { chartPoint, type ChartPoint } from '@/formats/inputs/chart';
import { SelectField, TextField } from '../kit/field';
import { counted, listed, POINT_KIND_WORD } from '@/core/report/vocabulary/words';
import type { PointUses } from '@/core/shell/point-uses';
import type { Action } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import { figureToWrite, RowDialog, RowFields, useRowForm, type ChartedPoint } from './row-form';
import { SideField } from '../shell/side-field';

interface Edited {
  readonly jobId: string;
  readonly referenceId: string;
  readonly row?: ChartedPoint;
  readonly save: Action<ChartPoint>;
  readonly remove?: Action<string>;
  readonly uses?: Action<string, PointUses>;
}

/** Adds or edits a point with its chart position. */
export function PointDialog(edited: Edited) {
  return (
    <RowDialog kind="point" code={edited.row?.point.code}>
      {(close) => <PointForm {...edited} done={close} />}
    </RowDialog>
  );
}

function PointForm({ jobId, referenceId, row, save, remove, uses, done }: Edited & { done: () => void }) {
  const format = useFormat();
  const { point, reference } = row ?? {};
  const form = useRowForm({
    schema: chartPoint,
    save,
    texts: {
      code: point?.code ?? '',
      name: point?.name ?? '',
      side: point?.side ?? ('left' as Point['side']),
      kind: point?.kind ?? ('shell' as Point['kind']),
    },
    lengths: {
      x: reference?.x ?? null,
      y: reference?.y ?? null,
      z: reference?.z ?? null,
      tolerance: reference?.tolerance ?? 3,
      hole: point?.holeDiameter ?? null,
    },
    compose: (values, length, faults, over) => {
      const named = !reference && ['x', 'y', 'z'].every((axis) => (values[axis] ?? '').trim() === '');
      const [x, y, z] = named ? [0, 0, 0] : [length('x'), length('y'), length('z')];
      if (values.side === 'left' && y > 0)
        faults.push({ path: 'y', message: 'left-hand points have widths below zero' });
      if (values.side === 'right' && y < 0)
        faults.push({ path: 'y', message: 'right-hand points have widths above zero' });
      const id = point?.id ?? crypto.randomUUID();
      return {
        point: {
          ...{ id, jobId, code: values.code.trim(), name: values.name, side: values.side },
          holeDiameter: (values.hole ?? '').trim() === '' ? null : length('hole'),
          substituteForId: point?.substituteForId ?? null,
          ...{ kind: values.kind as Point['kind'], mirrored: point?.mirrored ?? true, place: point?.place ?? '' },
          version: over?.thing?.version ?? point?.version ?? 1,
        },
        reference: named
          ? null
          : {
              ...figureToWrite(over, reference, referenceId),
              ...{ pointId: id, x, y, z },
              tolerance: length('tolerance'),
            },
      };
    },
    done,
  });
  return (
    <RowFields {...{ form, remove, done }} rowId={row?.id} restsOn={uses && ((id) => sentencesFrom(uses, id))}>
      <TextField label="Code" {...form.field('code')} />
      <TextField label="Name" {...form.field('name')} />
      <SideField {...form.field('side')} />
      <SelectField
        label="It is"
        options={POINT_KINDS.map((kind) => [kind, POINT_KIND_WORD[kind]])}
        {...form.field('kind')}
      />
      <TextField label="Length from the front datum" {...form.field('x')} />
      <TextField label={format.name('Width from the centre plane, left below zero')} {...form.field('y')} />
      <TextField label="Height from the datum plane" {...form.field('z')} />
      <TextField label="Limit on each axis" {...form.field('tolerance')} />
      <TextField label="Hole, diameter" {...form.field('hole')} />
      <p className="text-sm text-soft sm:col-span-2">
        Without a chart leave length, width and height blank: a point is there once it has a name.
      </p>
    </RowFields>
  );
}

async function sentencesFrom(uses: Action<string, PointUses>, id: string): Promise<readonly string[]> {
  const outcome = await uses(id);
  return outcome.ok ? usesSentences(outcome.value) : [];
}

/** What rests on a point, a sentence each. */
export const usesSentences = ({ readings, rounds, dimensions, pulls, braces, ...more }: PointUses): string[] => [
  ...(readings > 0 ? [`${counted(readings, 'reading')} in ${listed(rounds)}.`] : []),
  ...(dimensions.length > 0 ? [`The dimensions ${listed(dimensions)}.`] : []),
  ...(pulls.length > 0 ? [`The pulls ${listed(pulls)}.`] : []),
  ...(braces.length > 0 ? [`The braces ${listed(braces)}.`] : []),
  ...(more.seams.length > 0 ? [`The seams ${listed(more.seams)}.`] : []),
  ...(more.entries > 0 ? [`${counted(more.entries, 'entry')} of the log.`] : []),
  ...(more.mornings > 0 ? [`${counted(more.mornings, 'reading')} of a morning.`] : []),
];
