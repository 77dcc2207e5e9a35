import type { Tables } from '@/core/shell/job/job-rows';

import { norm, type Vector } from '@/core/maths/geometry/vector';
import type { Pullable } from '@/core/report/pages/pulls';
import { directionWord } from '@/core/report/vocabulary/words';
import { newPull, type NewPull } from '@/formats/inputs/work';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { TextField } from '../kit/field';
import type { Action } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { useFormat } from '../shell/preferences-context';
import { freeCode } from './free-code';
import { readHolds } from './holds';
import { FormFields } from '../kit/form-fields';

/** An aim in plain words: `12.9 forward, 4.8 to the left`. */
export function aimText(aim: Vector, length: (mm: number) => string): string {
  const parts = (['x', 'y', 'z'] as const).flatMap((axis, i) =>
    Math.abs(aim[i]!) >= 0.1 ? [`${length(Math.abs(aim[i]!))} ${directionWord(axis, aim[i]!)}`] : [],
  );
  return parts.join(', ') || 'nowhere';
}

/** What a pull is planned from. */
export type PullRows = Tables<'jobs' | 'points' | 'pulls'>;

interface Planning {
  readonly rows: PullRows;
  readonly pullable: readonly Pullable[];
  readonly planPull: Action<NewPull>;
}

/** Plans a pull from a deviation of a round; without a round there is none. */
export function PlanPull({ roundId, ...planning }: Planning & { roundId: string | null }) {
  return (
    <FormDialog
      title="Plan a pull"
      trigger={
        <Button look="main" className="ml-auto" disabled={!roundId}>
          Plan a pull
        </Button>
      }
    >
      {(close) => (roundId ? <PullForm {...planning} roundId={roundId} done={close} /> : null)}
    </FormDialog>
  );
}

function PullForm({ rows, pullable, roundId, planPull, done }: Planning & { roundId: string; done: () => void }) {
  const format = useFormat();
  const find = (code = '') => pullable.find((each) => each.code.toLowerCase() === code.trim().toLowerCase());
  const form = useEntryForm({
    schema: newPull,
    action: planPull,
    defaults: { code: freeCode(rows.pulls, 'P'), point: '', points: '', heldAt: '', note: '' },
    read: ({ code, point, points, heldAt, note }, faults) => {
      const chosen = find(point);
      if (!chosen) {
        const message = point ? `"${point}" is not a point with a deviation in the latest round` : 'name a point';
        faults.push({ path: 'point', message });
      }
      const id = crypto.randomUUID();
      const holds = readHolds(points, rows.points, id);
      if (!holds.ok) faults.push({ path: 'points', message: holds.reason });
      const [aimX, aimY, aimZ] = chosen?.aim ?? [0, 0, 0];
      const aim = { aimX, aimY, aimZ };
      return {
        pull: {
          ...{ id, jobId: rows.jobs[0]!.id, code: code.trim(), roundId, heldAt, note },
          pointId: chosen?.pointId ?? '',
          ...aim,
        },
        holds: holds.ok ? holds.holds : [],
      };
    },
    done,
  });
  const chosen = find(form.watch('point'));
  return (
    <FormFields form={form} yes="Plan it">
      <TextField label="Code" {...form.field('code')} />
      <TextField label="Point that is to move" list="pullable" {...form.field('point')} />
      <datalist id="pullable">
        {pullable.map((each) => (
          <option key={each.pointId} value={each.code} />
        ))}
      </datalist>
      <p role="status" className="sm:col-span-2">
        {chosen
          ? `Back by ${format.length(norm(chosen.aim))} ${format.unit}: ${aimText(chosen.aim, format.length)}.`
          : 'The direction and the distance come from the point’s deviation.'}
      </p>
      <TextField label="Held at these points" placeholder="C1L C1R" {...form.field('points')} />
      <TextField label="How it is held" {...form.field('heldAt')} placeholder={format.name('clamped at both sills')} />
      <TextField label="Note" {...form.field('note')} />
    </FormFields>
  );
}
