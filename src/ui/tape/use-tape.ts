'use client';

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { sameList } from '../kit/use-same';
import { useLive } from '../live/live';
import { programTime } from '../shell/use-reachable';
import type { Reading, ReadingStrike } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
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

const local = (entry: TapeEntry, state: LineState): Local => ({ entry, at: typedAt(entry), state });

const typedAt = (entry: TapeEntry): string => entry.readings[0]?.takenAt ?? programTime();

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
 */
export function useTape(rows: JobRows, roundId: string) {
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
  const others = useRef<BroadcastChannel | undefined>(undefined);

  /** Sends what waits, in the order typed: a correction never arrives before the line it corrects. */
  const flush = useCallback(async () => {
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

  const put = useCallback(
    (entry: TapeEntry) => {
      keepEntry(entry);
      setLocals((all) => [...all, local(entry, 'waiting')]);
      void flush();
    },
    [flush, setLocals],
  );

  useEffect(() => {
    void flush();
    const timer = setInterval(() => void flush(), RETRY_MS);
    return () => clearInterval(timer);
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

  const merged = useMemo(() => mergeLocal(rows, roundId, standing), [rows, roundId, standing]);
  const lines = useMemo(() => linesOf(merged, roundId, locals), [merged, roundId, locals]);
  return { rows: merged, lines, put };
}

/** The job's rows with what was typed here and not refused; the same tables where nothing is added to them. */
function mergeLocal(rows: JobRows, roundId: string, standing: readonly TapeEntry[]): JobRows {
  if (standing.length === 0) return rows;
  const known = new Set(rows.readings.map((reading) => reading.id));
  const struck = new Set(rows.readingStrikes.map((strike) => strike.readingId));
  const readings = [...rows.readings];
  const strikes = [...rows.readingStrikes];
  let sequence = Math.max(0, ...rows.readings.map((reading) => reading.sequence));
  for (const entry of standing) {
    const at = typedAt(entry);
    sequence++;
    readings.push(...rowsOf(entry, roundId, sequence).filter(({ id }) => !known.has(id)));
    for (const reading of entry.strike ? readings : [])
      if (reading.lineId === entry.strike!.lineId && !struck.has(reading.id)) {
        struck.add(reading.id);
        strikes.push({
          id: crypto.randomUUID(),
          readingId: reading.id,
          struckAt: at,
          author: entry.strike!.author,
          personId: null,
          reason: entry.strike!.reason,
          replacedByLineId: entry.readings[0]?.lineId ?? null,
        });
      }
  }
  return {
    ...rows,
    readings,
    readingStrikes: strikes.length === rows.readingStrikes.length ? rows.readingStrikes : strikes,
    points: withNew(
      rows.points,
      standing.flatMap(({ points }) => points ?? []),
    ),
    pointConditions: withNew(
      rows.pointConditions,
      standing.flatMap(({ conditions }) => (conditions ?? []).map(unproved)),
    ),
    readingKeeps: withNew(
      rows.readingKeeps,
      standing.flatMap(({ keeps }) => (keeps ?? []).map(unproved)),
    ),
  };
}

/** The readings of an entry as rows: the same ones each time, so that nothing is sent or compared anew for them. */
function rowsOf(entry: TapeEntry, roundId: string, sequence: number): readonly Reading[] {
  const known = ROWS.get(entry);
  if (known?.every((row) => row.sequence === sequence && row.roundId === roundId)) return known;
  const receivedAt = typedAt(entry);
  const rows = entry.readings.map((reading) => ({ ...reading, personId: null, roundId, sequence, receivedAt }));
  ROWS.set(entry, rows);
  return rows;
}

const ROWS = new WeakMap<TapeEntry, readonly Reading[]>();

/** What is on its way says only a name; whose it is, the server says. */
const unproved = <Row extends object>(row: Row) => ({ ...row, personId: null });

function withNew<Row extends { readonly id: string }>(rows: readonly Row[], more: readonly Row[]): readonly Row[] {
  const known = new Set(rows.map(({ id }) => id));
  const added = more.filter(({ id }) => !known.has(id));
  return added.length > 0 ? [...rows, ...added] : rows;
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
