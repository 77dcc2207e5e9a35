import { z } from 'zod';
import {
  point,
  pointCondition,
  reading,
  readingKeep,
  readingStrike,
  type Point,
  type Reading,
  type ReadingStrike,
} from '@/core/shell/job/entities';
import { addReadings, addStrikes, nextSequence, presentReadings, standingReadings } from '@/db/readings';
import { insert } from '@/db/table';
import { done, failed, type Outcome } from '@/formats/outcome';
import { SIGNED_OUT } from '@/formats/people';
import type { Actor } from './people/actor';
import { runUseCase } from './use-case';
import type { Queryable } from '@/db/database';

/**
 * A line of the tape as the client sends it: readings taken, lines struck, or a correction, which is
 * both; and what the person measuring notes on the way: a substitute point, what stands in the way of a
 * point, a doubtful reading that is kept.
 */
const tapeEntry = z.strictObject({
  roundId: z.uuid(),
  readings: z.array(reading.omit({ sequence: true, receivedAt: true, roundId: true, personId: true })).max(20),
  strike: z
    .strictObject({
      lineId: z.uuid(),
      reason: readingStrike.shape.reason,
      author: readingStrike.shape.author,
    })
    .nullable(),
  points: z.array(point).max(5).default([]),
  conditions: z
    .array(pointCondition.omit({ personId: true }))
    .max(20)
    .default([]),
  keeps: z
    .array(readingKeep.omit({ personId: true }))
    .max(20)
    .default([]),
});

export interface TapeReceipt {
  readonly jobId: string;
  readonly readings: readonly Reading[];
  readonly strikes: readonly ReadingStrike[];
}

/**
 * Takes one entry of the tape: in the database and on the disk before it is acknowledged. Sending
 * the same entry again is harmless: its readings keep their identities.
 */
export async function takeTapeEntry(input: unknown, newId: () => string): Promise<Outcome<TapeReceipt>> {
  return runUseCase('measure', tapeEntry, input, async (sent, { database, writer }) => {
    const signed = await signedEntry(sent, writer);
    if (!signed.ok) return signed;
    const entry = signed.value;
    return database.transaction(async (tx) => {
      const [round] = await tx.query<{ jobId: string; closedAt: string | null }>(
        'select job_id, closed_at from round where id = $1',
        [entry.roundId],
      );
      if (!round) return failed('roundId', 'this round is not here any more');
      if (round.closedAt !== null && !isTakenBefore(entry, round.closedAt))
        return failed('round', 'the round is closed: open it again to go on');
      if (entry.points.some((each) => each.jobId !== round.jobId))
        return failed('points', 'a point of another job cannot be made in this round');
      if (entry.conditions.some((each) => each.roundId !== entry.roundId))
        return failed('conditions', 'a mark of another round cannot be made in this one');
      if (await namesOthers(tx, round.jobId, entry))
        return failed('readings', 'a reading of another job cannot be struck or kept in this round');
      const clash = await takenMeanwhile(tx, round.jobId, entry.points);
      if (clash)
        return failed('points', `${clash} was made in another window meanwhile: type the line again, it is known now`);
      await insert(tx, 'points', entry.points, { skipExisting: true });
      await insert(tx, 'pointConditions', entry.conditions, { skipExisting: true });
      await insert(tx, 'readingKeeps', entry.keeps, { skipExisting: true });
      const present = await presentReadings(
        tx,
        entry.readings.map((each) => each.id),
      );
      const at = new Date().toISOString();
      const sequence = await nextSequence(tx, entry.roundId);
      const readings = entry.readings
        .filter((each) => !present.has(each.id))
        .map((each): Reading => ({ ...each, roundId: entry.roundId, sequence, receivedAt: at }));
      const strikes = entry.strike
        ? await strikesOf(tx, entry.strike, entry.readings[0]?.lineId ?? null, at, newId)
        : [];
      if (readings.length === 0 && strikes.length === 0) return done({ jobId: round.jobId, readings, strikes });
      await addReadings(tx, readings);
      await addStrikes(tx, strikes);
      return done({ jobId: round.jobId, readings, strikes });
    });
  });
}

/** An entry with whom of the shop's people each part of it is of; refused where one of them is not known on the device. */
async function signedEntry(sent: z.infer<typeof tapeEntry>, writer: (name: string) => Promise<Actor | undefined>) {
  const { readings, strike, conditions, keeps } = sent;
  const names = new Set(
    [...readings, ...conditions, ...keeps, ...(strike ? [strike] : [])].map(({ author }) => author),
  );
  const known = new Map<string, Actor>();
  for (const name of names) {
    const actor = await writer(name);
    if (!actor) return failed(SIGNED_OUT, `${name} has to say the passphrase on this device first`);
    known.set(name, actor);
  }
  const of = <Part extends { readonly author: string }>(part: Part) => {
    const { name, personId } = known.get(part.author)!;
    return { ...part, author: name, personId };
  };
  return done({
    ...sent,
    readings: readings.map(of),
    strike: strike && of(strike),
    conditions: conditions.map(of),
    keeps: keeps.map(of),
  });
}

/** Readings that waited somewhere until now, taken before their round was closed. */
const isTakenBefore = ({ readings, strike, keeps }: z.infer<typeof tapeEntry>, closedAt: string): boolean =>
  strike === null && keeps.length === 0 && readings.length > 0 && readings.every(({ takenAt }) => takenAt < closedAt);

/** Whether an entry strikes or keeps readings of another job. */
async function namesOthers(
  tx: Queryable,
  jobId: string,
  { strike, keeps }: z.infer<typeof tapeEntry>,
): Promise<boolean> {
  if (!strike && keeps.length === 0) return false;
  const others = await tx.query(
    `select 1 from reading join round on round.id = reading.round_id
     where round.job_id <> $1 and (reading.line_id = $2 or reading.id = any($3::uuid[])) limit 1`,
    [jobId, strike?.lineId ?? null, keeps.map(({ readingId }) => readingId)],
  );
  return others.length > 0;
}

/** The code of one of these new points that another point of the job has by now. */
async function takenMeanwhile(tx: Queryable, jobId: string, points: readonly Point[]): Promise<string | undefined> {
  const [clash] = await tx.query<{ code: string }>(
    'select code from point where job_id = $1 and lower(code) = any($2) and id <> all($3::uuid[])',
    [jobId, points.map(({ code }) => code.toLowerCase()), points.map(({ id }) => id)],
  );
  return clash?.code;
}

/** Strikes what still stands of a line. */
async function strikesOf(
  tx: Queryable,
  strike: { lineId: string; reason: string; author: string; personId: string },
  replacedByLineId: string | null,
  struckAt: string,
  newId: () => string,
): Promise<ReadingStrike[]> {
  const standing = await standingReadings(tx, [strike.lineId]);
  return standing.map((each) => ({
    id: newId(),
    readingId: each.id,
    struckAt,
    author: strike.author,
    personId: strike.personId,
    reason: strike.reason,
    replacedByLineId,
  }));
}
