import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import { dot, mapAxes, norm, subtract, type Vector } from '../../maths/geometry/vector';
import { rigidDesign } from '../../maths/rigid/freedom';
import type { Component } from '../../shell/components';
import { movementAt } from './model';
import { share, type Hinge, type PatternPoint } from './sections';

/** A point with its deviation after alignment, chart axes, mm. */
export interface DeviatedPoint extends PatternPoint {
  readonly deviation: Vector;
  /** One standard deviation of the deviation, the mean of its axes, mm. */
  readonly sd: number;
}

/** How far off a point may be that is taken to have stood still, mm, by its identity. */
export type StoodStill = ReadonlyMap<string, number>;

/** A movement predicted of a point is one to look for where it is more than so many standard deviations. */
const VISIBLE = 2;
/** A point shows a movement when at least this share of it is there, in its direction. */
const SHOWS = 0.5;
/** Of the points a movement should be seen at, at least this share must show it. */
const MOST_SHOW = 2 / 3;
/**
 * At most this share of them may be taken to have stood still, and these must show it: next to a hinge little moves, less
 * than what such a point may be off, and those that do not show it contradict it anyway.
 */
const MOST_STILL = 0.5;
const FEWEST_SHOWING = 3;
const FEWEST_A_SIDE = 2;

/**
 * Whether the points themselves bear a section's movement out: enough of those it should be seen at show it, on each
 * side it should be seen on, and none of those that are taken to have stood still would have moved with it and did not.
 * One or two points that moved by themselves pull a fitted section along, but nobody follows them.
 */
export function isShown(
  points: readonly DeviatedPoint[],
  hinge: Hinge,
  components: readonly { readonly name: Component; readonly amount: number }[],
  stoodStill: StoodStill,
): boolean {
  const rigid = whatStoodStillMoved(points, hinge);
  const seen = points.flatMap((point) => {
    const predicted = movementAt(hinge, point, components);
    const size = norm(predicted);
    if (size <= VISIBLE * point.sd) return [];
    const shows = dot(subtract(point.deviation, rigid(point.at)), predicted) / size ** 2 >= SHOWS;
    return [{ side: point.side, shows, still: stoodStill.has(point.id) && isCarried(point, size, stoodStill) }];
  });
  const still = seen.filter((each) => each.still);
  if (still.some(({ shows }) => !shows) || still.length > MOST_STILL * seen.length) return false;
  const showing = seen.filter(({ shows }) => shows);
  return (
    showing.length >= FEWEST_SHOWING &&
    showing.length >= MOST_SHOW * seen.length &&
    (['left', 'right'] as const).every((side) => {
      const there = seen.filter((each) => each.side === side);
      return there.length === 0 || there.filter(({ shows }) => shows).length >= Math.min(FEWEST_A_SIDE, there.length);
    })
  );
}

/** A movement of this size takes a point out of what stood still. */
const isCarried = ({ id, sd }: DeviatedPoint, size: number, stoodStill: StoodStill): boolean =>
  size > Math.max(VISIBLE * sd, stoodStill.get(id) ?? 0);

/** The points a section's movement carries farther than what stands still may be off. */
export const carriedBy = (
  points: readonly DeviatedPoint[],
  hinge: Hinge,
  components: readonly { readonly name: Component; readonly amount: number }[],
  stoodStill: StoodStill,
): string[] =>
  points
    .filter((point) => isCarried(point, norm(movementAt(hinge, point, components)), stoodStill))
    .map(({ id }) => id);

/** The small rigid motion of the points short of the hinge, by least squares: what the movement is seen against. */
function whatStoodStillMoved(points: readonly DeviatedPoint[], hinge: Hinge): (at: Vector) => Vector {
  const still = points.filter(({ at }) => share(hinge, at[0]) === 0);
  if (still.length < 4) return () => [0, 0, 0];
  const normal = Matrix.zeros(6, 6);
  const right = Matrix.zeros(6, 1);
  for (const { at, deviation, sd } of still) {
    const weighted = rigidDesign(at)
      .transpose()
      .div(sd ** 2);
    normal.add(weighted.mmul(rigidDesign(at)));
    right.add(weighted.mmul(Matrix.columnVector([...deviation])));
  }
  const motion = solvedWhereHeld(normal, right);
  return (at) => {
    const moved = rigidDesign(at).mmul(motion);
    return mapAxes((axis) => moved.get(axis, 0));
  };
}

/** A turn that is seen by less than this share of what is seen best is not seen: points on one line do not tell of one about it. */
const UNSEEN = 1e-10;

/** The smallest solution of a symmetric system, by its eigenvectors. */
function solvedWhereHeld(normal: Matrix, right: Matrix): Matrix {
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(normal, { assumeSymmetric: true });
  const least = UNSEEN * Math.max(...realEigenvalues);
  const along = eigenvectorMatrix.transpose().mmul(right);
  realEigenvalues.forEach((value, k) => along.mulRow(k, value > least ? 1 / value : 0));
  return eigenvectorMatrix.mmul(along);
}
