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
  const motions = wholeMotions(x);
  const moved = motions.map((motion) => inUnknowns(equations, motion, x, biases));
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
  motions: readonly WholeMotion[],
  moved: readonly Float64Array[],
): Float64Array {
  const { column, observations } = equations;
  const sums = new Float64Array(36);
  const shares = new Float64Array(6);
  const constrain = () => {
    for (let r = 0; r < 6; r++) for (let c = 0; c <= r; c++) sums[6 * r + c]! += shares[r]! * shares[c]!;
  };
  const each = motions.map(() => new Float64Array(3));
  column.forEach((first, point) => {
    if (first >= 0) return;
    motions.forEach((motion, k) => moveOf(motion, x, point, each[k]!, 0));
    for (let axis = 0; axis < 3; axis++) {
      for (let k = 0; k < 6; k++) shares[k] = each[k]![axis]!;
      constrain();
    }
  });
  const row = newRow();
  for (const observation of observations) {
    // No motion of the whole changes a distance.
    if (observation.kind === 'distance') continue;
    if (observation.kind === 'coordinate' && !observation.on) {
      const first = column[observation.a]!;
      // What is read of a fixed point holds nothing more.
      if (first < 0) continue;
      for (let k = 0; k < 6; k++) shares[k] = moved[k]![first + observation.axis]!;
    } else {
      linearise(equations, observation, x, biases, row);
      for (let k = 0; k < 6; k++) shares[k] = along(moved[k]!, row);
    }
    constrain();
  }
  for (let r = 0; r < 6; r++) for (let c = r + 1; c < 6; c++) sums[6 * r + c] = sums[6 * c + r]!;
  return sums;
}

/** Adds a share of one direction to another, in place. */
function addShare(direction: Float64Array, share: number, other: Float64Array): void {
  for (let i = 0; i < direction.length; i++) direction[i]! += share * other[i]!;
}

/** A motion of the whole: how much it shifts what stands in the middle, and how far it turns everything, radians. */
interface WholeMotion {
  readonly shift: Vector;
  readonly turn: Vector;
  readonly middle: Vector;
}

/** Three shifts and then three turns about the middle, each of which moves the points about a unit. */
function wholeMotions(x: Float64Array): WholeMotion[] {
  const count = Math.max(x.length / 3, 1);
  const sums = new Float64Array(3);
  for (let i = 0; i < x.length; i++) sums[i % 3]! += x[i]! / count;
  const middle = mapAxes((k) => sums[k]!);
  let size = 0;
  for (let i = 0; i < x.length; i++) size += (x[i]! - sums[i % 3]!) ** 2;
  const turnScale = 1 / Math.max(Math.sqrt(size / count), 1e-9);
  const still: Vector = [0, 0, 0];
  const along = [0, 1, 2].map((k) => mapAxes((axis) => Number(axis === k)));
  return [
    ...along.map((shift) => ({ shift, turn: still, middle })),
    ...along.map((turn) => ({ shift: still, turn: scale(turn, turnScale), middle })),
  ];
}

/** How a motion of the whole moves one point, into three elements of `into` from `at` on. */
function moveOf(
  { shift, turn, middle }: WholeMotion,
  x: Float64Array,
  point: number,
  into: Float64Array,
  at: number,
): void {
  const px = x[3 * point]! - middle[0];
  const py = x[3 * point + 1]! - middle[1];
  const pz = x[3 * point + 2]! - middle[2];
  into[at] = shift[0] + turn[1] * pz - turn[2] * py;
  into[at + 1] = shift[1] + turn[2] * px - turn[0] * pz;
  into[at + 2] = shift[2] + turn[0] * py - turn[1] * px;
}

/** A motion of the whole in the space of the unknowns. */
function inUnknowns(
  { column, unknowns, coordinates, bodies }: Equations,
  motion: WholeMotion,
  x: Float64Array,
  biases: Float64Array,
): Float64Array {
  const direction = new Float64Array(unknowns);
  for (let point = 0; point < column.length; point++) {
    const first = column[point]!;
    if (first >= 0) moveOf(motion, x, point, direction, first);
  }
  const { shift, turn, middle } = motion;
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
