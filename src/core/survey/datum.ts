import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
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
  const { column, unknowns, observations } = equations;
  const count = column.length;
  const motions = rigidMotions(x, count);
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
  const moved = motions.map((motion) => inUnknowns(motion, column, unknowns));
  const row = newRow();
  const noBias = new Float64Array(equations.biasSigmas.length);
  for (const observation of observations) {
    // No motion of the whole changes a distance.
    if (observation.kind === 'distance') continue;
    linearise(equations, observation, x, noBias, row);
    shares.fill(0);
    for (let k = 0; k < 6; k++) {
      const motion = moved[k]!;
      for (let i = 0; i < row.count; i++) shares[k]! += row.coefficients[i]! * motion[row.columns[i]!]!;
    }
    constrain();
  }
  const normal = Matrix.from1DArray(6, 6, sums);
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(normal, {
    assumeSymmetric: true,
  });
  const strongest = Math.max(...realEigenvalues, count);
  const free = realEigenvalues.flatMap((value, k) =>
    value <= FREE * strongest ? [eigenvectorMatrix.getColumn(k)] : [],
  );
  return orthonormal(
    free.map((shares) => {
      const direction = new Float64Array(unknowns);
      shares.forEach((share, k) => moved[k]!.forEach((d, i) => (direction[i]! += share * d)));
      return direction;
    }),
  );
}

/** Three shifts and three turns of all points; turns about the middle, scaled to about a unit a point. */
function rigidMotions(x: Float64Array, count: number): Float64Array[] {
  const middle = [0, 0, 0];
  for (let i = 0; i < 3 * count; i++) middle[i % 3]! += x[i]! / count;
  let size = 0;
  for (let i = 0; i < 3 * count; i++) size += (x[i]! - middle[i % 3]!) ** 2;
  const scale = 1 / Math.max(Math.sqrt(size / Math.max(count, 1)), 1e-9);
  const motions = Array.from({ length: 6 }, () => new Float64Array(3 * count));
  for (let p = 0; p < count; p++) {
    const [dx, dy, dz] = [0, 1, 2].map((axis) => (x[3 * p + axis]! - middle[axis]!) * scale) as [
      number,
      number,
      number,
    ];
    for (let axis = 0; axis < 3; axis++) motions[axis]![3 * p + axis] = 1;
    motions[3]!.set([0, -dz, dy], 3 * p);
    motions[4]!.set([dz, 0, -dx], 3 * p);
    motions[5]!.set([-dy, dx, 0], 3 * p);
  }
  return motions;
}

function inUnknowns(motion: Float64Array, column: Int32Array, unknowns: number): Float64Array {
  const direction = new Float64Array(unknowns);
  column.forEach((first, point) => {
    if (first >= 0) direction.set(motion.subarray(3 * point, 3 * point + 3), first);
  });
  return direction;
}

/** Gram–Schmidt, twice for accuracy; directions that vanish are dropped. */
function orthonormal(directions: readonly Float64Array[]): Float64Array[] {
  const kept: Float64Array[] = [];
  for (const direction of directions) {
    for (let pass = 0; pass < 2; pass++)
      for (const other of kept) {
        let share = 0;
        for (let i = 0; i < direction.length; i++) share += direction[i]! * other[i]!;
        for (let i = 0; i < direction.length; i++) direction[i]! -= share * other[i]!;
      }
    const length = Math.sqrt(direction.reduce((sum, d) => sum + d * d, 0));
    if (length > 1e-6) kept.push(direction.map((d) => d / length));
  }
  return kept;
}
