'use client';

import { useFormat } from '../shell/preferences-context';
import { HOLD_KINDS, type Point, type Pull, type PullHold } from '@/core/shell/job/entities';
import type { Tables } from '@/core/shell/job/job-rows';
import type { ListedPull } from '@/core/report/pages/pulls';
import { HOLD_WORD } from '@/core/report/vocabulary/words';
import { pullHolds, type PullHoldsInput } from '@/formats/inputs/work';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { SelectField, TextField } from '../kit/field';
import { useAction, type Action } from '../kit/use-action';
import { useEntryForm, wordsOf } from '../kit/use-entry-form';
import { FormFields } from '../kit/form-fields';

type ReadHolds = { readonly ok: true; readonly holds: PullHold[] } | { readonly ok: false; readonly reason: string };

/** Points typed by their codes as holds of one kind. */
export function readHolds(
  text: string,
  points: readonly Pick<Point, 'id' | 'code'>[],
  pullId: string,
  kind: PullHold['kind'] = 'clamp',
): ReadHolds {
  const codes = [...new Set(wordsOf(text))];
  const found = codes.map((code) => points.find((point) => point.code.toLowerCase() === code.toLowerCase()));
  const unknown = codes.filter((_, i) => !found[i]);
  if (unknown.length > 0) return { ok: false, reason: `no point "${unknown[0]}" in this job` };
  const ids = [...new Set(found.map((point) => point!.id))];
  return { ok: true, holds: ids.map((pointId) => ({ id: crypto.randomUUID(), pullId, pointId, kind, rating: null })) };
}

/** What holds the shell against a pull: rows, with an older note's points offered. */
export function Holds({
  rows,
  pull,
  holds,
  offered,
  setPullHolds,
}: Pick<ListedPull, 'pull' | 'holds' | 'offered'> & { rows: Tables<'points'>; setPullHolds: Action<PullHoldsInput> }) {
  const format = useFormat();
  const { run, faults, pending } = useAction(setPullHolds);
  const said = holds.map(({ code, hold }) => `${code} (${HOLD_WORD[hold.kind]})`).join(', ');
  const take = () =>
    run({
      pullId: pull.id,
      holds: offered.map(({ id }) => ({
        id: crypto.randomUUID(),
        pullId: pull.id,
        pointId: id,
        kind: 'clamp',
        rating: null,
      })),
    });
  return (
    <div className="flex flex-wrap items-center gap-3 text-sm" data-holds={holds.length}>
      <p className="text-soft">
        Held at {said || 'no point that is named'}
        {pull.heldAt ? `; ${format.name(pull.heldAt)}` : ''}.
      </p>
      <EditHolds rows={rows} pull={pull} holds={holds} setPullHolds={setPullHolds} />
      {offered.length > 0 ? (
        <p className="flex flex-wrap items-center gap-2" role="note">
          The note names {offered.map(({ code }) => code).join(', ')}. A note is not calculated with.
          <Button onClick={take} disabled={pending}>
            {offered.length === 1 ? 'Make it a hold' : 'Make them holds'}
          </Button>
        </p>
      ) : null}
      <Faults faults={faults} />
    </div>
  );
}

interface Holding {
  readonly rows: Tables<'points'>;
  readonly pull: Pull;
  readonly holds: ListedPull['holds'];
  readonly setPullHolds: Action<PullHoldsInput>;
}

function EditHolds({ rows, pull, holds, setPullHolds }: Holding) {
  return (
    <FormDialog title={`What holds the shell against ${pull.code}`} trigger={<Button look="quiet">Holds</Button>}>
      {(close) => <HoldsForm {...{ rows, pull, holds, setPullHolds }} done={close} />}
    </FormDialog>
  );
}

function HoldsForm({ rows, pull, holds, setPullHolds, done }: Holding & { done: () => void }) {
  const form = useEntryForm({
    schema: pullHolds,
    action: setPullHolds,
    defaults: { points: holds.map(({ code }) => code).join(' '), kind: holds[0]?.hold.kind ?? 'clamp' },
    read: ({ points, kind }, faults) => {
      const read = readHolds(points, rows.points, pull.id, kind);
      if (!read.ok) faults.push({ path: 'points', message: read.reason });
      return { pullId: pull.id, holds: read.ok ? read.holds : [] };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Keep these">
      <TextField label="Points it is held at" placeholder="C1L C1R" {...form.field('points')} />
      <SelectField label="By" options={HOLD_KINDS.map((kind) => [kind, HOLD_WORD[kind]])} {...form.field('kind')} />
      <p className="text-sm text-soft sm:col-span-2">
        A point that held a pull is no control point of a round until it has been read again in it.
      </p>
    </FormFields>
  );
}
