import { useState } from 'react';
import type { DaySheet } from '@/core/days/day';
import type { MorningVerdict } from '@/core/findings/morning';
import type { MorningPlan, MorningProposal } from '@/core/plan/morning';
import { listed, MORNING_WAY_WORD } from '@/core/report/vocabulary/words';
import { newMorning, type NewMorning } from '@/formats/inputs/morning';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { Faults } from '../kit/faults';
import { TextField } from '../kit/field';
import type { Action } from '../kit/use-action';
import { lengthsOf, useEntryForm } from '../kit/use-entry-form';
import { useFormat, usePreferences } from '../shell/preferences-context';

interface MorningProps {
  readonly jobId: string;
  readonly morning: DaySheet['morning'];
  readonly mornings: readonly MorningVerdict[];
  /** What points are called, by their identities. */
  readonly names: Readonly<Record<string, string>>;
  readonly writeMorning: Action<NewMorning>;
}

const LATEST = 3;

/** Three readings before the first tool of the day, one plain verdict, and those of the days before. */
export function Morning({ jobId, morning, mornings, names, writeMorning }: MorningProps) {
  const [typing, setTyping] = useState(false);
  const [written, setWritten] = useState(0);
  if ('missing' in morning && mornings.length === 0) return <p className="text-soft">{MISSING[morning.missing]}</p>;
  return (
    <div className="flex flex-col gap-2">
      {'missing' in morning ? null : typing ? (
        <MorningForm
          key={written}
          {...{ jobId, names, writeMorning }}
          plan={morning.what}
          done={() => {
            setWritten(written + 1);
            setTyping(false);
          }}
        />
      ) : (
        <Proposed proposal={morning} names={names} start={() => setTyping(true)} />
      )}
      <ul className="text-sm">
        {mornings
          .slice(-LATEST)
          .reverse()
          .map((each) => (
            <Verdict key={each.check.id} morning={each} />
          ))}
      </ul>
    </div>
  );
}

const MISSING = {
  round: 'Once a round has lengths in it, three of them are chosen here to be read each morning.',
  lengths: 'Read at least three lengths between located points: three of them are then read again each morning.',
} as const;

type Names = MorningProps['names'];

const endsOf = ({ fromPointId, toPointId }: MorningPlan['pairs'][number], names: Names) =>
  `${names[fromPointId] ?? '?'} – ${names[toPointId] ?? '?'}`;

function Proposed({ proposal, names, start }: { proposal: MorningProposal; names: Names; start: () => void }) {
  const format = useFormat();
  const { what, why } = proposal;
  const told = why.map(({ kind, noticed }) => `${MORNING_WAY_WORD[kind]} ${format.length(noticed)}`);
  return (
    <>
      <p>
        Before the first tool, with the {format.name(what.instrument.name).toLowerCase()}:{' '}
        <strong>{listed(what.pairs.map((pair) => endsOf(pair, names)))}</strong>.{' '}
        <Button className="no-print" onClick={start}>
          Type them
        </Button>
      </p>
      <p className="no-print text-sm text-soft">
        Chosen out of “{format.name(what.roundName)}” to tell most about what could have moved overnight: they leave
        open {listed(told)} {format.unit}.
      </p>
    </>
  );
}

interface Typing {
  readonly jobId: string;
  readonly plan: MorningPlan;
  readonly names: Names;
  readonly writeMorning: Action<NewMorning>;
  readonly done: () => void;
}

const fieldOf = (i: number) => `reading${i}`;

function MorningForm({ jobId, plan, names, writeMorning, done }: Typing) {
  const { preferences } = usePreferences();
  const form = useEntryForm({
    schema: newMorning,
    action: writeMorning,
    defaults: Object.fromEntries(plan.pairs.map((_, i) => [fieldOf(i), ''])) as Record<string, string>,
    read: (values: Record<string, string | undefined>, faults, id) => {
      const length = lengthsOf(values, typedUnit(preferences), faults);
      const readings = plan.pairs.flatMap((pair, i) =>
        values[fieldOf(i)]?.trim() ? [{ id: crypto.randomUUID(), ...pair, value: length(fieldOf(i)) }] : [],
      );
      if (readings.length === 0) faults.push({ path: fieldOf(0), message: 'read at least one of them' });
      const { roundId, version } = plan;
      return { check: { id, jobId, roundId, instrumentVersionId: version.id }, readings };
    },
    done,
  });
  return (
    <form onSubmit={form.submit} className="flex flex-wrap items-end gap-3" noValidate aria-label="The morning three">
      {plan.pairs.map((pair, i) => (
        <div key={i} className="w-40">
          <TextField
            label={`${endsOf(pair, names)}${pair.measure === 'level' ? ', level' : ''}`}
            inputMode="decimal"
            autoFocus={i === 0}
            {...form.field(fieldOf(i))}
          />
        </div>
      ))}
      <Button type="submit" look="main" disabled={form.pending}>
        Say what it is
      </Button>
      <Faults faults={form.faults} />
    </form>
  );
}

function Verdict({ morning: { check, verdict, readings } }: { morning: MorningVerdict }) {
  const format = useFormat();
  const moved = readings.filter((each) => each.moved);
  const said = (list: MorningVerdict['readings']) =>
    list.map(({ ends, change, plusMinus }) => `${ends} ${format.difference(change)} ${format.plusMinus(plusMinus)}`);
  return (
    <li data-verdict={verdict}>
      <span className="text-soft">
        {format.day(check.at)} {format.time(check.at)}, {check.author}:
      </span>{' '}
      {verdict === 'still' ? (
        <>
          <strong>Nothing moved</strong> beyond what the readings can tell ({said(readings).join('; ')} {format.unit}).
        </>
      ) : (
        <>
          <strong>Something moved</strong>: {said(moved).join('; ')} {format.unit}. Measure a round before the next cut.
        </>
      )}
    </li>
  );
}
