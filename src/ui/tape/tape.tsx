'use client';

import { Fragment, memo, useEffect, useMemo, useRef } from 'react';
import type { Reading } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { Button } from '../kit/button';
import { sameFields } from '../kit/use-same';
import { useFormat } from '../shell/preferences-context';
import { QUANTITY_WORD } from '@/core/report/vocabulary/words';
import type { TapeLine } from './use-tape';

/** What can be done with the lines of a tape. */
export interface TapeEvents {
  readonly select: (lineId: string | undefined) => void;
  readonly correct: (line: TapeLine) => void;
  readonly strike: (line: TapeLine) => void;
}

interface TapeProps {
  readonly rows: JobRows;
  readonly lines: readonly TapeLine[];
  /** Lines that wear a mark until somebody settles them. */
  readonly doubtful: ReadonlySet<string>;
  /** Nothing is corrected or struck in a closed round. */
  readonly closed?: boolean;
  readonly selected?: string;
  readonly on: TapeEvents;
}

/** The running tape: every line typed, oldest at the top; a correction strikes, nothing is overwritten. */
export function Tape({ rows, lines, doubtful, closed = false, selected, on }: TapeProps) {
  const end = useRef<HTMLDivElement>(null);
  const steady = useSteady(on);
  useEffect(() => {
    const strip = end.current?.parentElement;
    if (!strip) return;
    // At once, before the browser draws; and when something below the tape takes room, so that the newest line stays in sight.
    const observer = new ResizeObserver(() => {
      strip.scrollTop = strip.scrollHeight;
    });
    observer.observe(strip);
    return () => observer.disconnect();
  }, [lines.length]);
  return (
    <div className="own-layer min-h-0 overflow-auto" role="log" aria-label="Tape" tabIndex={0}>
      <ol className="tape px-3 pt-2 text-[0.92rem]">
        {lines.length === 0 ? (
          <li className="py-3 text-soft">The tape is empty: type the first reading below.</li>
        ) : null}
        {lines.map((line) => (
          <Line
            key={line.lineId}
            {...{ line, closed }}
            on={steady}
            subject={subjectText(rows, line.readings[0]!)}
            doubtful={doubtful.has(line.lineId)}
            open={selected === line.lineId}
          />
        ))}
      </ol>
      <div className="tape-edge" ref={end} aria-hidden />
    </div>
  );
}

/** The same events for all time, each doing what it does now: so that a line stays as it is drawn. */
function useSteady(on: TapeEvents): TapeEvents {
  const latest = useRef(on);
  useEffect(() => {
    latest.current = on;
  });
  return useMemo(
    () => ({
      select: (lineId) => latest.current.select(lineId),
      correct: (line) => latest.current.correct(line),
      strike: (line) => latest.current.strike(line),
    }),
    [],
  );
}

interface LineProps {
  readonly line: TapeLine;
  /** What was read, as it is written. */
  readonly subject: string;
  readonly doubtful: boolean;
  readonly closed: boolean;
  readonly open: boolean;
  readonly on: TapeEvents;
}

/** Readings never change: a line that says the same of the same readings is the same. */
const sameLine = (a: TapeLine, b: TapeLine): boolean =>
  a.lineId === b.lineId &&
  a.state === b.state &&
  a.message === b.message &&
  a.readings.length === b.readings.length &&
  a.readings[0]?.author === b.readings[0]?.author &&
  a.strike?.struckAt === b.strike?.struckAt &&
  a.strike?.reason === b.strike?.reason;

const Line = memo(LineOnTape, ({ line, ...a }, { line: other, ...b }) => sameLine(line, other) && sameFields(a, b));

function LineOnTape({ line, subject, doubtful, closed, open, on }: LineProps) {
  const format = useFormat();
  const [first] = line.readings as [Reading];
  const own = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (open) own.current?.scrollIntoView({ block: 'nearest' });
  }, [open]);
  const { strike, state } = line;
  return (
    <li
      ref={own}
      className="border-b border-dashed border-faint"
      data-line={line.lineId}
      data-state={strike ? 'struck' : state}
    >
      <button
        type="button"
        onClick={() => on.select(open ? undefined : line.lineId)}
        aria-expanded={open}
        className="flex min-h-9 w-full items-baseline gap-2 text-left"
      >
        <span className={`grow ${strike ? 'text-soft line-through' : ''}`}>
          {doubtful ? (
            <span data-doubtful>
              <span aria-hidden>▲ </span>
              <span className="sr-only">doubtful: </span>
            </span>
          ) : null}
          {subject}
          {first.pullId ? ` · ${first.phase === 'underLoad' ? 'under load' : first.phase}` : ''}
        </span>
        <span className={`grid grid-flow-col gap-3 text-right ${strike ? 'text-soft line-through' : ''}`}>
          {line.readings.map((reading) => (
            <Fragment key={reading.id}>
              <span>
                {reading.quantity === 'distance' ? null : (
                  <span className="text-soft">{QUANTITY_WORD[reading.quantity][0]} </span>
                )}
                {format.length(reading.value)}
                {reading.measure === 'level' ? <span className="text-soft"> level</span> : null}
              </span>
            </Fragment>
          ))}
        </span>
        <span className="w-16 shrink-0 text-right text-xs text-soft">
          {state === 'waiting' ? 'waiting' : state === 'refused' ? 'refused' : first.author}
        </span>
      </button>
      {state === 'refused' ? (
        <p role="alert" className="text-sm text-minus">
          Not taken: {line.message}
        </p>
      ) : null}
      {strike ? (
        <p className="pb-1 text-xs text-soft">
          struck by {strike.author}, {format.time(strike.struckAt)}: {strike.reason}
        </p>
      ) : null}
      {open ? (
        <div className="flex flex-wrap items-center gap-2 pb-2">
          <span className="text-xs text-soft">
            typed “{first.raw}” · {format.day(first.takenAt)} {format.time(first.takenAt)}
          </span>
          {strike || closed ? null : (
            <>
              <Button onClick={() => on.correct(line)}>Correct</Button>
              <Button onClick={() => on.strike(line)}>Strike</Button>
            </>
          )}
        </div>
      ) : null}
    </li>
  );
}

/** `S1L – S3R`, `F1L` or `DFL.2`. */
export function subjectText(rows: Pick<JobRows, 'points' | 'seams' | 'seamStations'>, reading: Reading): string {
  const code = (id: string | null) => rows.points.find((point) => point.id === id)?.code ?? '?';
  if (reading.stationId) {
    const station = rows.seamStations.find((each) => each.id === reading.stationId);
    return `${rows.seams.find((seam) => seam.id === station?.seamId)?.code ?? '?'}.${station?.number ?? '?'}`;
  }
  return reading.toPointId ? `${code(reading.pointId)} – ${code(reading.toPointId)}` : code(reading.pointId);
}
