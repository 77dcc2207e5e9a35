import { useSyncExternalStore } from 'react';

/** How often it is looked whether the program answers, ms; more often while it does not, or cannot write. */
const EVERY = 20_000;
const EVERY_IN_TROUBLE = 4_000;

/** The program answers and writes; it answers but its disk is full, or wants to know who works here; it does not answer. */
export type ProgramState = 'well' | 'full' | 'locked' | 'away';

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
  const answer = await fetch('/api/alive', { cache: 'no-store' })
    .then(async (response) => (response.ok ? ((await response.json()) as { full?: boolean }) : undefined))
    .catch(() => undefined);
  say(answer ? (answer.full ? 'full' : state === 'locked' ? 'locked' : 'well') : 'away');
  if (listeners.size > 0) timer = setTimeout(lookAtProgram, state === 'well' ? EVERY : EVERY_IN_TROUBLE);
}

/** It took nothing because nobody has said who works here. */
export const askedWho = (): void => say('locked');

/** Somebody has said it, or it took something. */
export function heard(): void {
  if (state === 'locked') say('well');
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
