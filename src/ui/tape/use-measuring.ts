'use client';

import { useCallback, useEffect, useMemo, useState } from 'react';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { Aim } from '@/core/walk/targets';
import { typedUnit } from '@/formats/preferences';
import { useFormat, usePreferences } from '../shell/preferences-context';
import { useBoard } from './board-channel';
import { useInstrumentsInHand } from './instruments-in-hand';
import { lineReader, subjectsOf } from './reading-lines';
import { useSpeech } from './screen-helpers';
import { subjectText } from './tape';
import type { ReadingContext } from './tape-entries';
import { targetText } from './target-text';
import { judgeAhead, useJudgement } from './use-judgement';
import { useTape } from './use-tape';
import { useTargets } from './use-targets';
import { useWriting } from './use-writing';

/** Where readings go besides the round itself: a pull, with its load phase. */
export type PullContext = ReadingContext & { readonly pullId: string };

export interface MeasuringProps {
  readonly rows: JobRows;
  readonly roundId: string;
  readonly pull?: PullContext;
}

/** What the screen knows and what can be done on it. */
export function useMeasuring({ rows: stored, roundId, pull }: MeasuringProps) {
  const { preferences } = usePreferences();
  const format = useFormat();
  const round = stored.rounds.find((each) => each.id === roundId)!;
  const judge = useCallback((longer: JobRows) => judgeAhead(longer, roundId), [roundId]);
  const { rows, lines, put, send } = useTape(stored, roundId, judge);
  const instruments = useInstrumentsInHand(rows, round.instrumentVersionId);
  const [distanceWith, heightWith] = [instruments.versionFor('distance'), instruments.versionFor('height')];
  const hands = { constant: distanceWith.sdConstant, perMetre: distanceWith.sdPerMetre, height: heightWith.sdConstant };
  const versionIds = [distanceWith.id, heightWith.id];
  const [aim, setAim] = useState<Aim>({ of: 'points', plusMinus: 2 });
  const live = useJudgement(rows, roundId, { hands, versionIds, aim, people: preferences.people });
  const targets = useTargets(rows, round, live);
  const { judgement } = live;
  useEffect(() => void send(), [judgement, send]);
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
    ...{
      rows,
      round,
      lines,
      shownLines,
      lastLine,
      instruments,
      aim,
      setAim,
      live,
      judgement,
      targets,
      subjects,
      read,
      unit,
    },
    ...{ speech, writing },
  };
}

/** All of the measuring screen that its parts look at or act on. */
export type MeasuringState = ReturnType<typeof useMeasuring>;
