'use client';

import { Job } from '@/core/shell/job/job';
import { useMemo, useRef, useState } from 'react';
import { expectedOf } from '@/core/walk/wanted';
import { ClientOnly } from '../kit/client-only';
import { FirstFigures } from '../sides/first-figures';
import { usePreferences } from '../shell/preferences-context';
import { EntryField, type EntryHandle } from './entry-field';
import { Keypad } from './keypad';
import { LiveSheet } from './live-sheet';
import { MeasuringPanels } from './measuring-panels';
import { useAwake, useKeys } from './screen-helpers';
import { Standing } from './standing';
import { Tape } from './tape';
import { TapeHead } from './tape-head';
import { CONDITION_KEYS, TargetBar } from './target-bar';
import { targetText } from './target-text';
import { useDoubtful } from './use-doubtful';
import { useNewlyLocated } from './use-newly-located';
import { useMeasuring, type MeasuringProps, type MeasuringState, type PullContext } from './use-measuring';

/** The measuring screen: what is wanted, the field, the tape, and what the round says so far. */
export function Measuring(props: MeasuringProps) {
  return (
    <ClientOnly waiting={<p role="status">Fetching the tape …</p>}>
      <MeasuringScreen {...props} />
    </ClientOnly>
  );
}

function MeasuringScreen(props: MeasuringProps) {
  const { pull } = props;
  const { preferences } = usePreferences();
  const screen = useMeasuring(props);
  const { rows, round, judgement, targets, writing, lastLine } = screen;
  const [padOpen, setPad] = useState(() => localStorage.getItem('vinkel.keypad') === 'open');
  const field = useRef<EntryHandle>(null);
  const newly = useNewlyLocated(rows, judgement);
  const doubtful = useDoubtful(screen);
  const { current } = targets;
  const expected = useMemo(() => expectedOf(Job.of(rows), judgement, current), [rows, judgement, current]);
  useAwake(!round.closedAt);
  useMeasuringKeys(screen);
  const setPadOpen = (open: boolean) => {
    localStorage.setItem('vinkel.keypad', open ? 'open' : 'shut');
    setPad(open);
  };
  return (
    <div className="grid grid-cols-1 gap-4 xl:grid-cols-[minmax(24rem,1fr)_minmax(0,1.65fr)]">
      <div className={`flex flex-col gap-2 self-start ${padOpen ? '' : 'h-[calc(100dvh-13.5rem)] min-h-96'}`}>
        <TapeHead {...{ rows, round, lastLine, padOpen, setPadOpen }} speech={screen.speech} />
        <div className={`flex min-h-0 flex-col ${padOpen ? (preferences.units === 'mm' ? 'h-40' : 'h-24') : ''}`}>
          <Tape
            rows={rows}
            lines={screen.shownLines}
            doubtful={doubtful.lines}
            closed={round.closedAt !== null}
            selected={writing.selected}
            on={{
              select: writing.select,
              correct: (line) => writing.startCorrection(line, false),
              strike: (line) => writing.startCorrection(line, true),
            }}
          />
        </div>
        <div className="mt-auto">
          <MeasuringField screen={screen} question={doubtful.question} pull={pull} field={field} />
        </div>
        {padOpen ? (
          <Keypad
            fractions={preferences.units !== 'mm'}
            onType={(text) => field.current?.type(text)}
            onErase={() => field.current?.erase()}
            onTake={() => field.current?.take()}
          />
        ) : null}
      </div>
      <div className="flex min-w-0 flex-col gap-2">
        {pull || round.closedAt ? null : <TargetBar screen={screen} expected={expected} />}
        <Standing rows={rows} judgement={judgement} newly={newly} />
        {judgement?.located.size === 0 ? <FirstFigures rows={rows} roundId={round.id} /> : null}
        <MeasuringPanels
          screen={screen}
          sheet={<LiveSheet {...{ rows, judgement }} lit={writing.lit(screen.lines)} title={round.name} />}
          onAmount={(amount, takeIt) => field.current?.land(amount, takeIt)}
        />
      </div>
    </div>
  );
}

/** The one large field, asking back where a number is far from what is expected. */
function MeasuringField({
  screen,
  question,
  pull,
  field,
}: {
  screen: MeasuringState;
  question: ReturnType<typeof useDoubtful>['question'];
  pull?: PullContext;
  field: React.RefObject<EntryHandle | null>;
}) {
  const { round, targets, writing, lastLine, read, subjects } = screen;
  const { correction } = writing;
  return (
    <EntryField
      key={correction ? `${correction.line.lineId}${correction.strikeOnly}` : 'new'}
      ref={field}
      roundId={round.id}
      line={{
        ...{ subjects, read },
        wanted: targets.current && !pull && !correction ? targetText(targets.current) : undefined,
        question: (text) => question(read(text)),
      }}
      correction={correction}
      on={{
        take: writing.take,
        strike: (reason) => correction && writing.strike(correction.line, reason),
        leave: writing.leaveCorrection,
        lastLine: () => lastLine && writing.startCorrection(lastLine, false),
        typing: targets.typing,
      }}
      disabled={round.closedAt ? 'This round is closed: open it again to go on.' : undefined}
    />
  );
}

function useMeasuringKeys({ targets, writing, lastLine }: MeasuringState): void {
  const { current } = targets;
  const marks = CONDITION_KEYS.map(([kind, key]) => [
    key,
    () => current && writing.mark(current.codes[Math.min(writing.end, current.codes.length - 1)]!, kind),
  ]);
  useKeys({
    F2: targets.skip,
    F3: targets.back,
    F4: writing.repeatLast,
    F8: () => lastLine && writing.strike(lastLine, 'struck at once'),
    ...Object.fromEntries(marks),
  });
}
