'use client';

import { ROLES, type Role } from '@/core/shell/job/entities';
import { member, type GivenPassphrase, type Member, type OwnPassphrase, type OwnPin } from '@/formats/inputs/people';
import type { ListedPerson } from '@/formats/people';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import type { Action } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { useFormat } from '../shell/preferences-context';
import { GivePassphrase, Own } from './secrets';

interface PeopleActions {
  readonly putMember: Action<Member>;
  readonly givePassphrase: Action<GivenPassphrase>;
  readonly changePassphrase: Action<OwnPassphrase>;
  readonly takePin: Action<OwnPin>;
}

interface PeoplePageProps {
  readonly people: readonly ListedPerson[];
  /** Whoever looks may say who may do what. */
  readonly mayChange: boolean;
  /** Whom of them they are; undefined where nobody has said so. */
  readonly own: string | undefined;
  /** People prove who they are here. */
  readonly proved: boolean;
  readonly actions: PeopleActions;
}

const ROLE_WORD: Readonly<Record<Role, string>> = { measure: 'measures', plan: 'plans', sign: 'signs' };

/** Who works in the shop, what they may do, and what they prove it with. */
export function PeoplePage({ people, mayChange, own, proved, actions }: PeoplePageProps) {
  const here = people.filter((each) => each.here);
  const hasOwner = here.some(({ owner, hasPassphrase }) => owner && hasPassphrase);
  const self = here.find(({ id }) => id === own);
  return (
    <main className="mx-auto flex max-w-4xl flex-col gap-6 p-6">
      <div className="flex flex-wrap items-center gap-3">
        <h1 className="text-2xl">People of the shop</h1>
        {mayChange ? <MemberDialog putMember={actions.putMember} /> : null}
      </div>
      <p>{proved ? PROVED : hasOwner ? OWNED : OPEN}</p>
      <ul className="border-t-2 border-ink">
        {people.map((person) => (
          <PersonLine key={person.id} {...{ person, mayChange, actions }} />
        ))}
      </ul>
      {people.length === 0 ? (
        <p className="text-soft">Nobody yet: who says their name at the top right stands here from then on.</p>
      ) : null}
      {self?.hasPassphrase ? <Own self={self} {...actions} /> : null}
    </main>
  );
}

const PROVED = 'Everybody says who they are, and may do what stands beside their name; owners may do everything.';
const OWNED =
  'While only this machine reaches the program, whoever is at it says a name and may do everything. With tablets on the floor everybody proves who they are, and may do what stands beside their name.';
const OPEN =
  'While only this machine reaches the program a name is enough. Before tablets on the floor come in, make somebody an owner and give them a passphrase; then give the others theirs.';

function PersonLine({
  person,
  mayChange,
  actions,
}: {
  readonly person: ListedPerson;
  readonly mayChange: boolean;
  readonly actions: PeopleActions;
}) {
  const format = useFormat();
  const { name, roles, owner, here, hasPassphrase, hasPin } = person;
  const does = owner ? 'owner: may do everything' : roles.map((role) => ROLE_WORD[role]).join(', ') || 'only looks on';
  const proves = hasPassphrase ? (hasPin ? 'passphrase and PIN' : 'passphrase') : 'no passphrase';
  return (
    <li className="flex flex-wrap items-center gap-x-4 border-b border-faint py-1" data-person={name}>
      <span className={`min-w-40 font-semibold ${here ? '' : 'text-soft'}`}>{format.name(name)}</span>
      <span className="grow text-soft">{here ? `${does}; ${proves}` : 'not here any more'}</span>
      {mayChange ? (
        <>
          {here ? <GivePassphrase person={person} givePassphrase={actions.givePassphrase} /> : null}
          <MemberDialog person={person} putMember={actions.putMember} />
        </>
      ) : null}
    </li>
  );
}

interface MemberProps {
  readonly person?: ListedPerson;
  readonly putMember: PeopleActions['putMember'];
}

const MemberDialog = (props: MemberProps) => (
  <FormDialog
    title={props.person ? props.person.name : 'Somebody new'}
    description="A name here is one person; rows they write are signed with it"
    trigger={
      <Button
        look={props.person ? 'quiet' : 'main'}
        className={props.person ? '' : 'ml-auto'}
        aria-label={props.person ? `Change ${props.person.name}` : 'Somebody new'}
      >
        {props.person ? 'Change' : 'Somebody new'}
      </Button>
    }
  >
    {(close) => <MemberForm {...props} done={close} />}
  </FormDialog>
);

const MAY: readonly (readonly [Role, string])[] = [
  ['measure', 'measures: takes readings, ticks what is done, writes in the log'],
  ['plan', 'plans: charts, braces, cuts, pulls, welding, the calendar'],
  ['sign', 'signs records'],
];

function MemberForm({ person, putMember, done }: MemberProps & { done: () => void }) {
  const form = useEntryForm({
    schema: member,
    action: putMember,
    defaults: {
      name: person?.name ?? '',
      roles: [...(person?.roles ?? ROLES.slice(0, 1))] as string[],
      owner: person?.owner ?? false,
      gone: person ? !person.here : false,
    },
    read: ({ name, roles, owner, gone }, faults, id) => {
      if (!name.trim()) faults.push({ path: 'name', message: 'a name' });
      return { id: person?.id ?? id, name: name.trim(), roles: roles as Role[], owner, here: !gone };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Keep it">
      <TextField label="Name" {...form.field('name')} />
      <fieldset className="flex flex-col sm:col-span-2">
        <legend className="caps">What they do</legend>
        {MAY.map(([role, says]) => (
          <label key={role} className="flex min-h-11 items-center gap-2">
            <input type="checkbox" className="size-5" value={role} {...form.register('roles')} /> {says}
          </label>
        ))}
        <label className="flex min-h-11 items-center gap-2">
          <input type="checkbox" className="size-5" {...form.register('owner')} /> owns the shop: may do everything,
          says who may do what, lets devices in
        </label>
        {person ? (
          <label className="flex min-h-11 items-center gap-2">
            <input type="checkbox" className="size-5" {...form.register('gone')} /> is not here any more
          </label>
        ) : null}
      </fieldset>
    </FormFields>
  );
}
