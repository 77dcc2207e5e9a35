import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import type { Equations } from './observations';
import { LOOSE_SD } from './solve';
import { isPair, pointsOf, type Survey } from './survey';

/** A point that the readings leave free in at least one direction. */
export interface LoosePoint {
  readonly id: string;
  /** Directions it can move in, unit vectors of the round's axes. */
  readonly directions: readonly (readonly [number, number, number])[];
  /** The least that would fix it: `add a height or a third distance`. */
  readonly advice: string;
}

/** The points whose standard deviation exceeds `LOOSE_SD` in some direction, with what each is short of. */
export function loosePoints(
  survey: Survey,
  { column, unknowns }: Equations,
  covariance: Float64Array,
  looseSd = LOOSE_SD,
): LoosePoint[] {
  return survey.points.flatMap((point, i) => {
    const first = column[i]!;
    if (first < 0) return [];
    const block = new Matrix(
      [0, 1, 2].map((r) => [0, 1, 2].map((c) => covariance[(first + r) * unknowns + first + c]!)),
    );
    const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(block, {
      assumeSymmetric: true,
    });
    const directions = realEigenvalues.flatMap((variance, k) =>
      variance > looseSd ** 2 ? [eigenvectorMatrix.getColumn(k) as [number, number, number]] : [],
    );
    if (directions.length === 0) return [];
    return [{ id: point.id, directions, advice: adviceFor(survey, point.id, directions) }];
  });
}

const ORDINAL = ['a first', 'a second', 'a third', 'a fourth', 'a fifth', 'a sixth'];
const COORDINATE = ['a length', 'a width', 'a height'] as const;

function adviceFor(survey: Survey, id: string, directions: LoosePoint['directions']): string {
  const distances = survey.readings.filter(
    (reading) => isPair(reading) && reading.kind !== 'rise' && pointsOf(reading).includes(id),
  ).length;
  const next = ORDINAL[distances] ?? 'another';
  if (directions.length === 3)
    return distances === 0
      ? 'add three distances, or a height and two distances'
      : `add a height and ${next} distance, or three distances in other directions`;
  if (directions.length === 2) {
    const height = mostlyAlong(directions, 2);
    return height
      ? `add a height and ${next} distance`
      : `add two distances to points off the line, or ${COORDINATE[0]} and ${COORDINATE[1]}`;
  }
  const along = [0, 1, 2].reduce((best, axis) =>
    Math.abs(directions[0]![axis]!) > Math.abs(directions[0]![best]!) ? axis : best,
  );
  return `add ${COORDINATE[along]} or ${next} distance`;
}

/** Whether an axis lies within the plane two directions span. */
const mostlyAlong = (directions: LoosePoint['directions'], axis: number): boolean =>
  Math.hypot(...directions.map((d) => d[axis]!)) > 0.7;

/** One line for all loose points, each with what it is short of. */
export function looseSentence(loose: readonly LoosePoint[]): string {
  if (loose.length === 1) return `point "${loose[0]!.id}" is not determined: ${loose[0]!.advice}`;
  const groups = new Map<string, string[]>();
  for (const { id, advice } of loose) groups.set(advice, [...(groups.get(advice) ?? []), `"${id}"`]);
  return `points ${loose.map(({ id }) => `"${id}"`).join(', ')} are not determined: ${[...groups]
    .map(([advice, ids]) => (groups.size === 1 ? advice : `${ids.join(', ')}: ${advice}`))
    .join('; ')}`;
}
