'use client';

import { Grid3x3, Presentation, Volume2, VolumeX } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import type { Phase, PointCondition, Reading } from '@/core/job/entities';
import type { JobRows } from '@/core/job/job-rows';
import type { RoundJudgement } from '@/core/round/judgement';
import { targetPrefix, type Aim, type Target } from '@/core/round/targets';
import { expectedFor, expectedOf, targetOfReading, tyingTargets } from '@/core/round/wanted';
import { parseLine, type ParsedLine, type Subjects } from '@/core/shorthand/line';
import { sheetFigure } from '@/core/drawing/points';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { ClientOnly } from '../kit/client-only';
import { Sheet } from '../sheet/sheet';
import { useFormat, usePreferences } from '../shell/preferences-context';
import { useBoard } from './board-channel';
import { lineText } from './corrected-text';
import { EntryField, type Correction, type EntryHandle } from './entry-field';
import { useInstrumentsInHand } from './instruments-in-hand';
import { Keypad } from './keypad';
import { MeasuringPanels } from './measuring-panels';
import { useAwake, useKeys, useSpeech } from './screen-helpers';
import { Standing } from './standing';
import { subjectText, Tape } from './tape';
import { TargetBar, targetText, CONDITION_KEYS } from './target-bar';
import { useJudgement } from './use-judgement';
import { useTape, type TapeLine } from './use-tape';
import { useTargets } from './use-targets';

/** Where readings go besides the round itself: a pull, with its load phase. */
export interface PullContext {
  readonly pullId: string;
  readonly phase: Phase;
}

/** The measuring screen: what is wanted, the field, the tape, and what the round says so far. */
export function Measuring(props: { rows: JobRows; roundId: string; pull?: PullContext }) {
  return (
    <ClientOnly waiting={<p role="status">Fetching the tape …</p>}>
      <MeasuringScreen {...props} />
    </ClientOnly>
  );
}

/** Exaggeration of the live sheet. */
const LIVE_FACTOR = 10;

/** A number this many times what is expected is asked about. */
const TOO_MANY_TIMES = 5;

function MeasuringScreen({ rows: stored, roundId, pull }: { rows: JobRows; roundId: string; pull?: PullContext }) {
  const { preferences } = usePreferences();
  const format = useFormat();
  const round = stored.rounds.find((each) => each.id === roundId)!;
  const { rows, lines, put } = useTape(stored, roundId);
  const instruments = useInstrumentsInHand(rows, round.instrumentVersionId);
  const [distanceWith, heightWith] = [instruments.versionFor('distance'), instruments.versionFor('height')];
  const hands = { constant: distanceWith.sdConstant, perMetre: distanceWith.sdPerMetre, height: heightWith.sdConstant };
  const planKey = JSON.stringify([
    rows.points.map(({ code }) => code),
    rows.pointConditions.filter((each) => each.roundId === roundId).map(({ id }) => id),
    hands,
  ]);
  const [aim, setAim] = useState<Aim>({ of: 'points', plusMinus: 2 });
  const live = useJudgement(rows, roundId, hands, planKey, aim);
  const targets = useTargets(rows, round, live);
  const [selected, select] = useState<string>();
  const [correction, correct] = useState<Correction>();
  const [end, chooseEnd] = useState(1);
  const [padOpen, setPadOpen] = useState(() => localStorage.getItem('vinkel.keypad') === 'open');
  const field = useRef<EntryHandle>(null);
  const subjects = useMemo(() => subjectsOf(rows), [rows]);
  const unit = typedUnit(preferences);
  const author = preferences.person || round.author;
  const { judgement } = live;
  const newly = useNewlyLocated(rows, judgement);
  const speech = useSpeech();
  useAwake(!round.closedAt);

  const { current } = targets;
  const shownLines = lines.filter((line) =>
    pull ? line.readings[0]!.pullId === pull.pullId : !line.readings[0]!.pullId,
  );
  const lastLine = shownLines.filter((line) => !line.strike && line.state !== 'refused').at(-1);
  const read = useMemo(() => reader(subjects, unit, pull ? undefined : current), [subjects, unit, current, pull]);
  const expected = useMemo(() => expectedOf(rows, judgement, current), [rows, judgement, current]);
  useBoard(roundId, {
    next: targets.queue.slice(0, 2).map(targetText),
    last: lastLine
      ? `${subjectText(rows, lastLine.readings[0]!)}  ${lastLine.readings.map((reading) => format.length(reading.value)).join('  ')}`
      : '',
    unit: format.unit,
    doubts: judgement?.net.doubts.length ?? 0,
  });

  const takeAs = (
    raw: string,
    line: string,
    struck: { lineId: string; reason: string; context: Reading } | undefined,
  ) => {
    const parsed = read(line);
    if (!parsed.ok) return;
    const lineId = crypto.randomUUID();
    const context = struck?.context ?? { pullId: pull?.pullId ?? null, phase: pull?.phase ?? 'none' };
    put({
      roundId,
      readings: parsed.readings.map((reading) => ({
        ...reading,
        id: crypto.randomUUID(),
        lineId,
        author,
        raw,
        takenAt: new Date().toISOString(),
        featureId: null,
        instrumentVersionId: instruments.versionFor(reading.quantity).id,
        pullId: context.pullId,
        phase: context.phase,
      })),
      strike: struck ? { lineId: struck.lineId, reason: struck.reason, author } : null,
    });
    const first = parsed.readings[0]!;
    const codes = [first.pointId, first.toPointId].flatMap((id) =>
      rows.points.filter((point) => point.id === id).map(({ code }) => code),
    );
    targets.taken({ key: `${first.quantity} ${[...codes].sort().join(' ')}` });
    speech.say(`${codes.join(' ')} ${parsed.readings.map((reading) => format.length(reading.value)).join(', ')}`);
    correct(undefined);
    select(undefined);
    chooseEnd(1);
  };
  const take = (raw: string, reason: string | undefined) =>
    takeAs(
      raw,
      raw,
      correction && reason
        ? { lineId: correction.line.lineId, reason, context: correction.line.readings[0]! }
        : undefined,
    );
  const strike = (line: TapeLine, reason: string) => {
    put({ roundId, readings: [], strike: { lineId: line.lineId, reason, author } });
    correct(undefined);
    select(undefined);
  };
  const startCorrection = (line: TapeLine, strikeOnly: boolean) => {
    const reading = line.readings[0]!;
    const whole = line.readings.length === 1 && reading.quantity !== 'fixture' && !reading.stationId;
    const said = parseLine(reading.raw, subjects, unit).ok || !whole ? reading.raw : lineText(rows, reading);
    correct({ line, strikeOnly, text: said });
  };
  const mark = (code: string, kind: PointCondition['kind']) => {
    const point = rows.points.find((each) => each.code === code);
    if (!point) return;
    put({
      roundId,
      readings: [],
      strike: null,
      conditions: [{ id: crypto.randomUUID(), roundId, pointId: point.id, kind, at: new Date().toISOString(), author }],
    });
  };
  const repeat = () => {
    const reading = lastLine?.readings[0];
    const target = reading && targetOfReading(rows, reading);
    if (target) targets.press([{ ...target, again: true }]);
  };
  const makeSubstitute = (code: string, name: string, newCode: string) => {
    const original = rows.points.find((each) => each.code === code)!;
    const at = new Date().toISOString();
    const blocked = rows.pointConditions.some((each) => each.roundId === roundId && each.pointId === original.id);
    put({
      roundId,
      readings: [],
      strike: null,
      points: [
        {
          id: crypto.randomUUID(),
          jobId: original.jobId,
          code: newCode,
          name,
          side: original.side,
          holeDiameter: null,
          substituteForId: original.id,
          mirrored: false,
          version: 1,
        },
      ],
      conditions: blocked
        ? []
        : [{ id: crypto.randomUUID(), roundId, pointId: original.id, kind: 'buried', at, author }],
    });
    targets.press(tyingTargets(newCode, code, judgement, rows));
  };
  const keys: Readonly<Record<string, () => void>> = {
    F2: targets.skip,
    F3: targets.back,
    F4: repeat,
    F8: () => lastLine && strike(lastLine, 'struck at once'),
    ...Object.fromEntries(
      CONDITION_KEYS.map(([kind, key]) => [
        key,
        () => current && mark(current.codes[Math.min(end, current.codes.length - 1)]!, kind),
      ]),
    ),
  };
  useKeys(keys);
  const lit =
    current && !selected
      ? current.codes
      : litBy(rows, selected ? lines.find((line) => line.lineId === selected)?.readings : lastLine?.readings);
  return (
    <div className="grid grid-cols-1 gap-4 xl:grid-cols-[minmax(24rem,1fr)_minmax(0,1.65fr)]">
      <div className={`flex flex-col gap-2 self-start ${padOpen ? '' : 'h-[calc(100dvh-13.5rem)] min-h-96'}`}>
        <div className="flex items-end justify-between gap-2 border-b border-rule">
          <LastHeard line={lastLine} rows={rows} />
          <div className="flex">
            {speech.can ? (
              <Button
                look="quiet"
                className="px-2"
                aria-pressed={speech.on}
                title="Speak each number"
                onClick={speech.toggle}
              >
                {speech.on ? <Volume2 size={20} aria-hidden /> : <VolumeX size={20} aria-hidden />}
                <span className="sr-only">Speak each number</span>
              </Button>
            ) : null}
            <Button
              look="quiet"
              className="px-2"
              aria-pressed={padOpen}
              title="Keypad"
              onClick={() => {
                localStorage.setItem('vinkel.keypad', padOpen ? 'shut' : 'open');
                setPadOpen(!padOpen);
              }}
            >
              <Grid3x3 size={20} aria-hidden />
              <span className="sr-only">Keypad</span>
            </Button>
            <Button
              look="quiet"
              className="px-2"
              title="Board, to read across the shop"
              onClick={() => window.open(`/board/${round.jobId}/${round.id}`, `board-${round.id}`)}
            >
              <Presentation size={20} aria-hidden />
              <span className="sr-only">Board</span>
            </Button>
          </div>
        </div>
        <div className={`flex min-h-0 flex-col ${padOpen ? (preferences.units === 'mm' ? 'h-40' : 'h-24') : ''}`}>
          <Tape
            rows={rows}
            lines={shownLines}
            selected={selected}
            onSelect={select}
            onCorrect={(line) => startCorrection(line, false)}
            onStrike={(line) => startCorrection(line, true)}
          />
        </div>
        <div className="mt-auto">
          <EntryField
            key={correction ? `${correction.line.lineId}${correction.strikeOnly}` : 'new'}
            ref={field}
            roundId={roundId}
            subjects={subjects}
            read={read}
            correction={correction}
            wanted={current && !pull && !correction ? targetText(current) : undefined}
            question={(text) => outlandish(read(text), expectedFor(rows, judgement, read(text)), format.length)}
            onTake={take}
            onStrike={(reason) => correction && strike(correction.line, reason)}
            onLeave={() => correct(undefined)}
            lastLine={() => lastLine && startCorrection(lastLine, false)}
            onTyping={targets.typing}
            disabled={round.closedAt ? 'This round is closed: open it again to go on.' : undefined}
          />
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
            rows={rows}
            roundId={roundId}
            targets={targets}
            expected={expected}
            onMark={mark}
            onRepeat={repeat}
            onSubstitute={makeSubstitute}
            end={end}
            chooseEnd={chooseEnd}
          />
        )}
        <Standing rows={rows} judgement={judgement} newly={newly} />
        <MeasuringPanels
          sheet={<LiveSheet rows={rows} judgement={judgement} lit={lit} title={round.name} />}
          rows={rows}
          round={round}
          judgement={judgement}
          milliseconds={live.milliseconds}
          helpful={live.helpful}
          aim={aim}
          setAim={setAim}
          instruments={instruments}
          target={current}
          onPress={(target) => targets.press([target])}
          onAmount={(amount, takeIt) => field.current?.land(amount, takeIt)}
          onTakeLine={(raw) => takeAs(raw, raw, undefined)}
          onCorrect={(reading, line, reason) =>
            takeAs(line, line, { lineId: reading.lineId, reason, context: reading })
          }
          onAgain={(reading) => {
            const target = targetOfReading(rows, reading);
            if (target) targets.press([{ ...target, again: true }]);
          }}
          onKeep={(reading) =>
            put({
              roundId,
              readings: [],
              strike: null,
              keeps: [
                {
                  id: crypto.randomUUID(),
                  readingId: reading.id,
                  at: new Date().toISOString(),
                  author,
                  reason: 'looked at and kept',
                },
              ],
            })
          }
        />
      </div>
    </div>
  );
}

/** What a line can name in this job. */
export function subjectsOf(rows: JobRows): Subjects & { readonly names: ReadonlyMap<string, string> } {
  const seamCode = new Map(rows.seams.map((seam) => [seam.id, seam.code]));
  return {
    points: rows.points,
    stations: rows.seamStations.map((station) => ({
      id: station.id,
      code: `${seamCode.get(station.seamId)}.${station.number}`,
    })),
    pairs: rows.dimensions,
    names: new Map(rows.points.map(({ code, name }) => [code, name])),
  };
}

/** A line as it stands, or, where that says nothing, as the amount of what is wanted now. */
const reader =
  (subjects: Subjects, unit: Parameters<typeof parseLine>[2], target: Target | undefined) =>
  (text: string): ParsedLine => {
    const whole = parseLine(text, subjects, unit);
    if (whole.ok || !target || /^\s*[a-z]/i.test(text)) return whole;
    const level = target.measure === 'level' && !/\b(tip|level)\s*$/i.test(text) ? ' level' : '';
    return parseLine(`${targetPrefix(target)}${text}${level}`, subjects, unit);
  };

/** The question about a length many times longer or shorter than expected. */
function outlandish(
  parsed: ParsedLine,
  expected: { value: number } | undefined,
  show: (mm: number) => string,
): string | undefined {
  const value = parsed.ok ? parsed.readings[0]!.value : 0;
  if (!parsed.ok || !expected || expected.value < 30) return undefined;
  const ratio = value / expected.value;
  if (ratio < TOO_MANY_TIMES && ratio > 1 / TOO_MANY_TIMES) return undefined;
  return `${show(value)} is typed, about ${show(expected.value)} is expected: Enter again takes it all the same.`;
}

const litBy = (rows: JobRows, readings: readonly Reading[] | undefined): string[] =>
  (readings ?? []).flatMap(({ pointId, toPointId }) =>
    rows.points.filter(({ id }) => id === pointId || id === toPointId).map(({ code }) => code),
  );

/** Points located now that were not a reading ago. */
function useNewlyLocated(rows: JobRows, judgement: RoundJudgement | undefined): readonly string[] {
  const [state, setState] = useState<{ known: ReadonlySet<string>; newly: readonly string[]; of?: RoundJudgement }>({
    known: new Set(),
    newly: [],
  });
  if (judgement && judgement !== state.of) {
    const now = [...judgement.located.keys()];
    const newly = state.of ? now.filter((id) => !state.known.has(id)) : [];
    const codes = newly.flatMap((id) => rows.points.filter((point) => point.id === id).map(({ code }) => code));
    setState({ known: new Set(now), newly: codes, of: judgement });
  }
  return state.newly;
}

/** The last number, read back huge. */
function LastHeard({ line, rows }: { line?: TapeLine; rows: JobRows }) {
  const format = useFormat();
  return (
    <p className="flex flex-wrap items-baseline gap-x-3" data-last-heard>
      <span className="font-mono text-4xl font-semibold">
        {line ? line.readings.map((reading) => format.length(reading.value)).join('  ') : '–'}
      </span>
      <span className="text-sm text-soft">{line ? subjectText(rows, line.readings[0]!) : ''}</span>
    </p>
  );
}

function LiveSheet({
  rows,
  judgement,
  lit,
  title,
}: {
  rows: JobRows;
  judgement?: RoundJudgement;
  lit: readonly string[];
  title: string;
}) {
  const figure = useMemo(() => judgement && sheetFigure(rows, judgement), [rows, judgement]);
  const ids = lit.flatMap((code) => rows.points.filter((point) => point.code === code).map(({ id }) => id));
  if (!figure) return null;
  if (figure.points.length === 0)
    return (
      <p className="text-soft">
        There is no chart to draw from yet, and too few readings to make a shape of; they are kept all the same.
      </p>
    );
  return (
    <Sheet
      figure={figure}
      factor={LIVE_FACTOR}
      selected={ids}
      title={[title]}
      pairs={ids.length === 2 ? [{ from: ids[0]!, to: ids[1]!, strong: true }] : []}
    />
  );
}
