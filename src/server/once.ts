import { setTimeout as later } from 'node:timers/promises';
import { putLast } from '@/core/maths/once';
import { claim, outcomeOf, release, settle } from '@/db/asked-once';
import type { Queryable } from '@/db/database';
import { failed, type Outcome } from '@/formats/outcome';

/** Requests of this process and what came of them, shared by all bundles of the server. */
const shared = globalThis as typeof globalThis & { vinkelRequests?: Map<string, Promise<Outcome<unknown>>> };
const REMEMBERED = 500;
/** How often, and for how long, it is looked what another process made of a request, ms. */
const LOOK_EVERY = 50;
const LOOK_FOR = 20_000;

/**
 * A form that is sent twice, by two presses or by two windows, is done once: the second is told what the first was. One
 * that was refused may be sent again.
 *
 * @param together the database, where other processes are at it too: the two may not come to the same one
 */
export async function once<T>(
  request: string | undefined,
  together: () => Promise<Queryable | undefined>,
  work: () => Promise<Outcome<T>>,
): Promise<Outcome<T>> {
  if (typeof request !== 'string') return work();
  const known = (shared.vinkelRequests ??= new Map());
  const before = known.get(request);
  if (before) return before as Promise<Outcome<T>>;
  const outcome = acrossProcesses(request, together, work);
  putLast(known, request, outcome, REMEMBERED);
  outcome.then(
    ({ ok }) => ok || known.delete(request),
    () => known.delete(request),
  );
  return outcome;
}

async function acrossProcesses<T>(
  request: string,
  together: () => Promise<Queryable | undefined>,
  work: () => Promise<Outcome<T>>,
): Promise<Outcome<T>> {
  const database = await together();
  if (!database) return work();
  for (let waited = 0; !(await claim(database, request)); waited += LOOK_EVERY) {
    const outcome = await outcomeOf(database, request);
    if (outcome !== undefined) return outcome as Outcome<T>;
    if (waited > LOOK_FOR) return failed('request', 'it is still being done: look again in a moment');
    await later(LOOK_EVERY);
  }
  try {
    const outcome = await work();
    await (outcome.ok ? settle(database, request, outcome) : release(database, request));
    return outcome;
  } catch (error) {
    await release(database, request).catch(() => undefined);
    throw error;
  }
}
