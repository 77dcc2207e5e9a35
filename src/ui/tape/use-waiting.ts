import { useCallback, useSyncExternalStore } from 'react';
import { waitingEntries } from './outbox';

const EVERY_MS = 150;

/** How many lines of a round this browser has not delivered yet. */
export function useWaiting(roundId: string): number {
  const subscribe = useCallback((changed: () => void) => {
    const timer = setInterval(changed, EVERY_MS);
    return () => clearInterval(timer);
  }, []);
  return useSyncExternalStore(
    subscribe,
    () => waitingEntries(roundId).length,
    () => 0,
  );
}
