'use server';

import type { Withdrawal } from '@/core/shell/job/entities';
import type { Queryable } from '@/db/database';
import * as input from '@/formats/inputs/work';
import { insert } from '@/db/table';
import { done, failed } from '@/formats/outcome';
import { isSaidBeside, lastEvent } from '@/db/events';
import { edit, overtaken } from '../edit';
import { measuringCase, useCase, type Signature } from '../use-case';

const plannedNow = (itemId: string, id: string, signature: Signature) => ({
  ...{ id, itemId, ...signature },
  ...{ kind: 'planned' as const, key: '', reason: '', value: null },
});

/** Plans a brace between two points, with the dimensions it is there to hold. */
export const planBrace = useCase(input.newBrace, async (planned, { database, signature, newId }) => {
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
    await insert(tx, 'workEvents', [plannedNow(brace.id, newId(), signature)]);
  });
  return done(null);
});

/** Notes what happened to an item of work; said twice it happened once: a figure is what it comes to, not what was added. */
export const recordItemEvent = measuringCase(input.itemEvent, (event, { database, signature }) =>
  database.transaction(async (tx) => {
    const last = await lastEvent(tx, 'work', event.itemId, event.key);
    if (last?.kind === event.kind && (last.value ?? null) === event.value) return done(null);
    await insert(tx, 'workEvents', [{ ...event, ...signature }], { skipExisting: true });
    return done(null);
  }),
);

const strange = failed('holds', 'a hold of something else cannot be made here');
const ofAnother = failed('plates', 'a plate of another pull cannot be made here');
const onItself = failed('plates', 'the pull’s own point takes what the plates leave: name it once');

/** Plans a pull, with what holds the shell against it and the further plates its bar goes through. */
export const planPull = useCase(input.newPull, async (planned, { database, signature, newId }) => {
  const { item, pull, holds, plates } = planned;
  if (item.id !== pull.id || item.kind !== 'pull') return failed('item', 'this is no pull');
  if (holds.some(({ itemId }) => itemId !== pull.id)) return strange;
  if (plates.some(({ itemId }) => itemId !== pull.id)) return ofAnother;
  if (plates.some(({ pointId }) => pointId === pull.pointId)) return onItself;
  await database.transaction(async (tx) => {
    await insert(tx, 'workItems', [{ ...item, version: 1 }]);
    await insert(tx, 'pulls', [{ ...pull, version: 1 }]);
    await insert(tx, 'holds', holds);
    await insert(tx, 'plates', plates);
    await insert(tx, 'workEvents', [plannedNow(pull.id, newId(), signature)]);
  });
  return done(null);
});

/** Keeps the mark a stroke goes to; the same mark shown twice is one. */
export const setStroke = measuringCase(input.newStroke, async (stroke, { database, signature }) => {
  await insert(database, 'strokes', [{ ...stroke, ...signature }], { skipExisting: true });
  return done(null);
});

/** Writes what holds the shell against something that is done to it, in place of what was said before. */
export const setHolds = useCase(input.itemHolds, async ({ itemId, holds }, { database }) => {
  if (holds.some((hold) => hold.itemId !== itemId)) return strange;
  await database.transaction(async (tx) => {
    await tx.query('delete from hold where item_id = $1', [itemId]);
    await insert(tx, 'holds', holds);
  });
  return done(null);
});

/** Writes the further plates a pull's bar goes through, in place of what was said before. */
export const setPlates = useCase(input.itemPlates, async ({ itemId, plates }, { database }) => {
  if (plates.some((plate) => plate.itemId !== itemId)) return ofAnother;
  return database.transaction(async (tx) => {
    const [pull] = await tx.query<{ pointId: string }>('select point_id from pull where id = $1', [itemId]);
    if (plates.some(({ pointId }) => pointId === pull?.pointId)) return onItself;
    await tx.query('delete from plate where item_id = $1', [itemId]);
    await insert(tx, 'plates', plates);
    return done(null);
  });
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
export const correctPull = useCase(input.correctedPull, ({ item, pull }, context) =>
  context.database.transaction(async (tx) => {
    const result = await edit(tx, 'pulls', pull, context);
    if (!result.ok) return overtaken(result.current);
    const called = await edit(tx, 'workItems', item, context);
    return called.ok ? done(null) : overtaken(called.current);
  }),
);

/** Whether what happened to an item or a step, and was taken back, was said to have happened again since. */
const isSaidAgain = async (tx: Queryable, { tableName, rowId }: Pick<Withdrawal, 'tableName' | 'rowId'>) =>
  (tableName === 'work_event' && (await isSaidBeside(tx, 'work', rowId))) ||
  (tableName === 'step_event' && (await isSaidBeside(tx, 'step', rowId)));

/** Takes back something that was written, or puts it back. Said twice it is done once. */
export const withdraw = useCase(input.withdrawal, (withdrawal, { database, signature }) =>
  database.transaction(async (tx) => {
    const [last] = await tx.query<{ kind: string }>(
      'select kind from withdrawal where row_id = $1 order by at desc limit 1',
      [withdrawal.rowId],
    );
    if ((last?.kind ?? 'restored') === withdrawal.kind) return done(null);
    if (withdrawal.kind === 'restored' && (await isSaidAgain(tx, withdrawal)))
      return failed('row', 'it was said again since it was taken back: there is nothing to put back');
    await insert(tx, 'withdrawals', [{ ...withdrawal, ...signature }], { skipExisting: true });
    return done(null);
  }),
);
