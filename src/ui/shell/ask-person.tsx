'use client';

import { useRouter } from 'next/navigation';
import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { IDLE, type WhoIsHere } from '@/formats/people';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { TextField } from '../kit/field';
import { usePreferences } from './preferences-context';
import { heard } from './use-reachable';
import { WhoDialog } from './who-dialog';

type AskPerson = () => Promise<boolean>;

const Context = createContext<AskPerson>(async () => false);

/** Who works in this browser, where people prove who they are. */
const Who = createContext<WhoIsHere | undefined>(undefined);
export const useWho = (): WhoIsHere | undefined => useContext(Who);

/** Asks who is working; false where nobody says. */
export const useAskPerson = (): AskPerson => useContext(Context);

/** Everybody who ever worked here, as choices for a field with `list={PEOPLE_LIST}`. */
export const PEOPLE_LIST = 'people';

/** Lets any part of the page ask who is working, once, where something is to be signed. */
export function AskPersonProvider({
  people,
  who,
  children,
}: {
  people: readonly string[];
  who: WhoIsHere | undefined;
  children: ReactNode;
}) {
  const router = useRouter();
  useIdleLook(who !== undefined && !who.locked);
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
    if (named && !who) change({ person: name.trim() });
    if (named && who) {
      heard();
      router.refresh();
    }
    setOpen(false);
    waiting.current?.(named);
    waiting.current = undefined;
  };
  const choices = useMemo(() => [...people].sort((a, b) => a.localeCompare(b)), [people]);
  return (
    <Context.Provider value={ask}>
      <Who.Provider value={who}>{children}</Who.Provider>
      <datalist id={PEOPLE_LIST}>
        {choices.map((each) => (
          <option key={each} value={each} />
        ))}
      </datalist>
      {who ? <WhoDialog who={who} open={open} answer={answer} /> : null}
      <Dialog
        title="Who is working?"
        description="What is done is signed with this name. It is asked once, and can be changed at the top right."
        open={open && !who}
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

/** Looks again once nobody touched anything for so long that the browser is locked: the page says so then. */
function useIdleLook(watches: boolean): void {
  const router = useRouter();
  useEffect(() => {
    if (!watches) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const touched = () => {
      clearTimeout(timer);
      timer = setTimeout(() => router.refresh(), IDLE + A_MOMENT);
    };
    touched();
    const signs = ['pointerdown', 'keydown'] as const;
    for (const sign of signs) window.addEventListener(sign, touched, { passive: true });
    return () => {
      clearTimeout(timer);
      for (const sign of signs) window.removeEventListener(sign, touched);
    };
  }, [watches, router]);
}

const A_MOMENT = 1000;
