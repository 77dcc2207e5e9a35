import type { Job } from '../shell/job/job';
import type { RoundJudgement } from '../round/judge/judgement';

/** A hinge farther than this from any charted point is named by its station, mm. */
const NEAR = 220;

/** How names and stations are told. */
export interface PlaceWords {
  /** A name as typed, in the reader's words. */
  readonly name: (text: string) => string;
  /** A station without its unit. */
  readonly station: (mm: number) => string;
}

/** A charted point by what it is called, without its side. */
export interface Place {
  readonly code: string;
  readonly name: string;
}

/** What lies at a station: the lowest charted point near it. */
export function placeNear(
  job: Job,
  { references }: Pick<RoundJudgement, 'references'>,
  station: number,
): Place | undefined {
  const near = job.rows.points
    .flatMap((point) => {
      const row = references.points.get(point.id)?.row;
      return row ? [{ point, off: Math.abs(row.x - station), height: row.z }] : [];
    })
    .filter(({ off }) => off < NEAR)
    .sort((a, b) => a.off + a.height / 4 - (b.off + b.height / 4))[0];
  return near && { code: near.point.code.replace(/[LR]$/, ''), name: near.point.name };
}

/** A station in words: `the rear seat crossmember hole (C1, station 2071)`. */
export function stationText(station: number, beside: Place | undefined, words: PlaceWords): string {
  if (!beside) return `station ${words.station(station)}`;
  const name = words.name(beside.name);
  return `the ${name.charAt(0).toLowerCase()}${name.slice(1)} (${beside.code}, station ${words.station(station)})`;
}
