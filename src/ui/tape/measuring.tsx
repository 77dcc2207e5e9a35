'use client';

import { Job } from '@/core/shell/job/job';
import { useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import { expectedOf } from '@/core/walk/wanted';
import { ClientOnly } from '../kit/client-only';
import { FirstFigures } from '../sides/first-figures';
import { counted } from '@/core/report/vocabulary/words';
import { useFormat, usePreferences } from '../shell/preferences-context';
import { useReachable } from '../shell/use-reachable';
import { EntryField, type EntryHandle, type Pad } from './entry-field';
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
import { unpacked } from '../kit/unpacked';

/** The measuring screen: what is wanted, the field, the tape, and what the round says so far. */
export const Measuring = unpacked(MeasuringOfRows);

function MeasuringOfRows(props: MeasuringProps) {
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
  const { rows, round, judgement, targets, writing, lastLine, instruments } = screen;
  const [padOpen, setPad] = useState(() => localStorage.getItem('vinkel.keypad') === 'open');
  const field = useRef<EntryHandle>(null);
  const newly = useNewlyLocated(rows, judgement);
  const doubtful = useDoubtful(screen);
  const { current } = targets;
  const inHand = instruments.versionFor(current?.quantity ?? 'distance');
  const expected = useMemo(
    () => expectedOf(Job.of(rows), judgement, current, inHand),
    [rows, judgement, current, inHand],
  );
  useAwake(!round.closedAt);
  useMeasuringKeys(screen);
  const column = useInSight(padOpen);
  const pad = {
    isOpen: padOpen,
    toggle: () => {
      localStorage.setItem('vinkel.keypad', padOpen ? 'shut' : 'open');
      setPad(!padOpen);
    },
  };
  return (
    <div className="grid grid-cols-1 gap-4 xl:grid-cols-[minmax(24rem,1fr)_minmax(0,1.65fr)]">
      <div
        ref={column}
        className={`flex scroll-mt-1 flex-col gap-2 self-start ${padOpen ? '' : 'h-[calc(100dvh-1rem)] xl:h-[calc(100dvh-13.5rem)] xl:min-h-96'}`}
      >
        <TapeHead {...{ rows, round, lastLine }} speech={screen.speech} />
        <div className={`flex min-h-0 flex-col ${padOpen ? 'h-[7.2rem] xl:h-40' : ''}`}>
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
          <Waiting lines={screen.lines} />
          <Prompt screen={screen} expected={expected} />
          <MeasuringField screen={screen} question={doubtful.question} pull={pull} field={field} pad={pad} />
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

/** On a window too small for the column beside the tape, what is wanted stands right above the field. */
function Prompt({ screen, expected }: { screen: MeasuringState; expected: ReturnType<typeof expectedOf> }) {
  const format = useFormat();
  const { current } = screen.targets;
  if (!current || screen.round.closedAt) return null;
  return (
    <p className="flex flex-wrap items-baseline gap-x-3 pb-1 xl:hidden" data-prompt>
      <span className="font-mono text-xl font-semibold">{targetText(current)}</span>
      {expected ? (
        <span className="text-sm text-soft">
          about {format.length(expected.value)} {format.plusMinus(2 * expected.sd)} {format.unit}
        </span>
      ) : null}
    </p>
  );
}

/** Lines that could not be sent yet, in one line above the field. */
function Waiting({ lines }: Pick<MeasuringState, 'lines'>) {
  const reachable = useReachable();
  const waiting = lines.filter(({ state }) => state === 'waiting').length;
  if (reachable || waiting === 0) return null;
  return (
    <p role="status" className="text-sm font-medium" data-waiting={waiting}>
      Offline: {counted(waiting, 'line')} {waiting === 1 ? 'waits' : 'wait'} here and {waiting === 1 ? 'is' : 'are'}{' '}
      sent when the program is back.
    </p>
  );
}

/** A window too small for all of the page begins at the tape: its last lines, the field and the keys are in sight. */
function useInSight(padOpen: boolean): RefObject<HTMLDivElement | null> {
  const column = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (window.innerWidth < XL) column.current?.scrollIntoView({ block: 'start' });
  }, [padOpen]);
  return column;
}

/** From this width on the tape and what the round says stand side by side, px. */
const XL = 1280;

/** The one large field, asking back where a number is far from what is expected. */
function MeasuringField({
  screen,
  question,
  pull,
  field,
  pad,
}: {
  screen: MeasuringState;
  question: ReturnType<typeof useDoubtful>['question'];
  pull?: PullContext;
  field: RefObject<EntryHandle | null>;
  pad: Pad;
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
      pad={pad}
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
