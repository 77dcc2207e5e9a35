import { inverse, Matrix } from 'ml-matrix';
import { dot, norm, position, subtract, type Frame, type Position, type Vector } from '../geometry/vector';
import { along, gradientOf, spreadBy, type Entries } from '../linear/gradient';
import type { Joint } from '../linear/joint';
import { chiSquareLimit } from '../statistics/distributions';

/** The upright plane along the middle: y = offset + lengthways · x + upward · z, mm. */
export interface CentrePlane<F extends Frame> {
  /** The axes it is given in. */
  readonly of?: (own: F) => F;
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

export type MirrorResult<F extends Frame> =
  | {
      readonly ok: true;
      readonly plane: CentrePlane<F>;
      readonly pairs: readonly SideDifference[];
      /** Centre points with their distance from the plane, to the right is plus, and its deviation, mm. */
      readonly centre: readonly { readonly id: string; readonly off: number; readonly sd: number }[];
    }
  | { readonly ok: false; readonly reason: string };

export interface MirrorInput<F extends Frame> {
  readonly positions: ReadonlyMap<string, Position<F>>;
  readonly joint: Pick<Joint<F>, 'matrix'>;
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
export function fitCentrePlane<F extends Frame>(input: MirrorInput<F>): MirrorResult<F> {
  const pairs = input.pairs.filter(({ left, right }) => input.positions.has(left) && input.positions.has(right));
  const centre = input.centre.filter((id) => input.positions.has(id));
  if (pairs.length === 0)
    return {
      ok: false,
      reason: 'no left and right points of one pair are both located: measure both points of at least two pairs',
    };
  const system = systemOf({ ...input, pairs, centre });
  if (
    pairs.length + centre.length < 3 ||
    !planeOf(
      system.groups,
      system.groups.map(() => 1),
    )
  )
    return {
      ok: false,
      reason:
        'the located pairs do not fix a centre plane: measure another pair, or centre points, well away from them in length',
    };
  const agreeing = agreeingGroups(system.groups);
  return propagate(system, agreeing, pairs, centre, input.positions);
}

/** One equation of a group: design · plane = right, with its weight 1/σ². */
interface Equation {
  readonly design: Vector;
  readonly right: number;
  readonly weight: number;
}

/** The equations of one pair (three) or of one centre point (one). */
type Group = readonly Equation[];

interface System {
  readonly groups: readonly Group[];
  /** Covariance of all right-hand sides. */
  readonly covariance: Matrix;
}

function systemOf<F extends Frame>({ positions, joint, pairs, centre }: MirrorInput<F>): System {
  const ids = [...pairs.flatMap(({ left, right }) => [left, right]), ...centre];
  const paired = pairs.map(({ left, right }, i) => {
    const [l, r] = [positions.get(left)!, positions.get(right)!];
    const width = r[1] - l[1];
    const [a, b] = [6 * i, 6 * i + 3];
    return [
      {
        design: [1, (l[0] + r[0]) / 2, (l[2] + r[2]) / 2],
        right: (l[1] + r[1]) / 2,
        terms: [
          [a + 1, 0.5],
          [b + 1, 0.5],
        ],
        differs: SIDES_DIFFER / 2,
      },
      {
        design: [0, -width, 0],
        right: r[0] - l[0],
        terms: [
          [a, -1],
          [b, 1],
        ],
        differs: SIDES_DIFFER,
      },
      {
        design: [0, 0, -width],
        right: r[2] - l[2],
        terms: [
          [a + 2, -1],
          [b + 2, 1],
        ],
        differs: SIDES_DIFFER,
      },
    ] as const;
  });
  const middle = centre.map((id, k) => {
    const at = positions.get(id)!;
    return [
      {
        design: [1, at[0], at[2]],
        right: at[1],
        terms: [[6 * pairs.length + 3 * k + 1, 1]],
        differs: SIDES_DIFFER / 2,
      },
    ] as const;
  });
  const raw: readonly (readonly {
    design: Vector;
    right: number;
    terms: Entries;
    differs: number;
  }[])[] = [...paired, ...middle];
  const all = raw.flat().map(({ terms, differs }) => ({ row: gradientOf(terms), differs }));
  const whole = joint.matrix(ids);
  const covariance = Matrix.zeros(all.length, all.length);
  all.forEach(({ row, differs }, i) => {
    const spread = spreadBy(whole, row);
    for (let k = 0; k <= i; k++) {
      const value = along(spread, all[k]!.row) + (i === k ? differs ** 2 : 0);
      covariance.set(i, k, value);
      covariance.set(k, i, value);
    }
  });
  let row = 0;
  const groups = raw.map((group) =>
    group.map(({ design, right }) => ({ design, right, weight: 1 / covariance.get(row, row++) })),
  );
  return { groups, covariance };
}

/** Least squares for the plane with a factor on every group's weight; undefined where it is not fixed. */
function planeOf(groups: readonly Group[], factors: readonly number[]): Vector | undefined {
  const normal = Matrix.zeros(3, 3);
  const right = [0, 0, 0];
  groups.forEach((group, g) => {
    if (factors[g] === 0) return;
    for (const { design, right: own, weight } of group)
      for (let i = 0; i < 3; i++) {
        const scaled = factors[g]! * weight * design[i]!;
        right[i]! += scaled * own;
        for (let k = 0; k < 3; k++) normal.set(i, k, normal.get(i, k) + scaled * design[k]!);
      }
  });
  if (!wellPosed(normal)) return undefined;
  return inverse(normal).mmul(Matrix.columnVector(right)).to1DArray() as unknown as Vector;
}

/** Coordinates are thousands of millimetres: the offset's column is brought to their size before it is judged. */
function wellPosed(normal: Matrix): boolean {
  const scale = [0, 1, 2].map((i) => Math.sqrt(normal.get(i, i)));
  if (scale.some((value) => !(value > 0))) return false;
  const r = (i: number, k: number) => normal.get(i, k) / (scale[i]! * scale[k]!);
  const determinant = 1 + 2 * r(0, 1) * r(1, 2) * r(0, 2) - r(0, 1) ** 2 - r(1, 2) ** 2 - r(0, 2) ** 2;
  return determinant > 1e-6;
}

/** A group's misfit: sum of squares by their variances. */
function misfit(group: Group, plane: Vector): number {
  let sum = 0;
  for (const { design, right, weight } of group) sum += weight * (right - dot(design, plane)) ** 2;
  return sum;
}

const perEquation = (group: Group, plane: Vector): number => Math.sqrt(misfit(group, plane) / group.length);

const biweight = (u: number): number => (u >= TUKEY ? 0 : (1 - (u / TUKEY) ** 2) ** 2);
const biweightLoss = (u: number): number => (u >= TUKEY ? 1 : 1 - (1 - (u / TUKEY) ** 2) ** 3);

/** Starts tried: enough that half the pairs may be wrong, few enough to stay quick. */
const MOST_STARTS = 400;

/** The groups that agree on one plane. */
function agreeingGroups(groups: readonly Group[]): boolean[] {
  const twos = groups.flatMap((_, a) => groups.slice(a + 1).map((_, k) => [a, a + 1 + k] as const));
  const every = Math.ceil(twos.length / MOST_STARTS);
  const starts = twos
    .filter((_, i) => i % every === 0)
    .flatMap(([a, b]) => {
      const plane = planeOf([groups[a]!, groups[b]!], [1, 1]);
      return plane ? [plane] : [];
    });
  const loss = (plane: Vector) =>
    groups.reduce((sum, group) => sum + group.length * biweightLoss(perEquation(group, plane)), 0);
  let plane = planeOf(
    groups,
    groups.map(() => 1),
  )!;
  let least = loss(plane);
  for (const start of starts) {
    const own = loss(start);
    if (own < least) [plane, least] = [start, own];
  }
  for (let step = 0; step < 30; step++) {
    const next = planeOf(
      groups,
      groups.map((group) => biweight(perEquation(group, plane))),
    );
    if (!next) break;
    const change = norm(subtract(next, plane));
    plane = next;
    if (change < 1e-9) break;
  }
  const agree = groups.map((group) => misfit(group, plane) <= chiSquareLimit(ASYMMETRIC, group.length));
  return planeOf(groups, agree.map(Number)) ? agree : groups.map(() => true);
}

/** The plane on the agreeing groups and every residual, both with their covariance. */
function propagate<F extends Frame>(
  { groups, covariance }: System,
  agree: readonly boolean[],
  pairs: readonly MirrorPair[],
  centre: readonly string[],
  positions: MirrorInput<F>['positions'],
): MirrorResult<F> {
  const equations = groups.flatMap((group, g) =>
    group.map((equation) => ({ ...equation, weight: agree[g] ? equation.weight : 0 })),
  );
  const design = new Matrix(equations.map((equation) => [...equation.design]));
  const weighted = new Matrix(
    equations.map((equation) => equation.design.map((value) => value * equation.weight)),
  ).transpose();
  const gain = inverse(weighted.mmul(design)).mmul(weighted);
  const plane = gain.mmul(Matrix.columnVector(equations.map(({ right }) => right))).to1DArray() as [
    number,
    number,
    number,
  ];
  // Variances of (I − A B) l without forming it: K − 2 A (B K) + A (B K Bᵀ) Aᵀ on the diagonal.
  const shared = gain.mmul(covariance);
  const spread = shared.mmul(gain.transpose());
  const residual = (i: number) => equations[i]!.right - dot(equations[i]!.design, plane);
  const sd = (i: number) => {
    const row = equations[i]!.design;
    let variance = covariance.get(i, i);
    for (let a = 0; a < 3; a++) {
      variance -= 2 * row[a]! * shared.get(a, i);
      for (let b = 0; b < 3; b++) variance += row[a]! * row[b]! * spread.get(a, b);
    }
    return Math.sqrt(Math.max(0, variance));
  };
  const [offset, lengthways, upward] = plane;
  const halfWidth = (id: string) => {
    const [x, y, z] = positions.get(id)!;
    return Math.abs(y - offset - lengthways * x - upward * z) / Math.hypot(1, lengthways, upward);
  };
  return {
    ok: true,
    plane: { offset, lengthways, upward, covariance: spread.to1DArray() },
    pairs: pairs.map((pair, i): SideDifference => ({
      pair,
      // The middle off to the right by e makes the right half wider by 2 e than the left.
      difference: [residual(3 * i + 1), 2 * residual(3 * i), residual(3 * i + 2)],
      sd: [sd(3 * i + 1), 2 * sd(3 * i), sd(3 * i + 2)],
      halfWidths: [halfWidth(pair.left), halfWidth(pair.right)],
      symmetric: agree[i]!,
    })),
    centre: centre.map((id, k) => ({ id, off: residual(3 * pairs.length + k), sd: sd(3 * pairs.length + k) })),
  };
}

/** The mirror image of a position in the centre plane. */
export function mirrored<F extends Frame>(
  { offset, lengthways, upward }: CentrePlane<F>,
  [x, y, z]: Position<F>,
): Position<F> {
  const square = 1 + lengthways ** 2 + upward ** 2;
  const off = (2 * (y - offset - lengthways * x - upward * z)) / square;
  return position([x + off * lengthways, y - off, z + off * upward]);
}

/** One standard deviation across the plane at a position, from the plane's own uncertainty, mm. */
export function planeSd<F extends Frame>({ covariance }: CentrePlane<F>, [x, , z]: Position<F>): number {
  const g = [1, x, z];
  let variance = 0;
  g.forEach((a, i) => g.forEach((b, k) => (variance += a * b * covariance[3 * i + k]!)));
  return Math.sqrt(Math.max(0, variance));
}
