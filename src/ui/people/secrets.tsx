import {
  givenPassphrase,
  ownPassphrase,
  ownPin,
  type GivenPassphrase,
  type OwnPassphrase,
  type OwnPin,
} from '@/formats/inputs/people';
import type { ListedPerson } from '@/formats/people';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import type { Action } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';

const secret = { type: 'password', autoComplete: 'new-password' } as const;
const DIFFERENT = 'the two differ: type it again';

interface GiveProps {
  readonly person: ListedPerson;
  readonly givePassphrase: Action<GivenPassphrase>;
}

/** An owner gives somebody a passphrase, which they change themselves afterwards. */
export function GivePassphrase(props: GiveProps) {
  const { name, hasPassphrase } = props.person;
  const says = hasPassphrase ? 'A new passphrase' : 'Give a passphrase';
  return (
    <FormDialog
      title={`A passphrase for ${name}`}
      description="Tell it to them; they change it here themselves. Nobody can read it afterwards, you neither."
      trigger={
        <Button look="quiet" aria-label={`${says} to ${name}`}>
          {says}
        </Button>
      }
    >
      {(close) => <GiveForm {...props} done={close} />}
    </FormDialog>
  );
}

function GiveForm({ person, givePassphrase, done }: GiveProps & { done: () => void }) {
  const form = useEntryForm({
    schema: givenPassphrase,
    action: givePassphrase,
    defaults: { passphrase: '', again: '' },
    read: ({ passphrase = '', again = '' }, faults) => {
      if (passphrase !== again) faults.push({ path: 'again', message: DIFFERENT });
      return { personId: person.id, passphrase };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Give it">
      <TextField label="Passphrase" {...secret} {...form.field('passphrase')} />
      <TextField label="Once more" {...secret} {...form.field('again')} />
    </FormFields>
  );
}

interface OwnProps {
  readonly self: ListedPerson;
  readonly changePassphrase: Action<OwnPassphrase>;
  readonly takePin: Action<OwnPin>;
}

/** What one changes oneself. */
export function Own({ self, changePassphrase, takePin }: OwnProps) {
  return (
    <section aria-label="Yours" className="flex flex-col gap-2 border-t-2 border-ink pt-3">
      <h2 className="text-xl">Yours, {self.name}</h2>
      <p className="text-soft">
        With the passphrase you come in on a device; with the PIN you go on there after somebody else, or after it
        locked itself.
      </p>
      <div className="flex flex-wrap gap-2">
        <FormDialog
          title="Your passphrase"
          trigger={<Button>Another passphrase</Button>}
          description="At least ten signs: four words are good"
        >
          {(close) => <PassphraseForm changePassphrase={changePassphrase} done={close} />}
        </FormDialog>
        <FormDialog
          title="Your PIN"
          trigger={
            <Button look={self.hasPin ? undefined : 'main'}>{self.hasPin ? 'Another PIN' : 'Take a PIN'}</Button>
          }
          description="Four to eight digits, for changing hands on a shared tablet"
        >
          {(close) => <PinForm takePin={takePin} done={close} />}
        </FormDialog>
      </div>
    </section>
  );
}

function PassphraseForm({ changePassphrase, done }: Pick<OwnProps, 'changePassphrase'> & { done: () => void }) {
  const form = useEntryForm({
    schema: ownPassphrase,
    action: changePassphrase,
    defaults: { before: '', passphrase: '', again: '' },
    read: ({ before = '', passphrase = '', again = '' }, faults) => {
      if (passphrase !== again) faults.push({ path: 'again', message: DIFFERENT });
      return { before, passphrase };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Keep it">
      <TextField label="The one before" type="password" autoComplete="current-password" {...form.field('before')} />
      <span />
      <TextField label="The new one" {...secret} {...form.field('passphrase')} />
      <TextField label="Once more" {...secret} {...form.field('again')} />
    </FormFields>
  );
}

function PinForm({ takePin, done }: Pick<OwnProps, 'takePin'> & { done: () => void }) {
  const form = useEntryForm({
    schema: ownPin,
    action: takePin,
    defaults: { passphrase: '', pin: '', again: '' },
    read: ({ passphrase = '', pin = '', again = '' }, faults) => {
      if (pin !== again) faults.push({ path: 'again', message: DIFFERENT });
      return { passphrase, pin };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Keep it">
      <TextField
        label="Your passphrase"
        type="password"
        autoComplete="current-password"
        {...form.field('passphrase')}
      />
      <span />
      <TextField label="PIN" {...secret} inputMode="numeric" {...form.field('pin')} />
      <TextField label="Once more" {...secret} inputMode="numeric" {...form.field('again')} />
    </FormFields>
  );
}
