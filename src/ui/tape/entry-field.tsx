'use client';

import { useEffect, useImperativeHandle, useMemo, useRef, useState, type KeyboardEvent, type Ref } from 'react';
import { completions } from '@/core/shell/shorthand/complete';
import type { Side } from '@/core/shell/job/entities';
import type { ParsedLine, Subjects } from '@/core/shell/shorthand/line';
import type { LineWithNew } from '@/core/shell/shorthand/new-points';
import type { Formatter } from '@/formats/formatter';
import { Grid3x3 } from 'lucide-react';
import { Tool } from './tape-head';
import { Button } from '../kit/button';
import { useFormat } from '../shell/preferences-context';
import { NewPoints, newPointsQuestion, type ChosenSides } from './new-points';
import { halfTyped, keepHalfTyped } from './outbox';
import type { TapeLine } from './use-tape';
import { Select } from '../kit/select';

export type Correction = { readonly line: TapeLine; readonly strikeOnly: boolean; readonly text: string } | undefined;

/** What other parts of the screen may do to the field. */
export interface EntryHandle {
  type(text: string): void;
  erase(): void;
  take(): void;
  /** A number from an instrument, taken at once or left standing. */
  land(amount: string, takeIt: boolean): void;
}

const REASONS = ['misread', 'misheard', 'wrong point', 'start mark not taken off', 'gauge slipped', 'typing slip'];

/** What a line takes on itself, asked before it does. */
const turnedQuestion = (asks: readonly string[] | undefined): string | undefined =>
  asks?.[0] && `${asks[0]} Enter again takes it so.`;

/** How a line is read and what is asked of it. */
interface LineReading {
  readonly subjects: Subjects & { readonly names: ReadonlyMap<string, string> };
  /** Reads a line; a bare number is the reading wanted now. */
  readonly read: (text: string) => LineWithNew;
  readonly wanted?: string;
  /** A question to be answered by Enter before the line is taken. */
  readonly question: (text: string) => string | undefined;
}

/** What comes of the field. */
interface EntryEvents {
  /** Takes a line; the reason stands with it when it corrects another. */
  readonly take: (raw: string, reason: string | undefined, sides: ChosenSides) => void;
  readonly strike: (reason: string) => void;
  readonly leave: () => void;
  readonly lastLine: () => void;
  /** Whether a line is begun and not yet taken. */
  readonly typing: (busy: boolean) => void;
}

export interface EntryFieldProps {
  readonly ref?: Ref<EntryHandle>;
  readonly roundId: string;
  readonly line: LineReading;
  readonly correction: Correction;
  readonly on: EntryEvents;
  readonly pad: Pad;
  /** Why nothing can be taken. */
  readonly disabled?: string;
}

/** The keypad under the field. */
export interface Pad {
  readonly isOpen: boolean;
  readonly toggle: () => void;
}

/** What stands in the field, what it reads as, and the taking of it. */
function useEntry({
  roundId,
  line: { subjects, read, question },
  correction,
  on,
  disabled,
}: Omit<EntryFieldProps, 'ref' | 'pad'>) {
  const kept = halfTyped(roundId);
  const [text, setText] = useState(correction && !correction.strikeOnly ? correction.text : kept);
  const [offered, setOffered] = useState(!correction && kept !== '');
  const [refusal, setRefusal] = useState('');
  const [asked, setAsked] = useState('');
  const [reason, setReason] = useState(REASONS[0]!);
  const [sides, setSides] = useState<ChosenSides>({});

  const parsed = useMemo(() => (text.trim() ? read(text) : undefined), [text, read]);
  const offers = useMemo(() => completions(text, subjects), [text, subjects]);
  const edit = (value: string) => {
    setText(value);
    setRefusal('');
    setAsked('');
    setOffered(false);
    if (!correction) keepHalfTyped(roundId, value);
    on.typing(value.trim() !== '');
  };
  const take = (line = text) => {
    if (correction?.strikeOnly) return on.strike(reason);
    if (!line.trim() || disabled) return;
    const result = read(line);
    if (!result.ok) return setRefusal(result.reason);
    const doubt = newPointsQuestion(result.made ?? []) ?? turnedQuestion(result.asks) ?? question(line);
    if (doubt && asked !== line) {
      setText(line);
      setAsked(line);
      return setRefusal(doubt);
    }
    on.take(line.trim(), correction ? reason : undefined, sides);
    setText('');
    setSides({});
    setRefusal('');
    setAsked('');
    if (!correction) keepHalfTyped(roundId, '');
    on.typing(false);
  };
  const choose = (code: string, side: Side) => setSides({ ...sides, [code]: side });
  return { text, edit, take, parsed, offers, offered, refusal, reason, setReason, sides, choose };
}

/**
 * The one field readings are typed into: a short line, Enter moves on; half-typed text is kept.
 * A correction is another field with another key, so that what was half typed waits beneath it.
 */
export function EntryField({ ref, ...props }: EntryFieldProps) {
  const { line, correction, on, disabled } = props;
  const format = useFormat();
  const { wanted } = line;
  const entry = useEntry(props);
  const { text, edit, take, parsed, offers, offered, refusal, reason, setReason } = entry;
  const made = parsed?.ok ? (parsed.made ?? []) : [];
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => field.current?.focus(), []);
  useImperativeHandle(ref, () => ({
    type: (more) => edit(text + more),
    erase: () => edit(text.slice(0, -1)),
    take: () => take(),
    land: (amount, takeIt) => {
      edit(amount);
      if (takeIt) take(amount);
      field.current?.focus();
    },
  }));
  const onKeyDown = (event: KeyboardEvent) => {
    const used = () => event.preventDefault();
    if (event.key === 'Enter') {
      used();
      take();
    } else if (event.key === 'Escape') on.leave();
    else if (event.key === 'Tab' && !event.shiftKey && offers[0]) {
      used();
      edit(offers[0].text);
    } else if (event.key === 'ArrowUp' && text === '') {
      used();
      on.lastLine();
    }
  };
  return (
    <div className="flex flex-col gap-2 border-t-2 border-ink pt-2">
      {correction ? <Correcting correction={correction} reason={reason} setReason={setReason} on={on} /> : null}
      <div className="flex gap-2">
        <input
          ref={field}
          data-main-field
          aria-label="Reading"
          aria-invalid={refusal ? true : undefined}
          aria-describedby="entry-say"
          value={text}
          disabled={Boolean(disabled) || correction?.strikeOnly}
          onChange={(event) => edit(event.target.value)}
          onKeyDown={onKeyDown}
          autoComplete="off"
          autoCapitalize="characters"
          spellCheck={false}
          placeholder={wanted ?? `F1L S2L ${format.length(1011.5)}`}
          className="min-h-14 min-w-0 grow border-2 border-ink bg-tape px-3 font-mono text-2xl aria-invalid:border-minus"
        />
        <Button look="main" onClick={() => take()} className="min-w-20 text-lg" disabled={Boolean(disabled)}>
          Take
        </Button>
        <Tool name="Keypad" icon={Grid3x3} on={props.pad.isOpen} onClick={props.pad.toggle} />
      </div>
      {made.length > 0 ? <NewPoints made={made} sides={entry.sides} choose={entry.choose} /> : null}
      <Offers
        offers={offers}
        onChoose={(chosen) => {
          edit(chosen);
          field.current?.focus();
        }}
      />
      <p
        id="entry-say"
        role={refusal ? 'alert' : 'status'}
        className={`min-h-6 text-sm max-xl:min-h-0 ${refusal ? 'font-medium text-minus' : 'text-soft'}`}
      >
        {disabled || refusal || saidOf(parsed, wanted, offered, format)}
      </p>
    </div>
  );
}

/** Why a line is corrected, asked before it is. */
function Correcting({
  correction,
  reason,
  setReason,
  on,
}: {
  correction: NonNullable<Correction>;
  reason: string;
  setReason: (reason: string) => void;
  on: Pick<EntryEvents, 'strike' | 'leave'>;
}) {
  return (
    <div className="flex flex-wrap items-center gap-2 text-sm">
      <span>
        {correction.strikeOnly ? 'Strikes' : 'Corrects'} “{correction.text}” because
      </span>
      <Select
        aria-label="Reason of the correction"
        value={reason}
        onChange={(event) => setReason(event.target.value)}

        options={REASONS.map((each) => [each, each])}
      />
      {correction.strikeOnly ? <Button onClick={() => on.strike(reason)}>Strike it</Button> : null}
      <Button look="quiet" onClick={on.leave}>
        Leave it
      </Button>
    </div>
  );
}

/** Points whose codes begin like what was typed. */
function Offers({ offers, onChoose }: { offers: ReturnType<typeof completions>; onChoose: (text: string) => void }) {
  if (offers.length === 0) return null;
  return (
    <ul className="flex flex-wrap gap-1" aria-label="Points that begin like this">
      {offers.map((offer) => (
        <li key={offer.code}>
          <button
            type="button"
            tabIndex={-1}
            className="min-h-11 border border-rule bg-sheet px-2 font-mono"
            title={offer.name}
            onClick={() => onChoose(offer.text)}
          >
            {offer.code}
          </button>
        </li>
      ))}
    </ul>
  );
}

/** What the line typed so far would be taken as. */
function saidOf(
  parsed: ParsedLine | undefined,
  wanted: string | undefined,
  offered: boolean,
  format: Formatter,
): string {
  if (offered) return 'This was half typed before: go on, or clear it.';
  if (!parsed)
    return wanted
      ? 'a number for the reading above · or a whole line of your own'
      : 'two points and a distance · a point and l, w, h · a station and gap, flush';
  if (!parsed.ok) return '';
  return [
    parsed.readings
      .map(
        (reading) =>
          `${reading.quantity}${reading.measure ? ` ${reading.measure === 'tip' ? 'tip to tip' : 'level'}` : ''} ${format.length(reading.value)} ${format.unit}`,
      )
      .join(', '),
    ...parsed.warnings,
  ].join(' · ');
}
