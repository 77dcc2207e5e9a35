import type { LoosePoint } from '../../survey/loose';
import { restrict, spokenOf } from '../../survey/subset';
import { pointsOf, type Survey } from '../../survey/survey';
import type { RoundSurvey } from '../observe/survey-of';

/** So many heights a plane needs before lengths say anything of heights. */
const FEWEST_HEIGHTS = 3;

/** What of a survey can be solved as a shape that stands upright. */
export interface Upright {
  readonly upright: Survey;
  /** Points that were left out for want of a height. */
  readonly without: readonly LoosePoint[];
  /** So many points more need a height before there is any such shape. */
  readonly heightsWanted: number;
}

/**
 * A survey with nothing to start from but its readings, without the points whose height nobody read: their lengths fit as
 * well above the others as below, and nothing tells which. One with a chart is upright by that.
 */
export function uprightOf(survey: Survey, start: RoundSurvey['start']): Upright {
  if (start !== 'readings') return { upright: survey, without: [], heightsWanted: 0 };
  const read = heightsRead(survey);
  const heightsWanted = Math.max(0, FEWEST_HEIGHTS - read.size);
  const upright = restrict(survey, heightsWanted > 0 ? new Set() : read);
  const kept = new Set(upright.points.map(({ id }) => id));
  const without = spokenOf(survey).points.flatMap(({ id }) =>
    kept.has(id) ? [] : [{ id, directions: [[0, 0, 1] as const], advice: 'add its height' }],
  );
  return { upright, without, heightsWanted };
}

/** Points whose height was read. */
const heightsRead = ({ readings }: Survey): Set<string> =>
  new Set(
    readings.flatMap((reading) =>
      reading.kind === 'height' || (reading.kind === 'position' && !reading.body) || reading.kind === 'rise'
        ? pointsOf(reading)
        : [],
    ),
  );
