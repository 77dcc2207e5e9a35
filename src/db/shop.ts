import type { Instrument, InstrumentVersion } from '@/core/shell/job/entities';
import type { Queryable } from './database';
import { columns } from './table';

/** The shop's instruments and all their versions, oldest first. */
export const shopRows = async (db: Queryable) => ({
  instruments: await db.query<Instrument>(`select ${columns('instruments')} from instrument order by name`),
  instrumentVersions: await db.query<InstrumentVersion>(
    `select ${columns('instrumentVersions')} from instrument_version order by number`,
  ),
});
