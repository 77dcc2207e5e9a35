import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import { add, cross, mapAxes, scale, subtract, type Vector } from '../maths/geometry/vector';
import { along } from '../maths/linear/gradient';
import { addedTurn } from '../maths/rigid/turn';
import { linearise, newRow, turnOf, type Equations } from './observations';

/** Share of the strongest constraint below which a rigid motion counts as unconstrained, squared. */
const FREE = 1e-11;

/**
 * The rigid motions of the whole net that neither the held points nor the readings forbid: what its
 * datum is short of.
 *
 * @param x coordinates of all points, three each
 * @param biases shared biases and the unknowns of bodies
 * @returns orthonormal directions in the space of the unknowns, at most six: bodies go along, shared biases stay
 */
export function rigidFreedoms(equations: Equations, x: Float64Array, biases: Float64Array): Float64Array[] {
  const { column, unknowns } = equations;
  const middle = middleOf(x);
  const motions = rigidMotions(x, middle);
  const moved = motions.map((motion, k) => inUnknowns(equations, motion, bodyMotion(k, middle, x), biases));
  const sums = forbidden(equations, x, biases, motions, moved);
  if (sums.every((sum) => sum === 0)) return orthonormal(moved);
  const normal = Matrix.from1DArray(6, 6, sums);
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(normal, {
    assumeSymmetric: true,
  });
  const strongest = Math.max(...realEigenvalues, column.length);
  const free = realEigenvalues.flatMap((value, k) =>
    value <= FREE * strongest ? [eigenvectorMatrix.getColumn(k)] : [],
  );
  return orthonormal(
    free.map((shares) => {
      const direction = new Float64Array(unknowns);
      for (let k = 0; k < 6; k++) addShare(direction, shares[k]!, moved[k]!);
      return direction;
    }),
  );
}

/** How much of each two of the six motions the held points and the readings forbid, 6×6. */
function forbidden(
  equations: Equations,
  x: Float64Array,
  biases: Float64Array,
  motions: readonly Float64Array[],
  moved: readonly Float64Array[],
): Float64Array {
  const { column, observations } = equations;
  const sums = new Float64Array(36);
  const shares = new Float64Array(6);
  const constrain = () => {
    for (let r = 0; r < 6; r++) for (let c = 0; c < 6; c++) sums[6 * r + c]! += shares[r]! * shares[c]!;
  };
  column.forEach((first, point) => {
    if (first >= 0) return;
    for (let axis = 0; axis < 3; axis++) {
      motions.forEach((motion, k) => (shares[k] = motion[3 * point + axis]!));
      constrain();
    }
  });
  const row = newRow();
  for (const observation of observations) {
    // No motion of the whole changes a distance.
    if (observation.kind === 'distance') continue;
    linearise(equations, observation, x, biases, row);
    for (let k = 0; k < 6; k++) shares[k] = along(moved[k]!, row);
    constrain();
  }
  return sums;
}

/** Adds a share of one direction to another, in place. */
function addShare(direction: Float64Array, share: number, other: Float64Array): void {
  for (let i = 0; i < direction.length; i++) direction[i]! += share * other[i]!;
}

function middleOf(x: Float64Array): Vector {
  const count = Math.max(x.length / 3, 1);
  const sums = [0, 0, 0];
  x.forEach((value, i) => (sums[i % 3]! += value / count));
  return mapAxes((k) => sums[k]!);
}

/** One over the size of the net, so that a turn moves its points about a unit each. */
function turnScale(x: Float64Array, middle: Vector): number {
  let size = 0;
  x.forEach((value, i) => (size += (value - middle[i % 3]!) ** 2));
  return 1 / Math.max(Math.sqrt(size / Math.max(x.length / 3, 1)), 1e-9);
}

/** A motion of the whole: how much it shifts what stands in the middle, and how far it turns everything, radians. */
interface WholeMotion {
  readonly shift: Vector;
  readonly turn: Vector;
  readonly middle: Vector;
}

/** The `k`th motion: three shifts and then three turns about the middle. */
function bodyMotion(k: number, middle: Vector, x: Float64Array): WholeMotion {
  const along = mapAxes((axis) => Number(axis === k % 3));
  const still: Vector = [0, 0, 0];
  return k < 3
    ? { shift: along, turn: still, middle }
    : { shift: still, turn: scale(along, turnScale(x, middle)), middle };
}

/** The six motions of all points, three coordinates each. */
function rigidMotions(x: Float64Array, middle: Vector): Float64Array[] {
  return Array.from({ length: 6 }, (_, k) => {
    const { shift, turn } = bodyMotion(k, middle, x);
    const motion = new Float64Array(x.length);
    for (let p = 0; p < x.length; p += 3)
      motion.set(add(shift, cross(turn, subtract([x[p]!, x[p + 1]!, x[p + 2]!], middle))), p);
    return motion;
  });
}

/** A motion of the whole in the space of the unknowns. */
function inUnknowns(
  { column, unknowns, coordinates, bodies }: Equations,
  motion: Float64Array,
  { shift, turn, middle }: WholeMotion,
  biases: Float64Array,
): Float64Array {
  const direction = new Float64Array(unknowns);
  column.forEach((first, point) => {
    if (first < 0) return;
    for (let axis = 0; axis < 3; axis++) direction[first + axis] = motion[3 * point + axis]!;
  });
  for (const body of bodies) {
    const stands = mapAxes((axis) => body.middle[axis] + biases[body.first + axis]!);
    const first = coordinates + body.first;
    direction.set(add(shift, cross(turn, subtract(stands, middle))), first);
    direction.set(scale(addedTurn(turnOf(biases, body), turn), body.arm), first + 3);
  }
  return direction;
}

/** Gram–Schmidt, twice for accuracy, in place; directions that vanish are dropped. */
function orthonormal(directions: readonly Float64Array[]): Float64Array[] {
  const kept: Float64Array[] = [];
  for (const direction of directions) {
    for (let pass = 0; pass < 2; pass++) for (const other of kept) addShare(direction, -dot(direction, other), other);
    const length = Math.sqrt(dot(direction, direction));
    if (length <= 1e-6) continue;
    for (let i = 0; i < direction.length; i++) direction[i]! /= length;
    kept.push(direction);
  }
  return kept;
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!;
  return sum;
}
