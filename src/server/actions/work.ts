'use server';

import * as input from '@/formats/inputs/work';
import { insert } from '@/db/table';
import { done, failed } from '@/formats/outcome';
import { lastEvent, lastKind } from '@/db/events';
import { edit, overtaken } from '../edit';
import { useCase } from '../use-case';

/** Plans a brace between two points, with the dimensions it is there to hold. */
export const planBrace = useCase(input.newBrace, async (planned, { database, actor, now, newId }) => {
  const { item, brace, dimensionIds } = planned;
  if (item.id !== brace.id || item.kind !== 'brace') return failed('item', 'this is no brace');
  await database.transaction(async (tx) => {
    await insert(tx, 'workItems', [{ ...item, version: 1 }]);
    await insert(tx, 'braces', [{ ...brace, version: 1 }]);
    await insert(
      tx,
      'braceDimensions',
      dimensionIds.map((dimensionId) => ({ braceId: brace.id, dimensionId })),
    );
    await insert(tx, 'workEvents', [
      ...[
        {
          id: newId(),
          itemId: brace.id,
          kind: 'planned' as const,
          key: '',
          at: now,
          author: actor,
          reason: '',
          value: null,
        },
      ],
    ]);
  });
  return done(null);
});

/** Notes what happened to an item of work; said twice it happened once: a figure is what it comes to, not what was added. */
export const recordItemEvent = useCase(input.itemEvent, (event, { database, actor, now }) =>
  database.transaction(async (tx) => {
    const last = await lastEvent(tx, 'work', event.itemId, event.key);
    if (last?.kind === event.kind && (last.value ?? null) === event.value) return done(null);
    await insert(tx, 'workEvents', [{ ...event, at: now, author: actor }], { skipExisting: true });
    return done(null);
  }),
);

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

/** Notes what happened to a pull; said twice it happened once. */
export const recordPullEvent = useCase(input.pullEvent, (event, { database, actor, now }) =>
  database.transaction(async (tx) => {
    if ((await lastKind(tx, 'pull', event.pullId)) === event.kind) return done(null);
    await insert(tx, 'pullEvents', [{ ...event, at: now, author: actor }]);
    return done(null);
  }),
);

/** Writes what holds the shell against a pull, in place of what was said before. */
export const setPullHolds = useCase(input.pullHolds, async ({ pullId, holds }, { database }) => {
  if (holds.some((hold) => hold.pullId !== pullId)) return strange;
  await database.transaction(async (tx) => {
    await tx.query('delete from pull_hold where pull_id = $1', [pullId]);
    await insert(tx, 'pullHolds', holds);
  });
  return done(null);
});

/** Corrects a brace and what it is there to hold; how it was is kept. */
export const correctBrace = useCase(input.correctedBrace, ({ item, brace, dimensionIds }, context) =>
  context.database.transaction(async (tx) => {
    const result = await edit(tx, 'braces', brace, context);
    if (!result.ok) return overtaken(result.current);
    const called = await edit(tx, 'workItems', item, context);
    if (!called.ok) return overtaken(called.current);
    await tx.query('delete from brace_dimension where brace_id = $1', [brace.id]);
    await insert(
      tx,
      'braceDimensions',
      dimensionIds.map((dimensionId) => ({ braceId: brace.id, dimensionId })),
    );
    return done(null);
  }),
);

/** Corrects what was written of a pull; its readings stay what they were. */
export const correctPull = useCase(input.correctedPull, (pull, context) =>
  context.database.transaction(async (tx) => {
    const result = await edit(tx, 'pulls', pull, context);
    return result.ok ? done(null) : overtaken(result.current);
  }),
);

/** Takes back something that was written, or puts it back. Said twice it is done once. */
export const withdraw = useCase(input.withdrawal, (withdrawal, { database, actor, now }) =>
  database.transaction(async (tx) => {
    const [last] = await tx.query<{ kind: string }>(
      'select kind from withdrawal where row_id = $1 order by at desc limit 1',
      [withdrawal.rowId],
    );
    if ((last?.kind ?? 'restored') === withdrawal.kind) return done(null);
    await insert(tx, 'withdrawals', [{ ...withdrawal, at: now, author: actor }], { skipExisting: true });
    return done(null);
  }),
);
