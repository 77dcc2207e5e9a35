'use client';

import { useState } from 'react';
import { SHARED_KINDS, type ListedShared, type SharedKind } from '@/core/shell/shared';
import { shared as sharedSchema, type Shared, type TakenBack } from '@/formats/inputs/shared';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { SelectField, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { useAction, type Action } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { useFormat } from '../shell/preferences-context';
import { SHARED_WORD } from './words';

interface Named {
  readonly id: string;
  readonly name: string;
}

interface Props {
  readonly shared: readonly ListedShared[];
  readonly mine: { readonly jobs: readonly Named[]; readonly benches: readonly Named[] };
  readonly actions: { readonly share: Action<Shared>; readonly unshare: Action<TakenBack> };
}

/** What the shops of one server let each other have. */
export function SharedPage({ shared, mine, actions }: Props) {
  const [own, others] = [shared.filter((each) => each.own), shared.filter((each) => !each.own)];
  return (
    <main className="mx-auto flex max-w-5xl flex-col gap-6 p-6">
      <h1 className="text-2xl">Between shops</h1>
      <p className="max-w-3xl">
        The shops on this server see nothing of each other but what one of them shares here: a chart, a body as a
        structure, or a bench, as the file it would export. Readings, people and pictures of a job never go with it. Who
        takes it has a copy, which stays theirs when it is shared no more.
      </p>
      <section aria-labelledby="ours" className="flex flex-col gap-2">
        <div className="flex flex-wrap items-center gap-3">
          <h2 id="ours" className="text-xl">
            Of this shop
          </h2>
          <span className="ml-auto">
            <FormDialog title="Share with the other shops" trigger={<Button look="main">Share …</Button>}>
              {(close) => <ShareForm mine={mine} share={actions.share} done={close} />}
            </FormDialog>
          </span>
        </div>
        {own.length === 0 ? <p className="text-soft">Nothing of this shop is shared.</p> : null}
        <SharedTable listed={own} unshare={actions.unshare} />
      </section>
      <section aria-labelledby="theirs" className="flex flex-col gap-2">
        <h2 id="theirs" className="text-xl">
          Of the other shops
        </h2>
        {others.length === 0 ? (
          <p className="text-soft">No other shop shares anything.</p>
        ) : (
          <p className="text-soft">
            Taken where a file is: a chart on a job’s chart, with <i>Bring in a chart</i>; a body under <i>Cut</i>, with{' '}
            <i>From a file</i>; a bench on the page of the benches.
          </p>
        )}
        <SharedTable listed={others} />
      </section>
    </main>
  );
}

function SharedTable({
  listed,
  unshare,
}: {
  readonly listed: readonly ListedShared[];
  readonly unshare?: Action<TakenBack>;
}) {
  const format = useFormat();
  if (listed.length === 0) return null;
  return (
    <div className="overflow-x-auto">
      <table className="ruled">
        <thead>
          <tr>
            <th>What</th>
            <th>Name</th>
            {unshare ? null : <th>Shop</th>}
            <th>Shared</th>
            <th>
              <span className="sr-only">Actions</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {listed.map((each) => (
            <tr key={each.id}>
              <td>{SHARED_WORD[each.kind]}</td>
              <td data-typed>{each.name}</td>
              {unshare ? null : <td data-typed>{each.ofShop}</td>}
              <td>
                {format.day(each.at)}
                {unshare ? (
                  <>
                    {', '}
                    <span data-typed>{each.author}</span>
                  </>
                ) : null}
              </td>
              <td>
                <span className="flex flex-wrap items-center gap-3">
                  <a className="underline" href={`/api/shared/${each.id}`}>
                    As a file
                  </a>
                  {unshare ? <Unshare {...{ each, unshare }} /> : null}
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Unshare({ each, unshare }: { each: ListedShared; unshare: Action<TakenBack> }) {
  const { run, faults, pending } = useAction(unshare);
  return (
    <>
      <Button look="quiet" disabled={pending} onClick={() => void run({ id: each.id })}>
        Share no more
      </Button>
      <Faults faults={faults} />
    </>
  );
}

interface ShareProps extends Pick<Props, 'mine'> {
  readonly share: Action<Shared>;
  readonly done: () => void;
}

function ShareForm({ mine, share, done }: ShareProps) {
  const of = (kind: SharedKind) => (kind === 'bench' ? mine.benches : mine.jobs);
  const kinds = SHARED_KINDS.filter((kind) => of(kind).length > 0);
  const [kind, setKind] = useState(kinds[0]);
  if (!kind) return <p>There is no job and no bench yet.</p>;
  return (
    <div className="flex flex-col gap-3">
      <SelectField
        label="What"
        options={kinds.map((each) => [each, SHARED_WORD[each]] as const)}
        value={kind}
        onChange={({ target }) => setKind(target.value as SharedKind)}
      />
      <ShareFields key={kind} {...{ kind, of: of(kind), share, done }} />
    </div>
  );
}

interface FieldsProps extends Omit<ShareProps, 'mine'> {
  readonly kind: SharedKind;
  readonly of: readonly Named[];
}

function ShareFields({ kind, of, share, done }: FieldsProps) {
  const form = useEntryForm({
    schema: sharedSchema,
    action: share,
    defaults: { of: of[0]!.id, name: '' },
    read: ({ of: id, name }): Shared => ({
      ...{ kind, of: id },
      name: name.trim() || (of.find((each) => each.id === id)?.name ?? ''),
    }),
    done,
  });
  return (
    <FormFields form={form} yes="Share it">
      <SelectField
        label={kind === 'bench' ? 'Which bench' : 'Of which job'}
        options={of.map(({ id, name }) => [id, name] as const)}
        {...form.field('of')}
      />
      <TextField
        label="Name by which the others know it"
        hint={
          kind === 'bench'
            ? 'its own where this is empty'
            : 'the job’s where this is empty: the model, say, instead of the owner'
        }
        {...form.field('name')}
      />
    </FormFields>
  );
}
