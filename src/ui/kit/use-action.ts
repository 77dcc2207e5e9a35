'use client';

import { useRouter } from 'next/navigation';
import { useCallback, useState, useTransition } from 'react';
import type { Fault } from '@/formats/faults';
import { failed, NO_PERSON, type Outcome } from '@/formats/outcome';
import { LOCKED, SIGNED_OUT } from '@/formats/people';
import { markWorking } from './ready';
import { WINDOW } from '../live/window';
import { useAskPerson } from '../shell/ask-person';

/** A server action as a component gets it. */
export type Action<In = unknown, T = unknown> = (input: In, request?: string, window?: string) => Promise<Outcome<T>>;

const UNREACHED = failed('server', 'it cannot be reached; what you typed is still here');
const UNSAID = failed(NO_PERSON, 'say first who works here: what you typed is still here');

/** Whether the program did not take it because nobody has said who works here; it answers with that one word. */
const asksWho = (error: unknown): boolean => error instanceof Error && [LOCKED, SIGNED_OUT].includes(error.message);

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
            return action(input, request, WINDOW)
              .catch((error: unknown): Outcome<T> => (asksWho(error) ? UNSAID : UNREACHED))
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
