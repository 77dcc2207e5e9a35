'use server';

import * as input from '@/formats/inputs/work';
import { insert } from '@/db/table';
import { done, failed } from '@/formats/outcome';
import { useCase } from '../use-case';

/** Plans a brace between two points, with the dimensions it is there to hold. */
export const planBrace = useCase(input.newBrace, async ({ brace, dimensionIds }, { database, actor, now, newId }) => {
  await database.transaction(async (tx) => {
    await insert(tx, 'braces', [{ ...brace, version: 1 }]);
    await insert(
      tx,
      'braceDimensions',
      dimensionIds.map((dimensionId) => ({ braceId: brace.id, dimensionId })),
    );
    await insert(tx, 'braceEvents', [
      { id: newId(), braceId: brace.id, kind: 'planned', at: now, author: actor, note: '' },
    ]);
  });
  return done(null);
});

export const recordBraceEvent = useCase(input.braceEvent, async (event, { database, actor, now }) => {
  await insert(database, 'braceEvents', [{ ...event, at: now, author: actor }]);
  return done(null);
});

const strange = failed('holds', 'a hold of another pull cannot be made here');

export const planPull = useCase(input.newPull, async ({ pull, holds }, { database, actor, now, newId }) => {
  if (holds.some(({ pullId }) => pullId !== pull.id)) return strange;
  await database.transaction(async (tx) => {
    await insert(tx, 'pulls', [{ ...pull, version: 1 }]);
    await insert(tx, 'pullHolds', holds);
    await insert(tx, 'pullEvents', [
      { id: newId(), pullId: pull.id, kind: 'planned', at: now, author: actor, note: '' },
    ]);
  });
  return done(null);
});

export const recordPullEvent = useCase(input.pullEvent, async (event, { database, actor, now }) => {
  await insert(database, 'pullEvents', [{ ...event, at: now, author: actor }]);
  return done(null);
});

/** Writes what holds the shell against a pull, in place of what was said before. */
export const setPullHolds = useCase(input.pullHolds, async ({ pullId, holds }, { database }) => {
  if (holds.some((hold) => hold.pullId !== pullId)) return strange;
  await database.transaction(async (tx) => {
    await tx.query('delete from pull_hold where pull_id = $1', [pullId]);
    await insert(tx, 'pullHolds', holds);
  });
  return done(null);
});
