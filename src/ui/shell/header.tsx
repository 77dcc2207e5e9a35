'use client';

import { Keyboard, Settings2 } from 'lucide-react';
import { Link } from '../kit/link';
import { useRouter } from 'next/navigation';
import { Popover } from 'radix-ui';
import { useEffect, useState, type ReactNode } from 'react';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { SelectField, TextField } from '../kit/field';
import type { WhoIsHere } from '@/formats/people';
import { PEOPLE_LIST, useAskPerson, useWho } from './ask-person';
import { usePreferences } from './preferences-context';
import { lockHere } from './who-dialog';

/** Every key of the program, in one list: shown by `?`. */
const KEYS: readonly (readonly [keys: string, does: string])[] = [
  ['?', 'Show this list'],
  ['Enter', 'Take the line and move on'],
  ['↑ in the empty field', 'Bring back the last line to correct it'],
  ['Esc', 'Leave a correction, a list or a sheet'],
  ['/', 'To the reading field or the search field'],
  ['← → ↑ ↓ on the drawing', 'To the next point in that direction'],
  ['+ − 0 on the drawing', 'Closer, farther, the whole sheet'],
  ['Shift + ← → ↑ ↓', 'Move the enlarged sheet; with Alt in height'],
  ['Tab, Shift + Tab', 'To the next and the previous part of the screen'],
];

/** The strip along the top: where we are, who is working, and how figures and words are shown. */
export function Header({
  title,
  homeHref = '/',
  children,
}: {
  title?: string;
  homeHref?: string;
  /** What else stands beside the title. */
  children?: ReactNode;
}) {
  return (
    <header className="no-print flex min-h-14 items-center gap-3 border-b-2 border-ink px-4">
      <Link href="/" className="flex min-h-11 items-center gap-2 no-underline" aria-label="Vinkel: all jobs">
        <svg viewBox="0 0 24 24" width="26" height="26" aria-hidden>
          <path d="M3 21V4M3 21h18" stroke="currentColor" strokeWidth="2.4" fill="none" />
          <path d="M3 21L19 7" stroke="var(--minus)" strokeWidth="1.6" />
          <path d="M3 13a8 8 0 0 1 6.2 2.6" stroke="var(--plus)" strokeWidth="1.6" fill="none" />
        </svg>
        <span className="font-cond text-xl font-semibold tracking-wide">Vinkel</span>
      </Link>
      {title ? (
        <Link
          href={homeHref}
          className="flex min-h-11 min-w-0 items-center truncate border-l border-rule pl-3 font-cond text-lg"
        >
          {title}
        </Link>
      ) : null}
      {children}
      <div className="ml-auto flex items-center gap-1">
        <KeyList />
        <PreferencesPanel />
      </div>
    </header>
  );
}

function KeyList() {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(event.target.tagName);
      if (event.key === '?' && !typing) setOpen(true);
      if (event.key === '/' && !typing) {
        const field = document.querySelector<HTMLElement>('[data-main-field]');
        if (field) {
          event.preventDefault();
          field.focus();
        }
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  return (
    <Dialog
      title="Keys"
      open={open}
      onOpenChange={setOpen}
      trigger={
        <Button look="quiet" aria-label="List of keys">
          <Keyboard size={20} aria-hidden /> <span className="hidden sm:inline">Keys</span>
        </Button>
      }
    >
      <table className="ruled">
        <tbody>
          {KEYS.map(([keys, does]) => (
            <tr key={keys}>
              <td className="font-mono">{keys}</td>
              <td>{does}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Dialog>
  );
}

function PreferencesPanel() {
  const { preferences, change } = usePreferences();
  const who = useWho();
  const [open, setOpen] = useState(false);
  const [person, setPerson] = useState<string>();
  /** However the panel is left, the name typed is kept. */
  const keep = (stays: boolean) => {
    if (person !== undefined && person.trim() !== preferences.person) change({ person: person.trim() });
    setPerson(undefined);
    setOpen(stays);
  };
  return (
    <Popover.Root open={open} onOpenChange={keep}>
      <Popover.Trigger asChild>
        <Button look="quiet">
          <Settings2 size={20} aria-hidden />
          <span>{who?.locked ? `Locked (${who.name})` : preferences.person || 'Who is working?'}</span>
          <span className="caps hidden sm:inline">{preferences.units === 'mm' ? 'mm' : 'in'}</span>
        </Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content align="end" className="z-50 flex w-72 flex-col gap-3 border-2 border-ink bg-paper p-4">
          {who ? (
            <Hands who={who} done={() => keep(false)} />
          ) : (
            <TextField
              label="Who is working"
              list={PEOPLE_LIST}
              value={person ?? preferences.person}
              maxLength={80}
              onChange={(event) => setPerson(event.target.value)}
              onKeyDown={(event) => event.key === 'Enter' && keep(false)}
            />
          )}
          <SelectField
            label="Lengths"
            value={preferences.units}
            onChange={(event) => change({ units: event.target.value as never })}
            options={[
              ['mm', 'millimetres'],
              ['in16', 'inches, to 1/16'],
              ['in32', 'inches, to 1/32'],
            ]}
          />
          <SelectField
            label="Words"
            value={preferences.words}
            onChange={(event) => change({ words: event.target.value as never })}
            options={[
              ['uk', 'UK: wing, sill, bonnet'],
              ['us', 'US: fender, rocker, hood'],
            ]}
          />
          <SelectField
            label="Sheet"
            value={preferences.sheet}
            onChange={(event) => change({ sheet: event.target.value as never })}
            options={[
              ['day', 'ink on paper'],
              ['dark', 'dark sheet'],
            ]}
          />
          <Link href="/benches" className="flex min-h-11 items-center underline">
            The shop’s benches
          </Link>
          <Link href="/instruments" className="flex min-h-11 items-center underline">
            Instruments of the shop
          </Link>
          <Link href="/people" className="flex min-h-11 items-center underline">
            People of the shop
          </Link>
          <Link href="/floor" className="flex min-h-11 items-center underline">
            Tablets on the floor
          </Link>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** Who works here, where people prove it: somebody else goes on, or it is locked until somebody does. */
function Hands({ who, done }: { readonly who: WhoIsHere; readonly done: () => void }) {
  const askPerson = useAskPerson();
  const router = useRouter();
  return (
    <div className="flex flex-wrap gap-2">
      <p className="w-full">
        {who.name} works here{who.locked ? ', but it is locked' : ''}.
      </p>
      <Button
        look="main"
        onClick={() => {
          done();
          void askPerson();
        }}
      >
        {who.locked ? 'Go on' : 'Change hands'}
      </Button>
      {who.locked ? null : <Button onClick={() => void lockHere().then(() => router.refresh())}>Lock</Button>}
    </div>
  );
}
