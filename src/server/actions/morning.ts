'use server';

import { insert } from '@/db/table';
import { newMorning } from '@/formats/inputs/morning';
import { done } from '@/formats/outcome';
import { measuringCase } from '../use-case';

/** Keeps the readings of a morning. Sent twice they are kept once. */
export const writeMorning = measuringCase(newMorning, ({ check, readings }, { database, signature }) =>
  database.transaction(async (tx) => {
    await insert(tx, 'morningChecks', [{ ...check, ...signature }], { skipExisting: true });
    await insert(
      tx,
      'morningReadings',
      readings.map((reading) => ({ ...reading, morningCheckId: check.id })),
      { skipExisting: true },
    );
    return done(null);
  }),
);
