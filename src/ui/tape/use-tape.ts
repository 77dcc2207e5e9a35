'use client';

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { Reading, ReadingStrike } from '@/core/job/entities';
import type { JobRows } from '@/core/job/job-rows';
import {
  entryKey,
  forgetEntry,
  keepEntry,
  sendEntry,
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

/**
 * The tape of a round: what the server has, and on top of it what this browser has typed. Lines the
 * server has not acknowledged are kept and sent again until it does, also after a reload.
 */
export function useTape(rows: JobRows, roundId: string) {
  const [locals, setLocals] = useState<readonly Local[]>(() =>
    waitingEntries(roundId).map((entry): Local => ({
      entry,
      at: entry.readings[0]?.takenAt ?? new Date().toISOString(),
      state: 'waiting',
    })),
  );
  const flushing = useRef(false);

  /** Sends what waits, in the order typed: a correction never arrives before the line it corrects. */
  const flush = useCallback(async () => {
    if (flushing.current) return;
    flushing.current = true;
    for (let entry = waitingEntries(roundId)[0]; entry; entry = waitingEntries(roundId)[0]) {
      const key = entryKey(entry);
      const { result, message } = await sendEntry(entry);
      if (result === 'unreachable') break;
      forgetEntry(entry);
      setLocals((all) =>
        all.map((each) =>
          entryKey(each.entry) === key ? { ...each, state: result, message } : each,
        ),
      );
    }
    flushing.current = false;
  }, [roundId]);

  const put = useCallback(
    (entry: TapeEntry) => {
      keepEntry(entry);
      setLocals((all) => [...all, { entry, at: new Date().toISOString(), state: 'waiting' }]);
      void flush();
    },
    [flush],
  );

  useEffect(() => {
    void flush();
    const timer = setInterval(() => void flush(), RETRY_MS);
    return () => clearInterval(timer);
  }, [roundId, flush]);

  const merged = useMemo(() => mergeLocal(rows, roundId, locals), [rows, roundId, locals]);
  const lines = useMemo(() => linesOf(merged, roundId, locals), [merged, roundId, locals]);
  return { rows: merged, lines, put };
}

/** The job's rows with what was typed here and not refused. */
function mergeLocal(rows: JobRows, roundId: string, locals: readonly Local[]): JobRows {
  const known = new Set(rows.readings.map((reading) => reading.id));
  const struck = new Set(rows.readingStrikes.map((strike) => strike.readingId));
  const readings = [...rows.readings];
  const strikes = [...rows.readingStrikes];
  let sequence = Math.max(0, ...rows.readings.map((reading) => reading.sequence));
  for (const { entry, at, state } of locals) {
    if (state === 'refused') continue;
    sequence++;
    for (const reading of entry.readings)
      if (!known.has(reading.id)) readings.push({ ...reading, roundId, sequence, receivedAt: at });
    for (const reading of entry.strike ? readings : [])
      if (reading.lineId === entry.strike!.lineId && !struck.has(reading.id)) {
        struck.add(reading.id);
        strikes.push({
          id: crypto.randomUUID(), readingId: reading.id, struckAt: at, author: entry.strike!.author,
          reason: entry.strike!.reason, replacedByLineId: entry.readings[0]?.lineId ?? null,
        }); // prettier-ignore
      }
  }
  return { ...rows, readings, readingStrikes: strikes };
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
            lineId: entry.readings[0].lineId, state, message,
            readings: entry.readings.map((reading) => ({ ...reading, roundId, sequence: 1e9, receivedAt: at })),
          },
        ]
      : [],
  ); // prettier-ignore
  return [...lines, ...refused].sort((a, b) => a.readings[0]!.sequence - b.readings[0]!.sequence);
}
