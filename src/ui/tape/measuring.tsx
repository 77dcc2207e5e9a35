'use client';

import { Job } from '@/core/shell/job/job';
import { useMemo, useRef, useState } from 'react';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { Aim } from '@/core/walk/targets';
import { expectedFor, expectedOf } from '@/core/walk/wanted';
import { typedUnit } from '@/formats/preferences';
import { ClientOnly } from '../kit/client-only';
import { useFormat, usePreferences } from '../shell/preferences-context';
import { useBoard } from './board-channel';
import { EntryField, type EntryHandle } from './entry-field';
import { useInstrumentsInHand } from './instruments-in-hand';
import { Keypad } from './keypad';
import { LiveSheet } from './live-sheet';
import { MeasuringPanels } from './measuring-panels';
import { lineReader, outlandish, subjectsOf } from './reading-lines';
import { useAwake, useKeys, useSpeech } from './screen-helpers';
import { Standing } from './standing';
import { subjectText, Tape } from './tape';
import type { ReadingContext } from './tape-entries';
import { TapeHead } from './tape-head';
import { CONDITION_KEYS, TargetBar, targetText } from './target-bar';
import { useJudgement } from './use-judgement';
import { useNewlyLocated } from './use-newly-located';
import { useTape } from './use-tape';
import { useTargets } from './use-targets';
import { useWriting } from './use-writing';

/** Where readings go besides the round itself: a pull, with its load phase. */
export type PullContext = ReadingContext & { readonly pullId: string };

interface MeasuringProps {
  readonly rows: JobRows;
  readonly roundId: string;
  readonly pull?: PullContext;
}

/** The measuring screen: what is wanted, the field, the tape, and what the round says so far. */
export function Measuring(props: MeasuringProps) {
  return (
    <ClientOnly waiting={<p role="status">Fetching the tape …</p>}>
      <MeasuringScreen {...props} />
    </ClientOnly>
  );
}

/** What the screen knows and what can be done on it. */
function useMeasuring({ rows: stored, roundId, pull }: MeasuringProps) {
  const { preferences } = usePreferences();
  const format = useFormat();
  const round = stored.rounds.find((each) => each.id === roundId)!;
  const { rows, lines, put } = useTape(stored, roundId);
  const instruments = useInstrumentsInHand(rows, round.instrumentVersionId);
  const [distanceWith, heightWith] = [instruments.versionFor('distance'), instruments.versionFor('height')];
  const hands = { constant: distanceWith.sdConstant, perMetre: distanceWith.sdPerMetre, height: heightWith.sdConstant };
  const versionIds = [distanceWith.id, heightWith.id];
  const [aim, setAim] = useState<Aim>({ of: 'points', plusMinus: 2 });
  const live = useJudgement(rows, roundId, { hands, versionIds, aim });
  const targets = useTargets(rows, round, live);
  const { judgement } = live;
  const subjects = useMemo(() => subjectsOf(rows), [rows]);
  const unit = typedUnit(preferences);
  const current = pull ? undefined : targets.current;
  const read = useMemo(() => lineReader(subjects, unit, current), [subjects, unit, current]);
  const speech = useSpeech();
  const shownLines = lines.filter((line) =>
    pull ? line.readings[0]!.pullId === pull.pullId : !line.readings[0]!.pullId,
  );
  const lastLine = shownLines.filter((line) => !line.strike && line.state !== 'refused').at(-1);
  const writing = useWriting({
    writer: { roundId, author: preferences.person || round.author },
    context: pull ?? { pullId: null, phase: 'none' },
    onTaken: (codes, readings) =>
      speech.say(`${codes.join(' ')} ${readings.map(({ value }) => format.length(value)).join(', ')}`),
    ...{ rows, put, subjects, unit, read, targets, judgement, instruments, lastLine },
  });
  useBoard(roundId, {
    next: targets.queue.slice(0, 2).map(targetText),
    last: lastLine
      ? `${subjectText(rows, lastLine.readings[0]!)}  ${lastLine.readings.map((reading) => format.length(reading.value)).join('  ')}`
      : '',
    unit: format.unit,
    doubts: judgement?.net.doubts.length ?? 0,
  });
  return {
    ...{ rows, round, lines, shownLines, lastLine, instruments, aim, setAim, live, judgement, targets, subjects, read },
    ...{ speech, writing },
  };
}

function MeasuringScreen(props: MeasuringProps) {
  const { pull } = props;
  const { preferences } = usePreferences();
  const screen = useMeasuring(props);
  const { rows, round, judgement, targets, writing, lastLine } = screen;
  const [padOpen, setPad] = useState(() => localStorage.getItem('vinkel.keypad') === 'open');
  const field = useRef<EntryHandle>(null);
  const newly = useNewlyLocated(rows, judgement);
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
            selected={writing.selected}
            onSelect={writing.select}
            onCorrect={(line) => writing.startCorrection(line, false)}
            onStrike={(line) => writing.startCorrection(line, true)}
          />
        </div>
        <div className="mt-auto">
          <MeasuringField screen={screen} pull={pull} field={field} />
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
        {pull || round.closedAt ? null : (
          <TargetBar
            {...{ rows, targets, expected }}
            roundId={round.id}
            onMark={writing.mark}
            onRepeat={writing.repeatLast}
            onSubstitute={writing.makeSubstitute}
            end={writing.end}
            chooseEnd={writing.chooseEnd}
          />
        )}
        <Standing rows={rows} judgement={judgement} newly={newly} />
        <MeasuringPanels
          sheet={<LiveSheet {...{ rows, judgement }} lit={writing.lit(screen.lines)} title={round.name} />}
          {...{ rows, round, judgement }}
          milliseconds={screen.live.milliseconds}
          helpful={screen.live.helpful}
          aim={screen.aim}
          setAim={screen.setAim}
          instruments={screen.instruments}
          target={current}
          onPress={(target) => targets.press([target])}
          onAmount={(amount, takeIt) => field.current?.land(amount, takeIt)}
          onTakeLine={writing.takeLine}
          onCorrect={writing.takeInstead}
          onAgain={writing.repeat}
          onKeep={writing.keep}
        />
      </div>
    </div>
  );
}

type Screen = ReturnType<typeof useMeasuring>;

/** The one large field, asking back where a number is far from what is expected. */
function MeasuringField({
  screen,
  pull,
  field,
}: {
  screen: Screen;
  pull?: PullContext;
  field: React.RefObject<EntryHandle | null>;
}) {
  const format = useFormat();
  const { rows, round, judgement, targets, writing, lastLine, read, subjects } = screen;
  const { correction } = writing;
  return (
    <EntryField
      key={correction ? `${correction.line.lineId}${correction.strikeOnly}` : 'new'}
      ref={field}
      roundId={round.id}
      {...{ subjects, read, correction }}
      wanted={targets.current && !pull && !correction ? targetText(targets.current) : undefined}
      question={(text) => outlandish(read(text), expectedFor(Job.of(rows), judgement, read(text)), format.length)}
      onTake={writing.take}
      onStrike={(reason) => correction && writing.strike(correction.line, reason)}
      onLeave={writing.leaveCorrection}
      lastLine={() => lastLine && writing.startCorrection(lastLine, false)}
      onTyping={targets.typing}
      disabled={round.closedAt ? 'This round is closed: open it again to go on.' : undefined}
    />
  );
}

function useMeasuringKeys({ targets, writing, lastLine }: Screen): void {
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
