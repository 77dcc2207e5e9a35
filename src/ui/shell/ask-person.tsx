'use client';

import { createContext, useCallback, useContext, useMemo, useRef, useState, type ReactNode } from 'react';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { TextField } from '../kit/field';
import { usePreferences } from './preferences-context';

type AskPerson = () => Promise<boolean>;

const Context = createContext<AskPerson>(async () => false);

/** Asks who is working; false where nobody says. */
export const useAskPerson = (): AskPerson => useContext(Context);

/** Everybody who ever worked here, as choices for a field with `list={PEOPLE_LIST}`. */
export const PEOPLE_LIST = 'people';

/** Lets any part of the page ask who is working, once, where something is to be signed. */
export function AskPersonProvider({ people, children }: { people: readonly string[]; children: ReactNode }) {
  const { change } = usePreferences();
  const [open, setOpen] = useState(false);
  const [name, setName] = useState('');
  const waiting = useRef<(named: boolean) => void>(undefined);
  const ask = useCallback(
    () =>
      new Promise<boolean>((resolve) => {
        waiting.current = resolve;
        setName('');
        setOpen(true);
      }),
    [],
  );
  const answer = (named: boolean) => {
    if (named) change({ person: name.trim() });
    setOpen(false);
    waiting.current?.(named);
    waiting.current = undefined;
  };
  const choices = useMemo(() => [...people].sort((a, b) => a.localeCompare(b)), [people]);
  return (
    <Context.Provider value={ask}>
      {children}
      <datalist id={PEOPLE_LIST}>
        {choices.map((each) => (
          <option key={each} value={each} />
        ))}
      </datalist>
      <Dialog
        title="Who is working?"
        description="What is done is signed with this name. It is asked once, and can be changed at the top right."
        open={open}
        onOpenChange={(next) => (next ? setOpen(true) : answer(false))}
      >
        <form
          className="flex flex-col gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            event.stopPropagation();
            if (name.trim()) answer(true);
          }}
        >
          <TextField
            label="Your name"
            list={PEOPLE_LIST}
            value={name}
            maxLength={80}
            onChange={(event) => setName(event.target.value)}
          />
          <Button type="submit" look="main" disabled={!name.trim()} className="self-start">
            Sign with it
          </Button>
        </form>
      </Dialog>
    </Context.Provider>
  );
}
