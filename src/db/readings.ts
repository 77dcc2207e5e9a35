import type { Reading, ReadingStrike } from '@/core/shell/job/entities';
import type { JobRows, JobTable, RowOf } from '@/core/shell/job/job-rows';
import type { Queryable } from './database';
import { columns, insert, nameOf } from './table';

const byIds = <T extends JobTable>(tx: Queryable, table: T, ids: readonly (string | null)[]): Promise<RowOf<T>[]> =>
  tx.query(`select ${columns(table)} from ${nameOf(table)} where id = any($1::uuid[])`, [
    [...new Set(ids.filter((id) => id !== null))],
  ]);

/** The rows a line of readings hangs on, as the journal wants them. */
export async function contextOfReadings(
  tx: Queryable,
  roundId: string,
  readings: readonly Reading[],
): Promise<Partial<JobRows> | undefined> {
  const [round] = await byIds(tx, 'rounds', [roundId]);
  if (!round) return undefined;
  const pulls = await byIds(
    tx,
    'pulls',
    readings.map((reading) => reading.pullId),
  );
  const seamStations = await byIds(
    tx,
    'seamStations',
    readings.map((reading) => reading.stationId),
  );
  const instrumentVersions = await byIds(tx, 'instrumentVersions', [
    round.instrumentVersionId,
    ...readings.map((reading) => reading.instrumentVersionId),
  ]);
  return {
    jobs: await byIds(tx, 'jobs', [round.jobId]),
    instruments: await byIds(
      tx,
      'instruments',
      instrumentVersions.map((each) => each.instrumentId),
    ),
    instrumentVersions,
    points: await byIds(tx, 'points', [
      ...readings.flatMap((reading) => [reading.pointId, reading.toPointId]),
      ...pulls.map((pull) => pull.pointId),
    ]),
    seams: await byIds(
      tx,
      'seams',
      seamStations.map((station) => station.seamId),
    ),
    seamStations,
    shellStates: await byIds(tx, 'shellStates', [round.stateId]),
    supports: await byIds(tx, 'supports', [round.supportId]),
    rounds: [
      round,
      ...(await byIds(
        tx,
        'rounds',
        pulls.map((pull) => pull.roundId),
      )),
    ],
    pulls,
  };
}

export const readingsById = (tx: Queryable, ids: readonly string[]): Promise<Reading[]> => byIds(tx, 'readings', ids);

export async function nextSequence(tx: Queryable, roundId: string): Promise<number> {
  const [row] = await tx.query<{ next: number }>(
    'select coalesce(max(sequence), 0) + 1 as next from reading where round_id = $1',
    [roundId],
  );
  return row!.next;
}

/** Which of these readings are in the database already. */
export async function presentReadings(tx: Queryable, ids: readonly string[]): Promise<Set<string>> {
  const rows = await tx.query<{ id: string }>('select id from reading where id = any($1::uuid[])', [ids]);
  return new Set(rows.map((row) => row.id));
}

/** Readings of these lines that have not been struck yet. */
export const standingReadings = (tx: Queryable, lineIds: readonly string[]): Promise<Reading[]> =>
  tx.query(
    `select ${columns('readings')}
     from reading
     left join reading_strike on reading_strike.reading_id = reading.id
     where reading.line_id = any($1::uuid[]) and reading_strike.id is null`,
    [lineIds],
  );

export const addReadings = (tx: Queryable, readings: readonly Reading[]): Promise<void> =>
  insert(tx, 'readings', readings, { skipExisting: true });

export const addStrikes = (tx: Queryable, strikes: readonly ReadingStrike[]): Promise<void> =>
  insert(tx, 'readingStrikes', strikes, { skipExisting: true });
