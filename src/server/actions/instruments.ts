'use server';

import * as input from '@/formats/inputs/jobs';
import { insert } from '@/db/table';
import { done } from '@/formats/outcome';
import { useCase } from '../use-case';

/** Writes a new version of an instrument: readings keep the figures they were taken with. */
export const reviseInstrument = useCase(input.instrumentVersion, async (version, { database, now }) => {
  await database.transaction(async (tx) => {
    const [last] = await tx.query<{ next: number }>(
      'select coalesce(max(number), 0) + 1 as next from instrument_version where instrument_id = $1',
      [version.instrumentId],
    );
    await insert(tx, 'instrumentVersions', [{ ...version, number: last!.next, validFrom: now }]);
  });
  return done(null);
});

export const addInstrument = useCase(input.newInstrument, async ({ instrument, version }, { database, now }) => {
  await database.transaction(async (tx) => {
    await insert(tx, 'instruments', [instrument]);
    await insert(tx, 'instrumentVersions', [{ ...version, number: 1, validFrom: now }]);
  });
  return done(null);
});
