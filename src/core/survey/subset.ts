import type { Vector } from '../maths/geometry/vector';
import { startOf, type NetSolution } from './solve';
import { pointsOf, type Survey } from './survey';

/** The survey of some of its points and the readings that speak of these alone. */
export function restrict(survey: Survey, ids: ReadonlySet<string>): Survey {
  return {
    points: survey.points.filter((point) => ids.has(point.id)),
    readings: survey.readings.filter((reading) => pointsOf(reading).every((id) => ids.has(id))),
  };
}

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
