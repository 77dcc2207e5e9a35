'use server';

import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import * as entity from '@/core/shell/job/entities';
import { insert } from '@/db/table';
import { done, failed, type Outcome } from '@/formats/outcome';
import { runUseCase } from '../use-case';

const author = entity.braceEvent.shape.author;

const newBrace = z.strictObject({
  brace: entity.brace.omit({ version: true }),
  dimensionIds: z.array(z.uuid()),
  author,
});

/** Plans a brace between two points, with the dimensions it is there to hold. */
export async function planBrace(input: unknown): Promise<Outcome> {
  return runUseCase(newBrace, input, async ({ brace, dimensionIds, author: by }, { database }) => {
    await database.transaction(async (tx) => {
      await insert(tx, 'braces', [{ ...brace, version: 1 }]);
      await insert(
        tx,
        'braceDimensions',
        dimensionIds.map((dimensionId) => ({ braceId: brace.id, dimensionId })),
      );
      await insert(tx, 'braceEvents', [
        {
          id: randomUUID(),
          braceId: brace.id,
          kind: 'planned',
          at: new Date().toISOString(),
          author: by,
          note: '',
        },
      ]);
    });
    return done(null);
  });
}

export async function recordBraceEvent(input: unknown): Promise<Outcome> {
  return runUseCase(entity.braceEvent.omit({ at: true }), input, async (event, { database }) => {
    await insert(database, 'braceEvents', [{ ...event, at: new Date().toISOString() }]);
    return done(null);
  });
}

const newPull = z.strictObject({
  pull: entity.pull.omit({ version: true }),
  holds: z.array(entity.pullHold).max(40).default([]),
  author,
});

export async function planPull(input: unknown): Promise<Outcome> {
  return runUseCase(newPull, input, async ({ pull, holds, author: by }, { database }) => {
    if (holds.some(({ pullId }) => pullId !== pull.id))
      return failed('holds', 'a hold of another pull cannot be made here');
    await database.transaction(async (tx) => {
      await insert(tx, 'pulls', [{ ...pull, version: 1 }]);
      await insert(tx, 'pullHolds', holds);
      await insert(tx, 'pullEvents', [
        {
          id: randomUUID(),
          pullId: pull.id,
          kind: 'planned',
          at: new Date().toISOString(),
          author: by,
          note: '',
        },
      ]);
    });
    return done(null);
  });
}

export async function recordPullEvent(input: unknown): Promise<Outcome> {
  return runUseCase(entity.pullEvent.omit({ at: true }), input, async (event, { database }) => {
    await insert(database, 'pullEvents', [{ ...event, at: new Date().toISOString() }]);
    return done(null);
  });
}

const pullHolds = z.strictObject({ pullId: z.uuid(), holds: z.array(entity.pullHold).max(40) });

/** Writes what holds the shell against a pull, in place of what was said before. */
export async function setPullHolds(input: unknown): Promise<Outcome> {
  return runUseCase(pullHolds, input, async ({ pullId, holds }, { database }) => {
    if (holds.some((hold) => hold.pullId !== pullId))
      return failed('holds', 'a hold of another pull cannot be made here');
    await database.transaction(async (tx) => {
      await tx.query('delete from pull_hold where pull_id = $1', [pullId]);
      await insert(tx, 'pullHolds', holds);
    });
    return done(null);
  });
}
