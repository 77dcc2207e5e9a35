'use client';

import { useRouter } from 'next/navigation';
import { useCallback, useState, useTransition } from 'react';
import type { Fault } from '@/formats/faults';
import { NO_PERSON, type Outcome } from '@/formats/outcome';
import { markWorking } from './ready';
import { useAskPerson } from '../shell/ask-person';

/** A server action as a component gets it. */
export type Action<In = unknown, T = unknown> = (input: In, request?: string) => Promise<Outcome<T>>;

/**
 * Runs an action, keeps its faults for the form to show, and refreshes the page when it succeeds.
 * A server that cannot be reached is a fault like any other: what was typed stays. What has to be signed asks once who
 * is working, and goes on.
 */
export function useAction<In, T>(action: Action<In, T>) {
  const router = useRouter();
  const [faults, setFaults] = useState<readonly Fault[]>([]);
  const [pending, start] = useTransition();
  const askPerson = useAskPerson();
  const run = useCallback(
    (input: In, request?: string): Promise<Outcome<T>> =>
      new Promise((resolve) =>
        start(async () => {
          const attempt = () => {
            const answered = markWorking();
            return action(input, request)
              .catch((): Outcome<T> => ({
                ok: false,
                faults: [{ path: 'server', message: 'it cannot be reached; what you typed is still here' }],
              }))
              .finally(answered);
          };
          let outcome = await attempt();
          const nameless = !outcome.ok && outcome.faults.some(({ path }) => path === NO_PERSON);
          if (nameless && (await askPerson())) outcome = await attempt();
          setFaults(outcome.ok ? [] : outcome.faults);
          if (outcome.ok) router.refresh();
          resolve(outcome);
        }),
      ),
    [action, router, askPerson],
  );
  return { run, faults, pending, clear: () => setFaults([]) };
}
