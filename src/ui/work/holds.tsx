'use client';

import { useState, type FormEvent } from 'react';
import { HOLD_KINDS, type Point, type Pull, type PullHold } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { ListedPull } from '@/core/report/pages/pulls';
import { HOLD_WORD } from '@/core/report/vocabulary/words';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { SelectField, TextField } from '../kit/field';
import { useAction, type Action } from '../kit/use-action';

type ReadHolds = { readonly ok: true; readonly holds: PullHold[] } | { readonly ok: false; readonly reason: string };

/** Points typed by their codes as holds of one kind. */
export function readHolds(
  text: string,
  points: readonly Pick<Point, 'id' | 'code'>[],
  pullId: string,
  kind: PullHold['kind'] = 'clamp',
): ReadHolds {
  const codes = [...new Set(text.split(/[\s,;]+/).filter(Boolean))];
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
}: Pick<ListedPull, 'pull' | 'holds' | 'offered'> & { rows: JobRows; setPullHolds: Action }) {
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
        {pull.heldAt ? `; ${pull.heldAt}` : ''}.
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

function EditHolds({
  rows,
  pull,
  holds,
  setPullHolds,
}: {
  rows: JobRows;
  pull: Pull;
  holds: ListedPull['holds'];
  setPullHolds: Action;
}) {
  const [open, setOpen] = useState(false);
  const [error, setError] = useState('');
  const { run, faults, pending } = useAction(setPullHolds);
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const read = readHolds(
      String(form.get('points')),
      rows.points,
      pull.id,
      String(form.get('kind')) as PullHold['kind'],
    );
    setError(read.ok ? '' : read.reason);
    if (!read.ok) return;
    const outcome = await run({ pullId: pull.id, holds: read.holds });
    if (outcome.ok) setOpen(false);
  };
  return (
    <Dialog
      title={`What holds the shell against ${pull.code}`}
      open={open}
      onOpenChange={setOpen}
      trigger={<Button look="quiet">Holds</Button>}
    >
      <form onSubmit={submit} className="grid gap-3 sm:grid-cols-2" noValidate>
        <TextField
          label="Points it is held at"
          name="points"
          defaultValue={holds.map(({ code }) => code).join(' ')}
          placeholder="C1L C1R"
          error={error}
        />
        <SelectField
          label="By"
          name="kind"
          defaultValue={holds[0]?.hold.kind ?? 'clamp'}
          options={HOLD_KINDS.map((kind) => [kind, HOLD_WORD[kind]] as const)}
        />
        <p className="text-sm text-soft sm:col-span-2">
          A point that held a pull is no control point of a round until it has been read again in it.
        </p>
        <div className="sm:col-span-2">
          <Faults faults={faults} />
        </div>
        <Button type="submit" look="main" disabled={pending} className="justify-self-start">
          Keep these
        </Button>
      </form>
    </Dialog>
  );
}
