'use client';

import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { sameList } from '../kit/use-same';
import { useLive } from '../live/live';
import type { Reading, ReadingStrike } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { rowsWith, typedAt } from './typed-rows';
import {
  entryKey,
  forgetEntry,
  forgetTaken,
  keepEntry,
  keepTaken,
  sendEntry,
  takenEntries,
  waitingEntries,
  type TapeEntry,
} from './outbox';

export type LineState = 'taken' | 'waiting' | 'refused';

/** A line of the tape: the readings typed in it, whether it is struck, and whether it has arrived. */
export interface TapeLine {
  readonly lineId: string;
  readonly readings: readonly Reading[];
  readonly strike?: ReadingStrike;
  readonly state: LineState;
  readonly message?: string;
}

interface Local {
  readonly entry: TapeEntry;
  readonly at: string;
  readonly state: LineState;
  readonly message?: string;
}

const RETRY_MS = 3000;
/** A line that is judged here goes to the server once it has been, or after so long, ms: on a machine that is both, neither holds up the other. */
const JUDGED_MS = 150;

const local = (entry: TapeEntry, state: LineState): Local => ({ entry, at: typedAt(entry), state });

/** All that was typed, and of it what is not refused: the same list for as long as it is of the same entries. */
interface Typed {
  readonly locals: readonly Local[];
  readonly standing: readonly TapeEntry[];
}

function typed(locals: readonly Local[], before: readonly TapeEntry[] = []): Typed {
  const standing = locals.flatMap(({ state, entry }) => (state === 'refused' ? [] : [entry]));
  return { locals, standing: sameList(before, standing) ? before : standing };
}

/** What came of an entry that some window sent. */
interface Sent {
  readonly entry: TapeEntry;
  readonly state: 'taken' | 'refused';
  readonly message?: string;
}

/** An entry once, however often it is told of: windows that share an outbox send what was typed in the other as well. */
function withSent(all: readonly Local[], { entry, state, message }: Sent): readonly Local[] {
  const own = all.find((each) => entryKey(each.entry) === entryKey(entry));
  if (!own) return [...all, { ...local(entry, state), message }];
  return own.state === 'taken' ? all : all.map((each) => (each === own ? { ...own, state, message } : each));
}

/** Whether the server's rows already hold an entry. */
function isIn(rows: JobRows, entry: TapeEntry): boolean {
  const readings = new Set(rows.readings.map(({ id }) => id));
  const struck = new Set(rows.readingStrikes.map(({ readingId }) => readingId));
  const lineStruck = (lineId: string) =>
    rows.readings.some((reading) => reading.lineId === lineId && struck.has(reading.id));
  const ids = (list: readonly { readonly id: string }[]) => new Set(list.map(({ id }) => id));
  return (
    entry.readings.every(({ id }) => readings.has(id)) &&
    (!entry.strike || lineStruck(entry.strike.lineId)) &&
    (entry.points ?? []).every(({ id }) => ids(rows.points).has(id)) &&
    (entry.conditions ?? []).every(({ id }) => ids(rows.pointConditions).has(id)) &&
    (entry.keeps ?? []).every(({ id }) => ids(rows.readingKeeps).has(id))
  );
}

/**
 * The tape of a round: what the server has, and on top of it what this browser has typed. Lines the
 * server has not acknowledged are kept and sent again until it does, also after a reload; other windows
 * on the same round are told of those it has.
 *
 * @param judge where the round is judged as it is typed: told the rows with a line more before the page is drawn with it;
 *              the line is sent when `send` is called, or soon after
 */
export function useTape(rows: JobRows, roundId: string, judge?: (rows: JobRows) => void) {
  const [{ locals, standing }, setTyped] = useState<Typed>(() => {
    forgetTaken(roundId, (entry) => isIn(rows, entry));
    return typed([
      ...takenEntries(roundId).map((entry) => local(entry, 'taken')),
      ...waitingEntries(roundId).map((entry) => local(entry, 'waiting')),
    ]);
  });
  const setLocals = useCallback(
    (change: (all: readonly Local[]) => readonly Local[]) =>
      setTyped((before) => typed(change(before.locals), before.standing)),
    [],
  );
  const flushing = useRef(false);
  const due = useRef<ReturnType<typeof setTimeout>>(undefined);
  const others = useRef<BroadcastChannel | undefined>(undefined);

  /** Sends what waits, in the order typed: a correction never arrives before the line it corrects. */
  const flush = useCallback(async () => {
    clearTimeout(due.current);
    due.current = undefined;
    if (flushing.current) return;
    flushing.current = true;
    for (let entry = waitingEntries(roundId)[0]; entry; entry = waitingEntries(roundId)[0]) {
      const { result, message } = await sendEntry(entry);
      if (result === 'unreachable') break;
      if (result === 'taken') keepTaken(entry);
      forgetEntry(entry);
      const sent: Sent = { entry, state: result, message };
      others.current?.postMessage(sent);
      setLocals((all) => withSent(all, sent));
    }
    flushing.current = false;
  }, [roundId, setLocals]);

  const shown = useRef({ rows, standing });
  useLayoutEffect(() => {
    shown.current = { rows, standing };
  }, [rows, standing]);
  const put = useCallback(
    (entry: TapeEntry) => {
      keepEntry(entry);
      const longer = [...shown.current.standing, entry];
      shown.current = { ...shown.current, standing: longer };
      judge?.(rowsWith(shown.current.rows, roundId, longer));
      setTyped((before) => typed([...before.locals, local(entry, 'waiting')], longer));
      if (judge) due.current ??= setTimeout(() => void flush(), JUDGED_MS);
      else void flush();
    },
    [flush, judge, roundId],
  );

  useEffect(() => {
    const send = () => void flush();
    send();
    const timer = setInterval(send, RETRY_MS);
    window.addEventListener('pagehide', send);
    return () => {
      clearInterval(timer);
      window.removeEventListener('pagehide', send);
      send();
    };
  }, [roundId, flush]);

  useEffect(() => {
    const channel = new BroadcastChannel(`vinkel.tape.${roundId}`);
    others.current = channel;
    channel.onmessage = ({ data: sent }: MessageEvent<Sent>) => setLocals((all) => withSent(all, sent));
    return () => channel.close();
  }, [roundId, setLocals]);

  // Lines of other windows come by themselves, on whatever device they were typed.
  const live = useLive();
  useEffect(() => {
    live.takesLines(true);
    const silence = live.listen((event) => {
      const entry = event.kind === 'line' ? (event.entry as TapeEntry) : undefined;
      if (entry?.roundId === roundId) setLocals((all) => withSent(all, { entry, state: 'taken' }));
    });
    return () => {
      live.takesLines(false);
      silence();
    };
  }, [roundId, live, setLocals]);

  const merged = useMemo(() => rowsWith(rows, roundId, standing), [rows, roundId, standing]);
  const lines = useMemo(() => linesOf(merged, roundId, locals), [merged, roundId, locals]);
  return { rows: merged, lines, put, send: flush };
}

function linesOf(rows: JobRows, roundId: string, locals: readonly Local[]): TapeLine[] {
  const strikeOf = new Map(rows.readingStrikes.map((strike) => [strike.readingId, strike]));
  const stateOf = new Map(locals.map((local) => [local.entry.readings[0]?.lineId, local]));
  const grouped = new Map<string, Reading[]>();
  for (const reading of rows.readings.filter((each) => each.roundId === roundId))
    grouped.set(reading.lineId, [...(grouped.get(reading.lineId) ?? []), reading]);
  const lines = [...grouped].map(([lineId, readings]): TapeLine => {
    const local = stateOf.get(lineId);
    return {
      lineId,
      readings,
      strike: strikeOf.get(readings[0]!.id),
      state: local?.state ?? 'taken',
      message: local?.message,
    };
  });
  const refused = locals.flatMap(({ entry, state, message, at }): TapeLine[] =>
    state === 'refused' && entry.readings[0]
      ? [
          {
            lineId: entry.readings[0].lineId,
            state,
            message,
            readings: entry.readings.map((reading) => ({
              ...reading,
              personId: null,
              roundId,
              sequence: 1e9,
              receivedAt: at,
            })),
          },
        ]
      : [],
  );
  return [...lines, ...refused].sort((a, b) => a.readings[0]!.sequence - b.readings[0]!.sequence);
}
