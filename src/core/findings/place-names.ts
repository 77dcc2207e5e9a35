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

/** What lies at a station: the code and name of the lowest charted point near it. */
export function placeAt(
  job: Job,
  { references }: Pick<RoundJudgement, 'references'>,
  station: number,
  words: PlaceWords,
): string {
  const near = job.rows.points
    .flatMap((point) => {
      const row = references.points.get(point.id)?.row;
      return row ? [{ point, off: Math.abs(row.x - station), height: row.z }] : [];
    })
    .filter(({ off }) => off < NEAR)
    .sort((a, b) => a.off + a.height / 4 - (b.off + b.height / 4))[0];
  if (!near) return `station ${words.station(station)}`;
  const name = words.name(near.point.name);
  const code = near.point.code.replace(/[LR]$/, '');
  return `the ${name.charAt(0).toLowerCase()}${name.slice(1)} (${code}, station ${words.station(station)})`;
}
