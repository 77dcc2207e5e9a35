import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import { along } from '../maths/linear/gradient';
import { linearise, newRow, type Equations } from './observations';

/** Share of the strongest constraint below which a rigid motion counts as unconstrained, squared. */
const FREE = 1e-11;

/**
 * The rigid motions of the whole net that neither the held points nor the readings forbid: what its
 * datum is short of.
 *
 * @param x coordinates of all points, three each
 * @returns orthonormal directions in the space of the unknowns, biases' columns zero; at most six
 */
export function rigidFreedoms(equations: Equations, x: Float64Array): Float64Array[] {
  const { column, unknowns } = equations;
  const motions = rigidMotions(x, column.length);
  const moved = motions.map((motion) => inUnknowns(motion, column, unknowns));
  const sums = forbidden(equations, x, motions, moved);
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
  const noBias = new Float64Array(equations.biasSigmas.length);
  for (const observation of observations) {
    // No motion of the whole changes a distance.
    if (observation.kind === 'distance') continue;
    linearise(equations, observation, x, noBias, row);
    for (let k = 0; k < 6; k++) shares[k] = along(moved[k]!, row);
    constrain();
  }
  return sums;
}

/** Adds a share of one direction to another, in place. */
function addShare(direction: Float64Array, share: number, other: Float64Array): void {
  for (let i = 0; i < direction.length; i++) direction[i]! += share * other[i]!;
}

/** Three shifts and three turns of all points; turns about the middle, scaled to about a unit a point. */
function rigidMotions(x: Float64Array, count: number): Float64Array[] {
  const middle = [0, 0, 0];
  for (let i = 0; i < 3 * count; i++) middle[i % 3]! += x[i]! / count;
  let size = 0;
  for (let i = 0; i < 3 * count; i++) size += (x[i]! - middle[i % 3]!) ** 2;
  const scale = 1 / Math.max(Math.sqrt(size / Math.max(count, 1)), 1e-9);
  const motions = Array.from({ length: 6 }, () => new Float64Array(3 * count));
  const [, , , aboutX, aboutY, aboutZ] = motions as [never, never, never, Float64Array, Float64Array, Float64Array];
  for (let p = 0; p < 3 * count; p += 3) {
    const dx = (x[p]! - middle[0]!) * scale;
    const dy = (x[p + 1]! - middle[1]!) * scale;
    const dz = (x[p + 2]! - middle[2]!) * scale;
    for (let axis = 0; axis < 3; axis++) motions[axis]![p + axis] = 1;
    aboutX[p + 1] = -dz;
    aboutX[p + 2] = dy;
    aboutY[p] = dz;
    aboutY[p + 2] = -dx;
    aboutZ[p] = -dy;
    aboutZ[p + 1] = dx;
  }
  return motions;
}

function inUnknowns(motion: Float64Array, column: Int32Array, unknowns: number): Float64Array {
  const direction = new Float64Array(unknowns);
  column.forEach((first, point) => {
    if (first < 0) return;
    for (let axis = 0; axis < 3; axis++) direction[first + axis] = motion[3 * point + axis]!;
  });
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
