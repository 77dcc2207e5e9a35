import { alike } from '../maths/alike';
import { norm, subtract, type Vector } from '../maths/geometry/vector';
import { startOf, type NetSolution } from './solve';
import { pointsOf, type Survey } from './survey';

/** The survey of some of its points and the readings that speak of these alone. */
export function restrict(survey: Survey, ids: ReadonlySet<string>): Survey {
  return {
    points: survey.points.filter((point) => ids.has(point.id)),
    readings: survey.readings.filter((reading) => pointsOf(reading).every((id) => ids.has(id))),
  };
}

/** The readings of a survey and the points they speak of. */
export const spokenOf = (survey: Survey): Survey => restrict(survey, new Set(survey.readings.flatMap(pointsOf)));

/**
 * Whether two surveys have the same readings of the same points, those that are taken as they stand being no farther apart
 * than so much, mm.
 */
export const isMuchThe = (same: Survey, other: Survey, near: number): boolean =>
  same.points.length === other.points.length &&
  same.points.every((point, i) => {
    const then = other.points[i]!;
    return point.hold === 'fixed' && then.hold === 'fixed'
      ? point.id === then.id && norm(subtract(point.start, then.start)) <= near
      : alike(point, then);
  }) &&
  alike(same.readings, other.readings);

/** The points of a solved part. */
export const idsOf = ({ survey }: NetSolution): ReadonlySet<string> => new Set(survey.points.map(({ id }) => id));

/** So many points it has. */
export const sizeOf = ({ survey }: NetSolution): number => survey.points.length;

/** Coordinates to start from, by points. */
export type StartsAt = ReadonlyMap<string, Vector>;

/** Where a solved part has its points. */
export const placesOf = ({ survey: { points }, x }: NetSolution): StartsAt =>
  new Map(points.map(({ id }, i) => [id, [x[3 * i]!, x[3 * i + 1]!, x[3 * i + 2]!]]));

/** Last coordinates where there are any, the starting ones elsewhere. */
export function startFrom(survey: Survey, from: StartsAt): Float64Array {
  const x = startOf(survey);
  survey.points.forEach((point, i) => {
    const known = point.hold === 'fixed' ? undefined : from.get(point.id);
    if (known) x.set(known, 3 * i);
  });
  return x;
}
