import type { Job } from '../shell/job/job';
import type { RoundJudgement } from '../round/judge/judgement';

/** A hinge farther than this from any charted point is named by its station, mm. */
const NEAR = 220;

/** What lies at a station: the code and name of the lowest charted point near it. */
export function placeAt(
  job: Job,
  { references }: Pick<RoundJudgement, 'references'>,
  station: number,
  name: (text: string) => string,
): string {
  const near = job.rows.points
    .flatMap((point) => {
      const row = references.points.get(point.id)?.row;
      return row ? [{ point, off: Math.abs(row.x - station), height: row.z }] : [];
    })
    .filter(({ off }) => off < NEAR)
    .sort((a, b) => a.off + a.height / 4 - (b.off + b.height / 4))[0];
  if (!near) return `station ${Math.round(station)}`;
  const words = name(near.point.name);
  return `the ${words.charAt(0).toLowerCase()}${words.slice(1)} (${near.point.code.replace(/[LR]$/, '')}, station ${Math.round(station)})`;
}
