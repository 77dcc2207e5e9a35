'use client';

import { useState, type FormEvent } from 'react';
import type { WhoIsHere } from '@/formats/people';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { SelectField, TextField } from '../kit/field';

/** Sends what the door asks; why not, where it stays shut. */
async function atTheDoor(fields: Readonly<Record<string, string>>): Promise<string | undefined> {
  try {
    const response = await fetch('/who', {
      method: 'POST',
      headers: { accept: 'application/json', 'content-type': 'application/x-www-form-urlencoded' },
      body: new URLSearchParams(fields).toString(),
    });
    if (response.ok) return undefined;
    const { faults } = (await response.json()) as { faults: { message: string }[] };
    return faults.map(({ message }) => message).join(' ');
  } catch {
    return 'The program cannot be reached. Nothing typed is lost: try again when it is back.';
  }
}

/** Nothing is taken here any more until somebody says who they are. */
export const lockHere = (): Promise<string | undefined> => atTheDoor({ does: 'lock' });

interface WhoDialogProps {
  readonly who: WhoIsHere;
  readonly open: boolean;
  /** Somebody said who they are, or nobody did. */
  readonly answer: (said: boolean) => void;
}

/** Who goes on here: somebody known with a PIN, or anybody with a passphrase. What is typed on the page stays. */
export function WhoDialog({ who, open, answer }: WhoDialogProps) {
  return (
    <Dialog
      title="Who works here?"
      description="What is done from now on is signed with that name. What is typed on the page stays as it is."
      open={open}
      onOpenChange={(next) => (next ? undefined : answer(false))}
    >
      {who.known.length > 0 ? <PinForm who={who} said={() => answer(true)} /> : null}
      <PassphraseForm said={() => answer(true)} />
    </Dialog>
  );
}

/** Asks at the door, once at a time; what was wrong stands beside the field. */
function useDoor(said: () => void) {
  const [fault, setFault] = useState<string>();
  const [busy, setBusy] = useState(false);
  const ask = (does: string) => async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    event.stopPropagation();
    if (busy) return;
    const fields = Object.fromEntries(
      [...new FormData(event.currentTarget)].map(([name, value]) => [name, String(value)]),
    );
    setBusy(true);
    const wrong = await atTheDoor({ ...fields, does });
    setBusy(false);
    setFault(wrong);
    if (!wrong) said();
  };
  return { fault, busy, ask };
}

function PinForm({ who, said }: { readonly who: WhoIsHere; readonly said: () => void }) {
  const { fault, busy, ask } = useDoor(said);
  return (
    <form className="grid gap-3 sm:grid-cols-2" onSubmit={(event) => void ask('pin')(event)} aria-label="With a PIN">
      <SelectField
        label="Known here"
        name="person"
        defaultValue={who.id}
        options={who.known.map(({ id, name }) => [id, name])}
      />
      <TextField label="PIN" name="pin" type="password" inputMode="numeric" maxLength={12} error={fault} autoFocus />
      <Button type="submit" look="main" className="justify-self-start" disabled={busy}>
        Go on
      </Button>
    </form>
  );
}

function PassphraseForm({ said }: { readonly said: () => void }) {
  const { fault, busy, ask } = useDoor(said);
  return (
    <form
      className="grid gap-3 border-t border-rule pt-3 sm:grid-cols-2"
      onSubmit={(event) => void ask('passphrase')(event)}
      aria-label="With a passphrase"
    >
      <TextField label="Your name" name="name" maxLength={200} autoComplete="username" />
      <TextField
        label="Your passphrase"
        name="passphrase"
        type="password"
        autoComplete="current-password"
        maxLength={200}
        error={fault}
      />
      <Button type="submit" className="justify-self-start" disabled={busy}>
        Come in
      </Button>
    </form>
  );
}
