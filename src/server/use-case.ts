import type { z } from 'zod';
import type { Fault } from '@/formats/faults';
import { parseShape } from '@/formats/faults';
import type { Outcome } from '@/formats/outcome';
import { store, type Store } from './store';

/**
 * Runs one use case: the input is parsed at the border, and what the database refuses comes back
 * as a sentence, not as an exception.
 */
export async function runUseCase<In, T>(
  schema: z.ZodType<In, unknown>,
  input: unknown,
  work: (input: In, store: Store) => Promise<Outcome<T>>,
): Promise<Outcome<T>> {
  const parsed = parseShape(schema, input);
  if (!parsed.ok) return parsed;
  try {
    return await work(parsed.value, await store());
  } catch (error) {
    const fault = databaseFault(error);
    if (fault) return { ok: false, faults: [fault] };
    throw error;
  }
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
  if (code === '23505')
    return {
      path: constraint.includes('code') ? 'code' : 'row',
      message: `this stands here already ${detail}`.trim(),
    };
  if (code === '23503')
    return {
      path: 'row',
      message: detail.includes('still referenced')
        ? 'it is still used by readings, dimensions, braces or the log'
        : 'what it belongs to is not there any more',
    };
  if (code === '23514') return { path: constraint, message: 'the figures contradict each other' };
  if (code === '23001') return { path: 'row', message: 'what is recorded is not changed: write a correction' };
  return undefined;
}
