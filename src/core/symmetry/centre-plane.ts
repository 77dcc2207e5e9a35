import { inverse, Matrix } from 'ml-matrix';
import { jointMatrix } from '../alignment/rigid-freedom';
import type { Vector } from '../geometry/vector';
import { chiSquareLimit } from '../statistics/distributions';

/** The upright plane along the middle: y = offset + lengthways · x + upward · z, round or chart axes, mm. */
export interface CentrePlane {
  readonly offset: number;
  readonly lengthways: number;
  readonly upward: number;
  /** Covariance of the three, row major. */
  readonly covariance: readonly number[];
}

/** Two points meant to mirror each other. */
export interface MirrorPair {
  readonly left: string;
  readonly right: string;
}

/** How the two sides of a pair differ; each is right minus left, mm, with one standard deviation. */
export interface SideDifference {
  readonly pair: MirrorPair;
  /** Length (the right-hand point farther back is plus), half-width, height. */
  readonly difference: Vector;
  readonly sd: Vector;
  /** Half-widths of the left and the right point from the centre plane, mm. */
  readonly halfWidths: readonly [number, number];
  /** The pair agreed with the plane and held it. */
  readonly symmetric: boolean;
}

export type MirrorResult =
  | {
      readonly ok: true;
      readonly plane: CentrePlane;
      readonly pairs: readonly SideDifference[];
      /** Centre points with their distance from the plane, to the right is plus, and its deviation, mm. */
      readonly centre: readonly { readonly id: string; readonly off: number; readonly sd: number }[];
    }
  | { readonly ok: false; readonly reason: string }; // prettier-ignore

export interface MirrorInput {
  readonly positions: ReadonlyMap<string, Vector>;
  readonly joint: (a: string, b: string) => readonly number[];
  readonly pairs: readonly MirrorPair[];
  readonly centre: readonly string[];
}

/** How far production let two sides differ, one standard deviation of each coordinate's difference, mm. */
export const SIDES_DIFFER = 1;
/** Pairs this improbable are not taken as symmetric. */
const ASYMMETRIC = 0.01;
const TUKEY = 4.685;

/**
 * Fits the centre plane robustly to the pairs and the centre points. A pair that mirrors itself has its
 * middle on the plane and its line at right angles to it, which makes three equations linear in the plane's
 * three freedoms: yₘ = c + a xₘ + b zₘ, Δx = −a Δy, Δz = −b Δy. The start is the best of the planes through
 * every two pairs in the sense of Tukey's biweight, which half the pairs may contradict; reweighting from
 * there (Huber, Robust Statistics, §7.8), then least squares on the pairs that agree. The uncertainty is
 * propagated from the joint covariance of all points.
 *
 * It says how the sides differ, never which of them moved; and damage that is the same on both sides is
 * invisible to it.
 */
export function fitCentrePlane(input: MirrorInput): MirrorResult {
  const pairs = input.pairs.filter(({ left, right }) => input.positions.has(left) && input.positions.has(right)); // prettier-ignore
  const centre = input.centre.filter((id) => input.positions.has(id));
  if (pairs.length === 0)
    return { ok: false, reason: 'no left and right points of one pair are both located: measure both points of at least two pairs' }; // prettier-ignore
  const system = systemOf({ ...input, pairs, centre });
  if (pairs.length + centre.length < 3 || conditionless(system.groups.map(({ design }) => design)))
    return { ok: false, reason: 'the located pairs do not fix a centre plane: measure another pair, or centre points, well away from them in length' }; // prettier-ignore
  const agreeing = agreeingGroups(system.groups);
  return propagate(system, agreeing, pairs, centre, input.positions);
}

/** The equations of one pair (three) or centre point (one): residual = right − design · plane. */
interface Group {
  readonly design: Matrix;
  readonly right: Matrix;
  readonly weight: Matrix;
}

interface System {
  readonly groups: readonly Group[];
  /** Derivative of all right-hand sides with respect to all coordinates, and the coordinates' covariance. */
  readonly covariance: Matrix;
}

function systemOf({ positions, joint, pairs, centre }: MirrorInput): System {
  const ids = [...pairs.flatMap(({ left, right }) => [left, right]), ...centre];
  const rows = 3 * pairs.length + centre.length;
  const derivative = Matrix.zeros(rows, 3 * ids.length);
  const designs: Matrix[] = [];
  const rights: Matrix[] = [];
  pairs.forEach(({ left, right }, i) => {
    const [l, r] = [positions.get(left)!, positions.get(right)!];
    const width = r[1] - l[1];
    designs.push(new Matrix([[1, (l[0] + r[0]) / 2, (l[2] + r[2]) / 2], [0, -width, 0], [0, 0, -width]]));
    rights.push(Matrix.columnVector([(l[1] + r[1]) / 2, r[0] - l[0], r[2] - l[2]]));
    derivative.set(3 * i, 6 * i + 1, 0.5).set(3 * i, 6 * i + 4, 0.5);
    derivative.set(3 * i + 1, 6 * i, -1).set(3 * i + 1, 6 * i + 3, 1);
    derivative.set(3 * i + 2, 6 * i + 2, -1).set(3 * i + 2, 6 * i + 5, 1);
  });
  centre.forEach((id, k) => {
    const at = positions.get(id)!;
    designs.push(new Matrix([[1, at[0], at[2]]]));
    rights.push(Matrix.columnVector([at[1]]));
    derivative.set(3 * pairs.length + k, 6 * pairs.length + 3 * k + 1, 1);
  });
  const covariance = derivative.mmul(jointMatrix(ids, joint)).mmul(derivative.transpose());
  for (let i = 0; i < rows; i++) {
    const middle = i >= 3 * pairs.length || i % 3 === 0;
    covariance.set(i, i, covariance.get(i, i) + (SIDES_DIFFER * (middle ? 0.5 : 1)) ** 2);
  }
  let row = 0;
  const groups = designs.map((design, g) => {
    const own = Array.from({ length: design.rows }, (_, k) => row + k);
    row += design.rows;
    return { design, right: rights[g]!, weight: Matrix.diag(own.map((k) => 1 / covariance.get(k, k))) };
  });
  return { groups, covariance };
} // prettier-ignore

/** Least squares for the plane with a factor on every group's weight; undefined where it is not fixed. */
function planeOf(groups: readonly Group[], factors: readonly number[]): Matrix | undefined {
  const normal = Matrix.zeros(3, 3);
  const right = Matrix.zeros(3, 1);
  groups.forEach(({ design, right: own, weight }, g) => {
    if (factors[g] === 0) return;
    const weighted = design.transpose().mmul(weight).mul(factors[g]!);
    normal.add(weighted.mmul(design));
    right.add(weighted.mmul(own));
  });
  return wellPosed(normal) ? inverse(normal).mmul(right) : undefined;
}

/** Coordinates are thousands of millimetres: the offset's column is brought to their size before it is judged. */
function wellPosed(normal: Matrix): boolean {
  const scale = [0, 1, 2].map((i) => Math.sqrt(normal.get(i, i)));
  if (scale.some((value) => !(value > 0))) return false;
  const r = (i: number, k: number) => normal.get(i, k) / (scale[i]! * scale[k]!);
  const determinant = 1 + 2 * r(0, 1) * r(1, 2) * r(0, 2) - r(0, 1) ** 2 - r(1, 2) ** 2 - r(0, 2) ** 2;
  return determinant > 1e-6;
} // prettier-ignore

const conditionless = (designs: readonly Matrix[]): boolean => {
  const normal = Matrix.zeros(3, 3);
  for (const design of designs) normal.add(design.transpose().mmul(design));
  return !wellPosed(normal);
};

/** A group's misfit in standard deviations of one equation. */
function misfit({ design, right, weight }: Group, plane: Matrix): number {
  const residual = Matrix.sub(right, design.mmul(plane));
  const size = residual.transpose().mmul(weight).mmul(residual).get(0, 0);
  return Math.sqrt(size / design.rows);
}

const biweight = (u: number): number => (u >= TUKEY ? 0 : (1 - (u / TUKEY) ** 2) ** 2);
const biweightLoss = (u: number): number => (u >= TUKEY ? 1 : 1 - (1 - (u / TUKEY) ** 2) ** 3);

/** The groups that agree on one plane. */
function agreeingGroups(groups: readonly Group[]): boolean[] {
  const starts = groups.flatMap((_, a) =>
    groups.slice(a + 1).flatMap((_, k) => planeOf(groups, groups.map((_, g) => (g === a || g === a + 1 + k ? 1 : 0))) ?? []),
  );
  const whole = planeOf(groups, groups.map(() => 1))!;
  const loss = (plane: Matrix) => groups.reduce((sum, group) => sum + group.design.rows * biweightLoss(misfit(group, plane)), 0);
  let plane = [whole, ...starts].reduce((best, each) => (loss(each) < loss(best) ? each : best));
  for (let step = 0; step < 30; step++) {
    const next = planeOf(groups, groups.map((group) => biweight(misfit(group, plane))));
    if (!next) break;
    const change = Matrix.sub(next, plane).norm();
    plane = next;
    if (change < 1e-9) break;
  }
  const agree = groups.map((group) => misfit(group, plane) ** 2 * group.design.rows <= chiSquareLimit(ASYMMETRIC, group.design.rows));
  return planeOf(groups, agree.map(Number)) ? agree : groups.map(() => true);
} // prettier-ignore

/** The plane on the agreeing groups and every residual, both with their covariance. */
function propagate({ groups, covariance }: System, agree: readonly boolean[], pairs: readonly MirrorPair[], centre: readonly string[], positions: MirrorInput['positions']): MirrorResult {
  const design = Matrix.zeros(covariance.rows, 3);
  const right = Matrix.zeros(covariance.rows, 1);
  const weight = Matrix.zeros(covariance.rows, covariance.rows);
  let row = 0;
  groups.forEach((group, g) => {
    design.setSubMatrix(group.design, row, 0);
    right.setSubMatrix(group.right, row, 0);
    if (agree[g]) weight.setSubMatrix(group.weight, row, row);
    row += group.design.rows;
  });
  const weighted = design.transpose().mmul(weight);
  const gain = inverse(weighted.mmul(design)).mmul(weighted);
  const plane = gain.mmul(right);
  const projector = Matrix.eye(covariance.rows).sub(design.mmul(gain));
  const residual = projector.mmul(right);
  const spread = projector.mmul(covariance).mmul(projector.transpose());
  const sd = (i: number) => Math.sqrt(Math.max(0, spread.get(i, i)));
  const [offset, lengthways, upward] = plane.to1DArray() as [number, number, number];
  const halfWidth = (id: string) => {
    const [x, y, z] = positions.get(id)!;
    return Math.abs(y - offset - lengthways * x - upward * z) / Math.hypot(1, lengthways, upward);
  };
  return {
    ok: true,
    plane: { offset, lengthways, upward, covariance: gain.mmul(covariance).mmul(gain.transpose()).to1DArray() },
    pairs: pairs.map((pair, i): SideDifference => ({
      pair,
      // The middle off to the right by e makes the right half wider by 2 e than the left.
      difference: [residual.get(3 * i + 1, 0), 2 * residual.get(3 * i, 0), residual.get(3 * i + 2, 0)],
      sd: [sd(3 * i + 1), 2 * sd(3 * i), sd(3 * i + 2)],
      halfWidths: [halfWidth(pair.left), halfWidth(pair.right)],
      symmetric: agree[i]!,
    })),
    centre: centre.map((id, k) => ({ id, off: residual.get(3 * pairs.length + k, 0), sd: sd(3 * pairs.length + k) })),
  };
} // prettier-ignore

/** The mirror image of a position in the centre plane. */
export function mirrored({ offset, lengthways, upward }: CentrePlane, [x, y, z]: Vector): Vector {
  const square = 1 + lengthways ** 2 + upward ** 2;
  const off = (2 * (y - offset - lengthways * x - upward * z)) / square;
  return [x + off * lengthways, y - off, z + off * upward];
}

/** One standard deviation across the plane at a position, from the plane's own uncertainty, mm. */
export function planeSd({ covariance }: CentrePlane, [x, , z]: Vector): number {
  const g = [1, x, z];
  let variance = 0;
  g.forEach((a, i) => g.forEach((b, k) => (variance += a * b * covariance[3 * i + k]!)));
  return Math.sqrt(Math.max(0, variance));
}
