'use client';

import type { PullingPage, PullView } from '@/core/report/pages/pulling';
import { HOLD_WORD } from '@/core/report/vocabulary/words';
import { HOLD_KINDS, type Hold } from '@/core/shell/job/entities';
import type { Fault } from '@/formats/faults';
import { itemHolds } from '@/formats/inputs/work';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { SelectField, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { useAction } from '../kit/use-action';
import { useEntryForm, wordsOf } from '../kit/use-entry-form';
import { useFormat } from '../shell/preferences-context';
import type { PullActions } from './actions';
import { amountOf } from './amount';

type Points = PullingPage['points'];

/** What is said of each hold besides its point. */
export interface HeldBy {
  readonly kind: Hold['kind'];
  /** What each is rated for, kN, as typed. */
  readonly rating: string;
}

/** Points typed by their codes as holds of one kind; a code that is none becomes a fault at `points`. */
export function readHolds(text: string, points: Points, itemId: string, by: HeldBy, faults: Fault[]): Hold[] {
  const codes = [...new Set(wordsOf(text))];
  const found = codes.map((code) => points.find((point) => point.code.toLowerCase() === code.toLowerCase()));
  const unknown = codes.find((_, i) => !found[i]);
  if (unknown) faults.push({ path: 'points', message: `no point "${unknown}" in this job` });
  const rating = amountOf(by.rating, 'rating', 'kN', faults);
  return [...new Set(found.flatMap((point) => (point ? [point.id] : [])))].map((pointId) => ({
    ...{ id: crypto.randomUUID(), itemId, pointId, kind: by.kind },
    rating: rating === null ? null : 1000 * rating,
  }));
}

interface HoldsProps extends Pick<PullView, 'pull' | 'holds' | 'offered'> {
  readonly points: Points;
  readonly setHolds: PullActions['setHolds'];
}

/** What holds the shell against a pull: rows, with an older note's points offered. */
export function Holds(props: HoldsProps) {
  const { pull, holds, offered, setHolds } = props;
  const format = useFormat();
  const { run, faults, pending } = useAction(setHolds);
  const said = holds.map(({ code, hold }) => `${code} (${HOLD_WORD[hold.kind]})`).join(', ');
  const take = () =>
    run({
      itemId: pull.id,
      holds: offered.map(({ id }) => ({
        ...{ id: crypto.randomUUID(), itemId: pull.id, pointId: id, kind: 'clamp', rating: null },
      })),
    });
  return (
    <div className="flex flex-wrap items-center gap-3 text-sm" data-holds={holds.length}>
      <p className="text-soft">
        Held at {said || 'no point that is named'}
        {pull.heldAt ? `; ${format.name(pull.heldAt)}` : ''}.
      </p>
      <FormDialog title={`What holds the shell against ${pull.code}`} trigger={<Button look="quiet">Holds</Button>}>
        {(close) => <HoldsForm {...props} done={close} />}
      </FormDialog>
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

function HoldsForm({ points, pull, holds, setHolds, done }: HoldsProps & { done: () => void }) {
  const rating = holds[0]?.hold.rating ?? null;
  const form = useEntryForm({
    schema: itemHolds,
    action: setHolds,
    defaults: {
      points: holds.map(({ code }) => code).join(' '),
      kind: holds[0]?.hold.kind ?? 'clamp',
      rating: rating === null ? '' : String(rating / 1000),
    },
    read: ({ points: typed, kind, rating: rated }, faults) => ({
      itemId: pull.id,
      holds: readHolds(typed, points, pull.id, { kind, rating: rated }, faults),
    }),
    done,
  });
  return (
    <FormFields form={form} yes="Keep these">
      <TextField label="Points it is held at" placeholder="C1L C1R" {...form.field('points')} />
      <SelectField label="By" options={HOLD_KINDS.map((kind) => [kind, HOLD_WORD[kind]])} {...form.field('kind')} />
      <TextField label="Each rated for, kN" hint="empty: nobody knows" {...form.field('rating')} />
      <p className="text-sm text-soft sm:col-span-2">
        A point that held a pull is no control point of a round until it has been read again in it.
      </p>
    </FormFields>
  );
}
