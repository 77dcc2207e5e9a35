'use client';

import { useMemo, useState } from 'react';
import type { Phase, Reading } from '@/core/job/entities';
import type { JobRows } from '@/core/job/job-rows';
import { parseLine, type Subjects } from '@/core/shorthand/line';
import { sheetFigure } from '@/core/drawing/points';
import { judgeRound } from '@/core/round/judgement';
import { ClientOnly } from '../kit/client-only';
import { Sheet } from '../sheet/sheet';
import { useFormat, usePreferences } from '../shell/preferences-context';
import { typedUnit } from '@/formats/preferences';
import { EntryField, type Correction } from './entry-field';
import { HAND_WORD, useInstrumentsInHand, type Hand } from './instruments-in-hand';
import { Tape } from './tape';
import { useTape } from './use-tape';

/** Where readings go besides the round itself: a pull, with its load phase. */
export interface PullContext {
  readonly pullId: string;
  readonly phase: Phase;
}

/** The measuring screen: the field, the tape, and what the round says so far. */
export function Measuring(props: { rows: JobRows; roundId: string; pull?: PullContext }) {
  return (
    <ClientOnly waiting={<p role="status">Fetching the tape …</p>}>
      <MeasuringScreen {...props} />
    </ClientOnly>
  );
}

function MeasuringScreen({ rows: stored, roundId, pull }: { rows: JobRows; roundId: string; pull?: PullContext }) {
  const { preferences } = usePreferences();
  const round = stored.rounds.find((each) => each.id === roundId)!;
  const { rows, lines, put } = useTape(stored, roundId);
  const instruments = useInstrumentsInHand(rows, round.instrumentVersionId);
  const [selected, select] = useState<string>();
  const [correction, correct] = useState<Correction>();
  const subjects = useMemo(() => subjectsOf(stored), [stored]);
  const unit = typedUnit(preferences);
  const author = preferences.person || round.author;

  const take = (raw: string, reason: string | undefined) => {
    const parsed = parseLine(raw, subjects, unit);
    if (!parsed.ok) return;
    const lineId = crypto.randomUUID();
    const context = correction?.line.readings[0] ?? { pullId: pull?.pullId ?? null, phase: pull?.phase ?? 'none' };
    put({
      roundId,
      readings: parsed.readings.map((reading) => ({
        ...reading, id: crypto.randomUUID(), lineId, author, raw, takenAt: new Date().toISOString(), featureId: null,
        instrumentVersionId: instruments.versionFor(reading.quantity).id, pullId: context.pullId, phase: context.phase,
      })),
      strike: correction && reason ? { lineId: correction.line.lineId, reason, author } : null,
    }); // prettier-ignore
    correct(undefined);
    select(undefined);
  };
  const strike = (reason: string) => {
    if (correction) put({ roundId, readings: [], strike: { lineId: correction.line.lineId, reason, author } });
    correct(undefined);
    select(undefined);
  };
  const lastStanding = () => {
    const line = lines.filter((each) => !each.strike && each.state !== 'refused').at(-1);
    if (line) correct({ line, strikeOnly: false });
  };
  const shownLines = pull ? lines.filter((line) => line.readings[0]!.pullId === pull.pullId) : lines.filter((line) => !line.readings[0]!.pullId);
  return (
    <div className="grid grid-cols-1 gap-4 xl:grid-cols-[minmax(25rem,1fr)_minmax(0,1.5fr)]">
      <div className="flex h-[calc(100dvh-13.5rem)] min-h-96 flex-col gap-2">
        <Tape rows={rows} lines={shownLines} selected={selected} onSelect={select} onCorrect={(line) => correct({ line, strikeOnly: false })} onStrike={(line) => correct({ line, strikeOnly: true })} />
        <div className="mt-auto">
          <EntryField
            key={correction ? `${correction.line.lineId}${correction.strikeOnly}` : 'new'}
            roundId={roundId} subjects={subjects} unit={unit} correction={correction}
            onTake={take} onStrike={strike} onLeave={() => correct(undefined)} lastLine={lastStanding}
            disabled={round.closedAt ? 'This round is closed: open it again to go on.' : undefined}
          />
        </div>
      </div>
      <div className="flex min-w-0 flex-col gap-3">
        <Progress rows={rows} roundId={roundId} last={shownLines.filter((line) => !line.strike).at(-1)?.readings} />
        <InstrumentChoice rows={rows} instruments={instruments} />
      </div>
    </div>
  );
} // prettier-ignore

/** What a line can name in this job. */
export function subjectsOf(rows: JobRows): Subjects {
  const seamCode = new Map(rows.seams.map((seam) => [seam.id, seam.code]));
  return {
    points: rows.points,
    stations: rows.seamStations.map((station) => ({
      id: station.id,
      code: `${seamCode.get(station.seamId)}.${station.number}`,
    })),
    pairs: rows.dimensions,
  };
}

function Progress({
  rows,
  roundId,
  last,
}: {
  rows: JobRows;
  roundId: string;
  last?: readonly Reading[];
}) {
  const format = useFormat();
  const round = rows.rounds.find((each) => each.id === roundId)!;
  const judgement = useMemo(() => judgeRound(rows, round), [rows, round]);
  const figure = useMemo(() => sheetFigure(rows, judgement), [rows, judgement]);
  const lit =
    last?.flatMap((reading) => [reading.pointId, reading.toPointId].filter((id) => id !== null)) ??
    [];
  const dimension = judgement.dimensions.find(
    (each) =>
      last?.[0]?.toPointId &&
      lit.includes(each.dimension.fromPointId) &&
      lit.includes(each.dimension.toPointId),
  );
  const located = judgement.points.filter((each) => each.read.length === 3).length;
  const measured = judgement.dimensions.filter((each) => each.measured).length;
  return (
    <>
      <div
        className="flex flex-wrap items-baseline gap-x-5 border-y border-rule py-1"
        role="status"
      >
        <span className="font-mono text-3xl font-semibold">
          {last ? last.map((reading) => format.length(reading.value)).join('  ') : '–'}
        </span>
        {dimension?.judged ? (
          <span>
            {dimension.dimension.code}: {format.difference(dimension.judged.deviation)}{' '}
            {format.plusMinus(dimension.judged.plusMinus)} {format.unit}, {dimension.judged.verdict}
          </span>
        ) : null}
        <span className="ml-auto text-sm text-soft">
          {located} of {rows.points.length} points located · {measured} of {rows.dimensions.length}{' '}
          dimensions measured
        </span>
      </div>
      {figure.points.length > 0 ? (
        <Sheet
          figure={figure}
          factor={10}
          selected={lit}
          title={[round.name]}
          pairs={lit.length === 2 ? [{ from: lit[0]!, to: lit[1]!, strong: true }] : []}
        />
      ) : (
        <p className="text-soft">
          There is no chart to draw from yet; readings are kept all the same.
        </p>
      )}
    </>
  );
}

function InstrumentChoice({
  rows,
  instruments,
}: {
  rows: JobRows;
  instruments: ReturnType<typeof useInstrumentsInHand>;
}) {
  return (
    <details>
      <summary className="flex min-h-11 cursor-pointer items-center gap-2">
        <span className="caps">Instruments in hand</span>
      </summary>
      <div className="grid gap-2 sm:grid-cols-2">
        {(Object.keys(HAND_WORD) as Hand[]).map((hand) => (
          <label key={hand} className="flex flex-col">
            <span className="caps">{HAND_WORD[hand]}</span>
            <select
              className="min-h-11 border border-rule bg-sheet px-2"
              value={instruments.hands[hand]}
              onChange={(event) => instruments.choose(hand, event.target.value)}
            >
              {rows.instruments.map((instrument) => (
                <option key={instrument.id} value={instrument.id}>
                  {instrument.name}
                </option>
              ))}
            </select>
          </label>
        ))}
      </div>
    </details>
  );
}
