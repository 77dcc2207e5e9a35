import type { Point, PointCondition, Reading } from '@/core/shell/job/entities';
import type { ShorthandReading } from '@/core/shell/shorthand/line';
import type { TapeEntry } from './outbox';

/** Who writes to which round. */
export interface Writer {
  readonly roundId: string;
  readonly author: string;
}

/** Where readings go besides the round itself: a pull, with its load phase. */
export type ReadingContext = Pick<Reading, 'pullId' | 'phase'>;

/** The line that new readings take the place of, and why. */
export interface Struck {
  readonly lineId: string;
  readonly reason: string;
}

const now = (): string => new Date().toISOString();

/** One typed line: its readings share a line, and strike the line they correct. */
export function readingsEntry(
  { roundId, author }: Writer,
  raw: string,
  readings: readonly ShorthandReading[],
  context: ReadingContext,
  versionFor: (quantity: ShorthandReading['quantity']) => { readonly id: string },
  struck?: Struck,
): TapeEntry {
  const lineId = crypto.randomUUID();
  return {
    roundId,
    readings: readings.map((reading) => ({
      ...reading,
      id: crypto.randomUUID(),
      lineId,
      author,
      raw,
      takenAt: now(),
      instrumentVersionId: versionFor(reading.quantity).id,
      pullId: context.pullId,
      phase: context.phase,
    })),
    strike: struck ? { lineId: struck.lineId, reason: struck.reason, author } : null,
  };
}

export const strikeEntry = ({ roundId, author }: Writer, struck: Struck): TapeEntry => ({
  roundId,
  readings: [],
  strike: { lineId: struck.lineId, reason: struck.reason, author },
});

/** What stands in the way of a point. */
export const conditionEntry = (writer: Writer, pointId: string, kind: PointCondition['kind']): TapeEntry => ({
  roundId: writer.roundId,
  readings: [],
  strike: null,
  conditions: [{ id: crypto.randomUUID(), roundId: writer.roundId, pointId, kind, at: now(), author: writer.author }],
});

/** A doubtful reading somebody decided to keep. */
export const keepEntry = ({ roundId, author }: Writer, readingId: string): TapeEntry => ({
  roundId,
  readings: [],
  strike: null,
  keeps: [{ id: crypto.randomUUID(), readingId, at: now(), author, reason: 'looked at and kept' }],
});

/** A point made on the spot in the place of one that cannot be reached, which is marked buried unless it has a mark. */
export function substituteEntry(
  writer: Writer,
  original: Point,
  { code, name }: Pick<Point, 'code' | 'name'>,
  alreadyMarked: boolean,
): TapeEntry {
  const point: Point = {
    id: crypto.randomUUID(),
    jobId: original.jobId,
    code,
    name,
    side: original.side,
    holeDiameter: null,
    substituteForId: original.id,
    mirrored: false,
    version: 1,
  };
  const marked = alreadyMarked ? { conditions: [] } : conditionEntry(writer, original.id, 'buried');
  return { roundId: writer.roundId, readings: [], strike: null, ...marked, points: [point] };
}
