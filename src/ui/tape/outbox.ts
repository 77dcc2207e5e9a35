import type { Point, PointCondition, Reading, ReadingKeep } from '@/core/shell/job/entities';
import { WINDOW_HEADER } from '@/formats/live';
import { WINDOW } from '../live/window';
import { keptList } from './kept-list';
import { askedWho, heard, lookAtProgram } from '../shell/use-reachable';

/** One line of the tape on its way to the server. */
export interface TapeEntry {
  readonly roundId: string;
  readonly readings: readonly Omit<Reading, 'sequence' | 'receivedAt' | 'roundId' | 'personId'>[];
  readonly strike: {
    readonly lineId: string;
    readonly reason: string;
    readonly author: string;
  } | null;
  /** Substitute points made on the spot. */
  readonly points?: readonly Point[];
  /** What stands in the way of a point. */
  readonly conditions?: readonly Omit<PointCondition, 'personId'>[];
  /** Doubtful readings somebody decided to keep. */
  readonly keeps?: readonly Omit<ReadingKeep, 'personId'>[];
}

/**
 * Lines not acknowledged yet, and what is half typed, kept by the browser so that a reload or a
 * closed tab loses neither. Sending a line twice is harmless: its readings keep their identities.
 */
const outbox = (roundId: string) => keptList<TapeEntry>(`vinkel.outbox.${roundId}`, entryKey);
const draftKey = (roundId: string) => `vinkel.draft.${roundId}`;

export const waitingEntries = (roundId: string): TapeEntry[] => outbox(roundId).all();
export const keepEntry = (entry: TapeEntry): void => outbox(entry.roundId).add(entry);
export const forgetEntry = (entry: TapeEntry): void => outbox(entry.roundId).remove(entry);

export const entryKey = (entry: TapeEntry): string =>
  [
    entry.readings[0]?.lineId,
    entry.strike?.lineId,
    entry.points?.[0]?.id,
    entry.conditions?.[0]?.id,
    entry.keeps?.[0]?.id,
  ].join('|');

/** How many acknowledged lines a browser remembers of a round. */
const MOST_TAKEN = 500;
const taken = (roundId: string) => keptList<TapeEntry>(`vinkel.taken.${roundId}`, entryKey);

/**
 * Lines the server has acknowledged but that a page kept from an earlier visit does not show yet: a page
 * reloaded without the server still has them on its tape.
 */
export const takenEntries = (roundId: string): TapeEntry[] => taken(roundId).all();

export function keepTaken(entry: TapeEntry): void {
  taken(entry.roundId).add(entry);
  for (const oldest of takenEntries(entry.roundId).slice(0, -MOST_TAKEN)) taken(entry.roundId).remove(oldest);
}

/** Forgets the acknowledged lines a page has got from the server itself. */
export function forgetTaken(roundId: string, known: (entry: TapeEntry) => boolean): void {
  for (const entry of takenEntries(roundId).filter(known)) taken(roundId).remove(entry);
}

export const halfTyped = (roundId: string): string =>
  JSON.parse(localStorage.getItem(draftKey(roundId)) ?? '""') as string;
export const keepHalfTyped = (roundId: string, text: string): void =>
  text === ''
    ? localStorage.removeItem(draftKey(roundId))
    : localStorage.setItem(draftKey(roundId), JSON.stringify(text));

export type SendResult = 'taken' | 'refused' | 'unreachable';

/** Answers that say nothing of the entry itself: it is sent again later. */
const LATER = new Set([408, 429, 502, 503, 504, 507]);
/** Nobody has said who works here, or not for long: it is taken as soon as somebody does. */
const ASKS_WHO = new Set([401, 423]);

/**
 * Sends one entry. A refusal comes with the server's words; what the program failed on is refused as well, so that one
 * bad line never holds up those behind it.
 */
export async function sendEntry(entry: TapeEntry): Promise<{ result: SendResult; message?: string }> {
  try {
    const response = await fetch('/api/readings', {
      method: 'POST',
      headers: { 'content-type': 'application/json', [WINDOW_HEADER]: WINDOW },
      body: JSON.stringify(entry),
    });
    if (response.ok) {
      heard();
      return { result: 'taken' };
    }
    if (ASKS_WHO.has(response.status)) {
      askedWho();
      return { result: 'unreachable' };
    }
    if (LATER.has(response.status)) {
      void lookAtProgram();
      return { result: 'unreachable' };
    }
    const { faults } = (await response.json().catch(() => ({}))) as { faults?: { message: string }[] };
    return { result: 'refused', message: faults?.map((fault) => fault.message).join('; ') ?? FAILED_ON_IT };
  } catch {
    return { result: 'unreachable' };
  }
}

const FAILED_ON_IT = 'the program failed on this line and did not take it: type it another way';
