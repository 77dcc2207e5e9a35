import type { Reading } from '@/core/job/entities';

/** One line of the tape on its way to the server. */
export interface TapeEntry {
  readonly roundId: string;
  readonly readings: readonly Omit<Reading, 'sequence' | 'receivedAt' | 'roundId'>[];
  readonly strike: {
    readonly lineId: string;
    readonly reason: string;
    readonly author: string;
  } | null;
}

/**
 * Lines not acknowledged yet, and what is half typed, kept by the browser so that a reload or a
 * closed tab loses neither. Sending a line twice is harmless: its readings keep their identities.
 */
const outboxKey = (roundId: string) => `vinkel.outbox.${roundId}`;
const draftKey = (roundId: string) => `vinkel.draft.${roundId}`;

function read<T>(key: string, otherwise: T): T {
  try {
    return JSON.parse(localStorage.getItem(key) ?? 'null') ?? otherwise;
  } catch {
    return otherwise;
  }
}

export const waitingEntries = (roundId: string): TapeEntry[] => read(outboxKey(roundId), []);

export function keepEntry(entry: TapeEntry): void {
  localStorage.setItem(
    outboxKey(entry.roundId),
    JSON.stringify([...waitingEntries(entry.roundId), entry]),
  );
}

export function forgetEntry(entry: TapeEntry): void {
  const left = waitingEntries(entry.roundId).filter((each) => entryKey(each) !== entryKey(entry));
  localStorage.setItem(outboxKey(entry.roundId), JSON.stringify(left));
}

export const entryKey = (entry: TapeEntry): string =>
  `${entry.readings[0]?.lineId ?? ''}|${entry.strike?.lineId ?? ''}`;

export const halfTyped = (roundId: string): string => read(draftKey(roundId), '');
export const keepHalfTyped = (roundId: string, text: string): void =>
  text === ''
    ? localStorage.removeItem(draftKey(roundId))
    : localStorage.setItem(draftKey(roundId), JSON.stringify(text));

export type SendResult = 'taken' | 'refused' | 'unreachable';

/** Sends one entry; a refusal comes with the server's words. */
export async function sendEntry(
  entry: TapeEntry,
): Promise<{ result: SendResult; message?: string }> {
  try {
    const response = await fetch('/api/readings', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(entry),
    });
    if (response.ok) return { result: 'taken' };
    if (response.status >= 500) return { result: 'unreachable' };
    const { faults } = (await response.json()) as { faults?: { message: string }[] };
    return { result: 'refused', message: faults?.map((fault) => fault.message).join('; ') };
  } catch {
    return { result: 'unreachable' };
  }
}
