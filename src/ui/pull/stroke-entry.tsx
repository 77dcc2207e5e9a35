'use client';

import { useState, type FormEvent } from 'react';
import { shownBy } from '@/core/findings/strokes';
import type { PractisedStroke } from '@/core/practice/practise-stroke';
import type { PullGoing, PullView } from '@/core/report/pages/pulling';
import { QUANTITY_WORD } from '@/core/report/vocabulary/words';
import type { Phase } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { TextField } from '../kit/field';
import { useAction } from '../kit/use-action';
import { runTask } from '../kit/use-task';
import { usePreferences } from '../shell/preferences-context';
import { useInstrumentsInHand } from '../tape/instruments-in-hand';
import { lineReader, subjectsOf } from '../tape/reading-lines';
import { readingsEntry } from '../tape/tape-entries';
import type { useTape } from '../tape/use-tape';
import type { PumpActions } from './actions';

interface EntryProps {
  readonly rows: JobRows;
  readonly view: PullView;
  readonly going: PullGoing;
  readonly put: ReturnType<typeof useTape>['put'];
  readonly actions: Pick<PumpActions, 'recordItemEvent'>;
  readonly asked: Asked;
}

/** Which reading is asked for. */
interface Asked {
  readonly phase: Extract<Phase, 'underLoad' | 'released'>;
  readonly label: string;
  /** Nothing was loaded or released with it. */
  readonly quiet?: boolean;
}

const LETTER = { length: 'l', width: 'w', height: 'h', distance: '' } as const;
type ReadBy = keyof typeof LETTER;

/** The reading of one phase of a stroke, as a line of the round's tape; a number alone is of the quantity the pull is read by. */
export function StrokeEntry({ rows, view, going, put, actions, asked }: EntryProps) {
  const { phase, label, quiet } = asked;
  const { format, preferences } = usePreferences();
  const { pull, point, against } = view;
  const round = rows.rounds.find(({ id }) => id === pull.roundId)!;
  const instruments = useInstrumentsInHand(rows, round.instrumentVersionId);
  const noting = useAction(actions.recordItemEvent);
  const [typed, type] = useState('');
  const [fault, setFault] = useState<string>();
  const quantity = shownBy(pull).quantity as ReadBy;
  const prefix = [point, against, LETTER[quantity]].filter(Boolean).join(' ');
  const take = (text: string) => {
    const line = /^\s*[a-z]/i.test(text) ? text.trim() : `${prefix} ${text.trim()}`;
    const parsed = lineReader(subjectsOf(rows), typedUnit(preferences), undefined)(line);
    if (text.trim() === '' || !parsed.ok)
      return setFault(parsed.ok || text.trim() === '' ? 'type what it reads' : parsed.reason);
    if ((parsed.made?.length ?? 0) > 0) return setFault('name a point that this job has');
    setFault(undefined);
    type('');
    const writer = { roundId: round.id, author: preferences.person || round.author };
    put(readingsEntry(writer, line, parsed.readings, { pullId: pull.id, phase }, instruments.versionFor));
    if (quiet) return;
    void noting.run({
      ...{ id: crypto.randomUUID(), itemId: pull.id, kind: phase === 'underLoad' ? 'loaded' : 'released' },
      ...{ key: '', reason: '', value: null },
    });
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    take(typed);
  };
  return (
    <form onSubmit={submit} className="flex flex-wrap items-end gap-3" noValidate>
      <div className="w-72 text-2xl">
        <TextField
          label={`${label}: ${QUANTITY_WORD[quantity]} of ${[point, against].filter(Boolean).join(' to ')}, ${format.unit}`}
          value={typed}
          inputMode="decimal"
          onChange={(event) => type(event.target.value)}
          {...(fault ? { error: fault } : {})}
        />
      </div>
      <Button look="main" type="submit" className="min-h-12 text-lg">
        Take the reading
      </Button>
      <Practise {...{ rows, view, going, phase }} onReading={(mm) => take(`${mm.toFixed(1)} mm`)} onFault={setFault} />
    </form>
  );
}

interface PractiseProps extends Pick<EntryProps, 'rows' | 'view' | 'going'>, Pick<Asked, 'phase'> {
  readonly onReading: (mm: number) => void;
  readonly onFault: (fault: string) => void;
}

/** Reads the made-up shell instead of a real one. */
function Practise({ rows, view, going, phase, onReading, onFault }: PractiseProps) {
  const [busy, setBusy] = useState(false);
  const target = phase === 'underLoad' ? going.next?.target : (going.course.underLoad ?? 0);
  const read = async () => {
    setBusy(true);
    let stroke: PractisedStroke | null = null;
    try {
      if (target !== undefined) stroke = await runTask('practiseStroke', rows, { pullId: view.pull.id, target });
    } finally {
      setBusy(false);
    }
    if (stroke) onReading(phase === 'underLoad' ? stroke.loaded : stroke.released);
    else onFault('There is no shell to practise on: it needs a structure, a judged round and something that is out.');
  };
  return (
    <Button disabled={busy} onClick={() => void read()}>
      {busy ? 'Pulling the simulated shell …' : 'Read the simulated shell'}
    </Button>
  );
}
