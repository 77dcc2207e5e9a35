import type { Reading } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { programTime } from '../shell/use-reachable';
import type { TapeEntry } from './outbox';

/** When an entry was typed. */
export const typedAt = (entry: TapeEntry): string => entry.readings[0]?.takenAt ?? programTime();

/** A job's rows with what was typed into a round and not refused: the same ones each time for the same of both. */
export function rowsWith(rows: JobRows, roundId: string, standing: readonly TapeEntry[]): JobRows {
  const known = KNOWN.get(standing);
  if (known?.rows === rows) return known.longer;
  const longer = merged(rows, roundId, standing);
  KNOWN.set(standing, { rows, longer });
  return longer;
}

const KNOWN = new WeakMap<readonly TapeEntry[], { readonly rows: JobRows; readonly longer: JobRows }>();

/** The job's rows with what was typed here and not refused; the same tables where nothing is added to them. */
function merged(rows: JobRows, roundId: string, standing: readonly TapeEntry[]): JobRows {
  if (standing.length === 0) return rows;
  const known = new Set(rows.readings.map((reading) => reading.id));
  const struck = new Set(rows.readingStrikes.map((strike) => strike.readingId));
  const readings = [...rows.readings];
  const strikes = [...rows.readingStrikes];
  let sequence = Math.max(0, ...rows.readings.map((reading) => reading.sequence));
  for (const entry of standing) {
    const at = typedAt(entry);
    sequence++;
    readings.push(...rowsOf(entry, roundId, sequence).filter(({ id }) => !known.has(id)));
    for (const reading of entry.strike ? readings : [])
      if (reading.lineId === entry.strike!.lineId && !struck.has(reading.id)) {
        struck.add(reading.id);
        strikes.push({
          id: crypto.randomUUID(),
          readingId: reading.id,
          struckAt: at,
          author: entry.strike!.author,
          personId: null,
          reason: entry.strike!.reason,
          replacedByLineId: entry.readings[0]?.lineId ?? null,
        });
      }
  }
  return {
    ...rows,
    readings,
    readingStrikes: strikes.length === rows.readingStrikes.length ? rows.readingStrikes : strikes,
    points: withNew(
      rows.points,
      standing.flatMap(({ points }) => points ?? []),
    ),
    pointConditions: withNew(
      rows.pointConditions,
      standing.flatMap(({ conditions }) => (conditions ?? []).map(unproved)),
    ),
    readingKeeps: withNew(
      rows.readingKeeps,
      standing.flatMap(({ keeps }) => (keeps ?? []).map(unproved)),
    ),
  };
}

/** The readings of an entry as rows: the same ones each time, so that nothing is sent or compared anew for them. */
function rowsOf(entry: TapeEntry, roundId: string, sequence: number): readonly Reading[] {
  const known = ROWS.get(entry);
  if (known?.every((row) => row.sequence === sequence && row.roundId === roundId)) return known;
  const receivedAt = typedAt(entry);
  const rows = entry.readings.map((reading) => ({ ...reading, personId: null, roundId, sequence, receivedAt }));
  ROWS.set(entry, rows);
  return rows;
}

const ROWS = new WeakMap<TapeEntry, readonly Reading[]>();

/** What is on its way says only a name; whose it is, the server says. */
const unproved = <Row extends object>(row: Row) => ({ ...row, personId: null });

function withNew<Row extends { readonly id: string }>(rows: readonly Row[], more: readonly Row[]): readonly Row[] {
  const known = new Set(rows.map(({ id }) => id));
  const added = more.filter(({ id }) => !known.has(id));
  return added.length > 0 ? [...rows, ...added] : rows;
}
