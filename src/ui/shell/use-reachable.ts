import { useSyncExternalStore } from 'react';

/** How often it is looked whether the program answers, ms; more often while it does not. */
const EVERY = 20_000;
const EVERY_WHILE_AWAY = 4_000;

let reachable = true;
let timer: ReturnType<typeof setTimeout> | undefined;
const listeners = new Set<() => void>();

function say(now: boolean): void {
  if (now === reachable) return;
  reachable = now;
  for (const listener of listeners) listener();
}

async function look(): Promise<void> {
  clearTimeout(timer);
  const answer = await fetch('/api/alive', { cache: 'no-store' }).catch(() => undefined);
  say(answer?.ok ?? false);
  if (listeners.size > 0) timer = setTimeout(look, reachable ? EVERY : EVERY_WHILE_AWAY);
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  if (listeners.size === 1) {
    window.addEventListener('online', look);
    window.addEventListener('offline', look);
    void look();
  }
  return () => {
    listeners.delete(listener);
    if (listeners.size > 0) return;
    window.removeEventListener('online', look);
    window.removeEventListener('offline', look);
    clearTimeout(timer);
  };
}

/** Whether the program answers; true until it is known not to. */
export const useReachable = (): boolean =>
  useSyncExternalStore(
    subscribe,
    () => reachable,
    () => true,
  );
