'use client';

import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { parseLine, type Subjects } from '@/core/shorthand/line';
import type { LengthUnit } from '@/core/units/length';
import { Button } from '../kit/button';
import { halfTyped, keepHalfTyped } from './outbox';
import type { TapeLine } from './use-tape';

export type Correction = { readonly line: TapeLine; readonly strikeOnly: boolean } | undefined;

const REASONS = [
  'misread',
  'misheard',
  'wrong point',
  'start mark not taken off',
  'gauge slipped',
  'typing slip',
];

/**
 * The one field readings are typed into: a short line, Enter moves on; half-typed text is kept.
 * A correction is another field with another key, so that what was half typed waits beneath it.
 */
export function EntryField({
  roundId, subjects, unit, correction, onTake, onStrike, onLeave, lastLine, disabled,
}: {
  roundId: string;
  subjects: Subjects;
  unit: LengthUnit;
  correction: Correction;
  /** Takes a line; the reason stands with it when it corrects another. */
  onTake: (raw: string, reason: string | undefined) => void;
  onStrike: (reason: string) => void;
  onLeave: () => void;
  lastLine: () => void;
  disabled?: string;
}) {
  const kept = halfTyped(roundId);
  const [text, setText] = useState(correction && !correction.strikeOnly ? correction.line.readings[0]!.raw : kept);
  const [offered, setOffered] = useState(!correction && kept !== '');
  const [refusal, setRefusal] = useState('');
  const [reason, setReason] = useState(REASONS[0]!);
  const field = useRef<HTMLInputElement>(null);

  useEffect(() => field.current?.focus(), []);

  const parsed = useMemo(() => (text.trim() ? parseLine(text, subjects, unit) : undefined), [text, subjects, unit]);
  const edit = (value: string) => {
    setText(value);
    setRefusal('');
    setOffered(false);
    if (!correction) keepHalfTyped(roundId, value);
  };
  const take = () => {
    if (correction?.strikeOnly) return onStrike(reason);
    if (!text.trim()) return;
    if (!parsed?.ok) return setRefusal(parsed?.reason ?? '');
    onTake(text.trim(), correction ? reason : undefined);
    setText('');
    if (!correction) keepHalfTyped(roundId, '');
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'Enter') {
      event.preventDefault();
      take();
    }
    if (event.key === 'Escape') onLeave();
    if (event.key === 'ArrowUp' && text === '') {
      event.preventDefault();
      lastLine();
    }
  };
  return (
    <div className="flex flex-col gap-2 border-t-2 border-ink pt-2">
      {correction ? (
        <div className="flex flex-wrap items-center gap-2 text-sm">
          <span>
            {correction.strikeOnly ? 'Strikes' : 'Corrects'} “{correction.line.readings[0]!.raw}” because
          </span>
          <select aria-label="Reason of the correction" value={reason} onChange={(event) => setReason(event.target.value)} className="min-h-11 border border-rule bg-sheet px-2">
            {REASONS.map((each) => (
              <option key={each}>{each}</option>
            ))}
          </select>
          {correction.strikeOnly ? <Button onClick={() => onStrike(reason)}>Strike it</Button> : null}
          <Button look="quiet" onClick={onLeave}>
            Leave it
          </Button>
        </div>
      ) : null}
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
          onKeyDown={onKey}
          autoComplete="off"
          autoCapitalize="characters"
          spellCheck={false}
          placeholder="F1L S2L 1011.5"
          className="min-h-14 min-w-0 grow border-2 border-ink bg-tape px-3 font-mono text-2xl aria-invalid:border-minus"
        />
        <Button look="main" onClick={take} className="min-w-20 text-lg" disabled={Boolean(disabled)}>
          Take
        </Button>
      </div>
      <p id="entry-say" role={refusal ? 'alert' : 'status'} className={`min-h-6 text-sm ${refusal ? 'font-medium text-minus' : 'text-soft'}`}>
        {disabled || refusal || say()}
      </p>
    </div>
  );

  function say(): string {
    if (offered) return 'This was half typed before: go on, or clear it.';
    if (!parsed) return 'two points and a distance · a point and l, w, h · a station and gap, flush';
    if (!parsed.ok) return '';
    return [
      parsed.readings.map((reading) => `${reading.quantity}${reading.measure ? ` ${reading.measure === 'tip' ? 'tip to tip' : 'level'}` : ''} ${reading.value.toFixed(1)} mm`).join(', '),
      ...parsed.warnings,
    ].join(' · ');
  }
} // prettier-ignore
