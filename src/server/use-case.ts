import { randomUUID } from 'node:crypto';
import type { z } from 'zod';
import type { Fault } from '@/formats/faults';
import { parseShape } from '@/formats/faults';
import { failed, NO_PERSON, type Outcome } from '@/formats/outcome';
import type { Need } from '@/core/shell/people';
import { actorHere, personWriting, whyNot, type Actor } from './people/actor';
import { isUnkeepable } from '@/db/journal/journalled';
import { obstacleOf, orObstacle } from './answered';
import { live } from './live';
import { once } from './once';
import { store, type Store } from './store';

/** What a use case works with besides its input: the store, who asks, when, and identities for new rows. */
export interface Context extends Store {
  /** Who works in the browser that asks; where nobody has said so, asking for it refuses the use case. */
  readonly actor: Actor;
  /** How what is written now is signed; asking for it is asking for the actor. */
  readonly signature: Signature;
  /** Whom of the shop's people a name means that was written with what waited on a device; undefined where nobody is known there by it. */
  readonly writer: (name: string) => Promise<Actor | undefined>;
  /** ISO 8601, UTC. */
  readonly now: string;
  readonly newId: () => string;
}

/** What a row carries of who wrote it and when. */
export interface Signature {
  readonly at: string;
  readonly author: string;
  readonly personId: string;
}

/** Something was to be signed by somebody who has no name here. */
class Nameless extends Error {}

/**
 * A use case as the interface calls it: the input is typed by its schema and parsed at the border, and what the database
 * refuses comes back as a sentence, not as an exception.
 *
 * @param need what whoever asks must be allowed to do, where people prove who they are
 */
const caseFor =
  (need: Need) =>
  <Schema extends z.ZodType, T = null>(
    schema: Schema,
    work: (input: z.output<Schema>, context: Context) => Promise<Outcome<T>>,
  ): ((input: z.input<Schema>, request?: string, window?: string) => Promise<Outcome<T>>) =>
  async (input, request, window) =>
    // The window that asks fetches its page itself when it is done.
    live().from({ window: String(window ?? ''), tape: false }, () =>
      once(request, together, () => runUseCase(need, schema, input, work)).catch(orObstacle),
    );

/** One for those who plan. */
export const useCase = caseFor('plan');
/** One for those who measure and tick. */
export const measuringCase = caseFor('measure');
/** One for those who sign. */
export const signingCase = caseFor('sign');
/** One for everybody, on what is their own. */
export const ownCase = caseFor('known');
/** One for the owners of the shop. */
export const ownersCase = caseFor('owner');

/** The database, where other processes are at it too. */
const together = async () => {
  const { database, server } = await store();
  return server === undefined ? undefined : database;
};

/** The same for input of any kind, as it comes over a route. */
export async function runUseCase<Schema extends z.ZodType, T>(
  need: Need,
  schema: Schema,
  input: unknown,
  work: (input: z.output<Schema>, context: Context) => Promise<Outcome<T>>,
): Promise<Outcome<T>> {
  const parsed = parseShape(schema as z.ZodType<z.output<Schema>, unknown>, input);
  if (!parsed.ok) return parsed;
  try {
    const opened = await store();
    const who = await actorHere(opened.database);
    const refused = whyNot(who, need);
    if (refused) return failed('role', refused);
    const now = new Date().toISOString();
    const actor = (): Actor => {
      if (!('personId' in who)) throw new Nameless();
      return who;
    };
    const context: Context = {
      ...opened,
      get actor() {
        return actor();
      },
      get signature() {
        const { name, personId } = actor();
        return { at: now, author: name, personId };
      },
      writer: (name) => personWriting(opened.database, who, name),
      now,
      newId: randomUUID,
    };
    return await work(parsed.value, context);
  } catch (error) {
    if (error instanceof Nameless)
      return {
        ok: false,
        faults: [{ path: NO_PERSON, message: 'say first who is working: it is signed with that name' }],
      };
    const obstacle = obstacleOf(error);
    if (obstacle) return obstacle;
    if (isUnkeepable(error)) return { ok: false, faults: [{ path: error.field, message: error.message }] };
    const fault = databaseFault(error);
    if (fault) return { ok: false, faults: [fault] };
    throw error;
  }
}

/** The same for what comes as a stream: done where whoever asks may do it. */
export async function permitted<T>(need: Need, work: () => Promise<Outcome<T>>): Promise<Outcome<T>> {
  const refused = whyNot(await actorHere((await store()).database), need);
  return refused ? failed('role', refused) : work();
}

/** PostgreSQL's error codes that a user can cause, in words. */
function databaseFault(error: unknown): Fault | undefined {
  const {
    code,
    constraint = '',
    detail = '',
  } = (error ?? {}) as {
    code?: string;
    constraint?: string;
    detail?: string;
  };
  if (code === '23505') {
    // PostgreSQL tells it as `Key (job_id, code, shop_id)=(…, X9, …) already exists.`
    const value = /=\((?:[^,)]*, )*([^,)]*), [^,)]*\)/.exec(detail)?.[1];
    return constraint.includes('code')
      ? { path: 'code', message: `${value ? `“${value}”` : 'this code'} stands here already: take another code` }
      : { path: 'row', message: 'this stands here already' };
  }
  if (code === '23503')
    return {
      path: 'row',
      message: detail.includes('still referenced')
        ? 'it is still used by readings, dimensions, braces or the log'
        : 'what it belongs to is not there any more, or is another job’s',
    };
  if (code?.startsWith('22')) return { path: 'row', message: 'it holds a sign or a figure that cannot be kept' };
  if (code === '23514') return { path: constraint, message: 'the figures contradict each other' };
  if (code === '23001') return { path: 'row', message: 'what is recorded is not changed: write a correction' };
  return undefined;
}
