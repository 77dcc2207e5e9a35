import { useSyncExternalStore } from 'react';

/** How often it is looked whether the program answers, ms; more often while it does not, or cannot write. */
const EVERY = 20_000;
const EVERY_IN_TROUBLE = 4_000;

/**
 * The program answers and writes; it answers but its disk is full, or wants to know who works here; it does not answer; or it
 * has another time than this device.
 */
export type ProgramState = 'well' | 'full' | 'locked' | 'away' | 'clock';

/** What the program says of itself. */
interface Alive {
  readonly full?: boolean;
  readonly now?: string;
}

/** A clock that is so far off is told about, ms: two that are kept by the network differ by less. */
const OFF = 120_000;
/** An answer that took longer says nothing of the time, ms. */
const SLOW = 10_000;

/** How far this device's clock is ahead of the program's, ms; what is typed carries the program's time. */
let ahead = 0;
export const clockAhead = (): number => ahead;

/** The program's time, as well as it is known here. */
export const programTime = (): string => new Date(Date.now() - (Math.abs(ahead) > OFF ? ahead : 0)).toISOString();

let state: ProgramState = 'well';
let timer: ReturnType<typeof setTimeout> | undefined;
const listeners = new Set<() => void>();

function say(now: ProgramState): void {
  if (now === state) return;
  state = now;
  for (const listener of listeners) listener();
}

/** Looks now: something was refused that should not have been. */
export async function lookAtProgram(): Promise<void> {
  clearTimeout(timer);
  const asked = Date.now();
  const answer = await fetch('/api/alive', { cache: 'no-store' })
    .then(async (response) => (response.ok ? ((await response.json()) as Alive) : undefined))
    .catch(() => undefined);
  const heardAt = Date.now();
  if (answer?.now !== undefined && heardAt - asked < SLOW) ahead = (asked + heardAt) / 2 - Date.parse(answer.now);
  say(stateOf(answer));
  if (listeners.size > 0) timer = setTimeout(lookAtProgram, state === 'well' ? EVERY : EVERY_IN_TROUBLE);
}

function stateOf(answer: Alive | undefined): ProgramState {
  if (!answer) return 'away';
  if (answer.full) return 'full';
  if (state === 'locked') return 'locked';
  return Math.abs(ahead) > OFF ? 'clock' : 'well';
}

/** It took nothing because nobody has said who works here. */
export const askedWho = (): void => say('locked');

/** Somebody has said it, or it took something. */
export function heard(): void {
  if (state === 'locked') say(Math.abs(ahead) > OFF ? 'clock' : 'well');
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  if (listeners.size === 1) {
    window.addEventListener('online', lookAtProgram);
    window.addEventListener('offline', lookAtProgram);
    void lookAtProgram();
  }
  return () => {
    listeners.delete(listener);
    if (listeners.size > 0) return;
    window.removeEventListener('online', lookAtProgram);
    window.removeEventListener('offline', lookAtProgram);
    clearTimeout(timer);
  };
}

/** How the program is; well until it is known not to be. */
export const useProgramState = (): ProgramState =>
  useSyncExternalStore(
    subscribe,
    () => state,
    () => 'well',
  );

/** Whether the program answers. */
export const useReachable = (): boolean => useProgramState() !== 'away';
