import { useCallback, useSyncExternalStore } from 'react';
import { takenEntries, waitingEntries } from './outbox';

const EVERY_MS = 150;

/** How many lines of a round this browser has not delivered yet. */
export const useWaiting = (roundId: string): number => useCounted(() => waitingEntries(roundId).length);

/** Whether something was typed into a round in this browser that the page does not show as the server's yet. */
export const useTyped = (roundId: string): boolean =>
  useCounted(() => waitingEntries(roundId).length + takenEntries(roundId).length) > 0;

function useCounted(count: () => number): number {
  const subscribe = useCallback((changed: () => void) => {
    const timer = setInterval(changed, EVERY_MS);
    return () => clearInterval(timer);
  }, []);
  return useSyncExternalStore(subscribe, count, () => 0);
}
