import { NEW_POINT, type Point, type PointCondition, type Reading, type Side } from '@/core/shell/job/entities';
import { mirroredCode } from '@/core/shell/mirrored-code';
import type { ShorthandReading } from '@/core/shell/shorthand/line';
import { newPointId, type NewPoint } from '@/core/shell/shorthand/new-points';
import { programTime } from '../shell/use-reachable';
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
      takenAt: programTime(),
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
  conditions: [
    { id: crypto.randomUUID(), roundId: writer.roundId, pointId, kind, at: programTime(), author: writer.author },
  ],
});

/** A doubtful reading somebody decided to keep. */
export const keepEntry = ({ roundId, author }: Writer, readingId: string): TapeEntry => ({
  roundId,
  readings: [],
  strike: null,
  keeps: [{ id: crypto.randomUUID(), readingId, at: programTime(), author, reason: 'looked at and kept' }],
});

/** A point of a code and a side, and nothing else known of it. */
const barePoint = (jobId: string, code: string, side: Side): Point => ({
  ...NEW_POINT,
  ...{ id: crypto.randomUUID(), jobId, code, side, name: '' },
});

const OTHER_SIDE = { left: 'right', right: 'left', centre: 'centre' } as const;

/** The points a line makes, each with its mirror image where there is none; sides as chosen, else as guessed. */
export function newPoints(
  jobId: string,
  made: readonly NewPoint[],
  sides: Readonly<Record<string, Side>>,
): readonly Point[] {
  const own = made.map(({ code, side }) => barePoint(jobId, code, sides[code] ?? side));
  const codes = new Set(own.map(({ code }) => code));
  const mirrors = own.flatMap(({ code, side }, i) => {
    const mirror = mirroredCode(code, side);
    const wanted = made[i]!.mirror !== undefined && side !== 'centre' && !codes.has(mirror);
    return wanted ? [barePoint(jobId, mirror, OTHER_SIDE[side])] : [];
  });
  return [...own, ...mirrors];
}

/** Readings of new points, with the identities these were given. */
export function ofPoints(readings: readonly ShorthandReading[], points: readonly Point[]): ShorthandReading[] {
  const idOf = new Map(points.map(({ code, id }) => [newPointId(code), id]));
  const own = (id: string | null) => (id === null ? null : (idOf.get(id) ?? id));
  return readings.map((reading) => ({
    ...reading,
    pointId: own(reading.pointId),
    toPointId: own(reading.toPointId),
  }));
}

/** A point made on the spot in the place of one that cannot be reached, which is marked buried unless it has a mark. */
export function substituteEntry(
  writer: Writer,
  original: Point,
  { code, name }: Pick<Point, 'code' | 'name'>,
  alreadyMarked: boolean,
): TapeEntry {
  const point: Point = {
    ...barePoint(original.jobId, code, original.side),
    ...{ name, substituteForId: original.id, kind: 'punch', mirrored: false },
  };
  const marked = alreadyMarked ? { conditions: [] } : conditionEntry(writer, original.id, 'buried');
  return { roundId: writer.roundId, readings: [], strike: null, ...marked, points: [point] };
}
