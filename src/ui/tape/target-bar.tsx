'use client';

import { Job } from '@/core/shell/job/job';
import { useState } from 'react';
import type { PointCondition } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { conditionsOf } from '@/core/round/observe/conditions';
import { CONDITION_WORD, WHY_WORD } from '@/core/report/vocabulary/words';
import { Button } from '../kit/button';
import type { Preferences } from '@/formats/preferences';
import type { Target } from '@/core/walk/targets';
import { useFormat, usePreferences } from '../shell/preferences-context';
import { targetText } from './target-text';
import type { MeasuringState } from './use-measuring';
import { SOURCES, type Source } from './use-targets';
import { Select } from '../kit/select';

const SOURCE_WORD: Readonly<Record<Source, string>> = {
  walk: 'The walk, all points',
  charted: 'Charted lengths',
  helpful: 'What helps most now',
};

export const CONDITION_KEYS = [
  ['buried', 'F6'],
  ['suspension', 'F7'],
  ['gone', 'F9'],
  ['worn', 'F10'],
] as const satisfies readonly (readonly [PointCondition['kind'], string])[];

/** Where we are on the walk: the pair wanted now, what is known of it, and the ways round it. */
export function TargetBar({
  screen,
  expected,
}: {
  screen: MeasuringState;
  /** What the round or the chart lets expect, mm. */
  expected?: { readonly value: number; readonly sd?: number };
}) {
  const { rows, round, targets, writing } = screen;
  const { mark: onMark, end, chooseEnd } = writing;
  const format = useFormat();
  const { current } = targets;
  // The form stays with its point, wherever the walk goes meanwhile.
  const [substituting, setSubstituting] = useState<string>();
  const marked = current?.codes[Math.min(end, current.codes.length - 1)];
  return (
    <section aria-label="Next reading" className="flex flex-col gap-1.5 border-y-2 border-ink py-1.5">
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        {current ? (
          <>
            <h2 className="font-mono text-3xl font-semibold" data-target={current.key}>
              {targetText(current)}
            </h2>
            <span className="text-sm text-soft">
              {WHY_WORD[current.why]}
              {current.section ? `, ${format.name(current.section)} section` : ''}
              {expected
                ? ` · about ${format.length(expected.value)}${expected.sd ? ` ${format.plusMinus(2 * expected.sd)}` : ''} ${format.unit}`
                : ''}
            </span>
          </>
        ) : (
          <h2 className="text-lg">{nothingWanted(targets, rows.points.length)}</h2>
        )}
      </div>
      <div className="flex flex-wrap items-center gap-x-4">
        <WhereWeAre screen={screen} />
        <PeopleChoice />
        <label className="flex items-center">
          <span className="sr-only">Order of reading</span>
          <Select
            aria-label="Order of reading"
            value={targets.source}
            onChange={(event) => targets.choose(event.target.value as Source)}
            options={SOURCES.map((source) => [source, SOURCE_WORD[source]])}
          />
        </label>
      </div>
      <div className="flex flex-wrap gap-1.5">
        <Button onClick={targets.skip} disabled={!current} aria-keyshortcuts="F2">
          Skip
        </Button>
        <Button onClick={targets.back} disabled={!targets.canGoBack} aria-keyshortcuts="F3">
          Back
        </Button>
        <Button onClick={writing.repeatLast} aria-keyshortcuts="F4">
          Repeat
        </Button>
        {current && current.codes.length > 1 ? (
          <Button
            onClick={() => chooseEnd(1 - Math.min(end, 1))}
            title={`The marks are for ${marked}; this changes the end`}
          >
            <span className="text-soft">Mark</span> {marked}
          </Button>
        ) : null}
        {marked
          ? CONDITION_KEYS.map(([kind, shortcut]) => (
              <Button key={kind} onClick={() => onMark(marked, kind)} aria-keyshortcuts={shortcut}>
                {CONDITION_WORD[kind]}
              </Button>
            ))
          : null}
        {marked ? (
          <Select
            aria-label={`${marked} is otherwise doubtful`}
            value=""
            onChange={(event) => onMark(marked, event.target.value as PointCondition['kind'])}
            options={[
              ['', 'Doubtful …'],
              ...(['oval', 'rusty', 'rebuilt'] as const).map((kind) => [kind, CONDITION_WORD[kind]] as const),
            ]}
          />
        ) : null}
        {marked ? <Button onClick={() => setSubstituting(marked)}>Substitute</Button> : null}
      </div>
      {substituting ? (
        <SubstituteForm
          key={substituting}
          code={substituting}
          taken={rows.points.map(({ code }) => code)}
          onLeave={() => setSubstituting(undefined)}
          onMake={(code, name, newCode) => {
            writing.makeSubstitute(code, name, newCode);
            setSubstituting(undefined);
          }}
        />
      ) : null}
      <Marked rows={rows} roundId={round.id} onClear={(code) => onMark(code, 'clear')} />
    </section>
  );
}

/** The names of what is wanted, who holds which end, what comes then and how much is left. */
function WhereWeAre({ screen: { rows, targets } }: { screen: MeasuringState }) {
  const { preferences } = usePreferences();
  const format = useFormat();
  const { current, queue } = targets;
  const nameOf = (code: string) => format.name(rows.points.find((point) => point.code === code)?.name ?? '');
  return (
    <p className="min-w-0 grow basis-72 text-sm text-soft">
      {current ? current.codes.map((code) => `${code} ${nameOf(code)}`).join(' · ') : ''}
      {current ? whoHolds(current, preferences.people) : ''}
      {queue[1] ? ` — then ${targetText(queue[1])}` : ''}
      {targets.total > 0 ? ` · ${targets.open} of ${targets.total} left` : ''}
    </p>
  );
}

/** Whether somebody holds the far end: said once, and the walk goes by it. */
function PeopleChoice() {
  const { preferences, change } = usePreferences();
  return (
    <Select
      aria-label="Who measures"
      value={preferences.people}
      onChange={(event) => change({ people: event.target.value as 'two' })}
      options={[
        ['two', 'Two of us'],
        ['alone', 'I am alone'],
      ]}
    />
  );
}

/** Who is where: the end that is held or hooked, and the end that is read. */
const whoHolds = ({ codes }: Target, people: Preferences['people']): string =>
  codes.length < 2
    ? ''
    : people === 'alone'
      ? ` · hook it at ${codes[0]}, read at ${codes[1]}`
      : ` · held at ${codes[0]}, read at ${codes[1]}`;

/** What stands where a pair would, when none is wanted. */
function nothingWanted({ planning, total }: MeasuringState['targets'], points: number): string {
  if (points === 0) return 'No points yet: two codes and a length, FL FR 1230, make the first two.';
  if (planning) return 'Planning the walk …';
  return total > 0 ? 'Everything on this list is read.' : 'No list to follow without a chart: type what you read.';
}

/** Points with something in the way, each with the way back. */
function Marked({ rows, roundId, onClear }: { rows: JobRows; roundId: string; onClear: (code: string) => void }) {
  const conditions = [...conditionsOf(Job.of(rows), { id: roundId })];
  if (conditions.length === 0) return null;
  return (
    <p className="flex flex-wrap items-center gap-x-3 text-sm">
      {conditions.map(([id, kind]) => {
        const code = rows.points.find((point) => point.id === id)?.code ?? '?';
        return (
          <span key={id} data-condition={`${code} ${kind}`}>
            {code}: {CONDITION_WORD[kind].toLowerCase()}{' '}
            <button type="button" className="min-h-11 underline" onClick={() => onClear(code)}>
              not any more
            </button>
          </span>
        );
      })}
    </p>
  );
}

/** Makes a substitute beside a point that cannot be reached, on the spot. */
function SubstituteForm({
  code,
  taken,
  onMake,
  onLeave,
}: {
  code: string;
  taken: readonly string[];
  onMake: (code: string, name: string, newCode: string) => void;
  onLeave: () => void;
}) {
  const free = ['X', 'Y', 'Z', 'X2', 'Y2'].map((end) => `${code}${end}`).find((each) => !taken.includes(each)) ?? '';
  const [newCode, setNewCode] = useState(free);
  const [name, setName] = useState('Punch mark beside it');
  const clash = taken.some((each) => each.toLowerCase() === newCode.trim().toLowerCase());
  return (
    <form
      className="flex w-full flex-wrap items-end gap-2 border border-rule bg-sheet p-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (clash || !newCode.trim()) return;
        onMake(code, name.trim(), newCode.trim());
      }}
    >
      <label className="flex flex-col">
        <span className="caps">Substitute for {code}</span>
        <input
          className="min-h-11 w-28 border border-rule bg-paper px-2 font-mono"
          value={newCode}
          maxLength={20}
          onChange={(event) => setNewCode(event.target.value)}
          aria-invalid={clash || undefined}
        />
      </label>
      <label className="flex grow flex-col">
        <span className="caps">What it is</span>
        <input
          className="min-h-11 border border-rule bg-paper px-2"
          value={name}
          maxLength={200}
          onChange={(event) => setName(event.target.value)}
        />
      </label>
      <Button type="submit" look="main" disabled={clash || !newCode.trim()}>
        Make it
      </Button>
      <Button look="quiet" onClick={onLeave}>
        Leave it
      </Button>
      <p className="w-full text-sm text-soft" role={clash ? 'alert' : undefined}>
        {clash
          ? `There is a point ${newCode} already.`
          : 'Three readings and a height to tie it in come next on the walk.'}
      </p>
    </form>
  );
}
