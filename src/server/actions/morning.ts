'use server';

import { insert } from '@/db/table';
import { newMorning } from '@/formats/inputs/morning';
import { done } from '@/formats/outcome';
import { useCase } from '../use-case';

/** Keeps the readings of a morning. Sent twice they are kept once. */
export const writeMorning = useCase(newMorning, ({ check, readings }, { database, actor, now }) =>
  database.transaction(async (tx) => {
    await insert(tx, 'morningChecks', [{ ...check, at: now, author: actor }], { skipExisting: true });
    await insert(
      tx,
      'morningReadings',
      readings.map((reading) => ({ ...reading, morningCheckId: check.id })),
      { skipExisting: true },
    );
    return done(null);
  }),
);
