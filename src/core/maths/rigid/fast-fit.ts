import { centroid, subtract, type Vector } from '../geometry/vector';

/** Scatter across the line, as a share of that along it squared, below which points count as on one line. */
const COLLINEAR = 1e-12;
/** Newton's steps double the figures that are right; a start far off needs a dozen. */
const MOST_STEPS = 50;
const SETTLED = 1e-14;
/** A column of the adjugate shorter than this share of its greatest has lost figures: another is longer. */
const SMALL_COLUMN = 1e-4;

/**
 * Rigid fits of many subsets of the same points, for searches: Horn's quaternion method (1987) on flat
 * arrays. The same motion as `fitSelected`, some hundred times as fast, with nothing allocated on the way.
 */
export class FastFit {
  /** Distance of every point of the last set from its reference, mm, in the order of the set. */
  readonly distances: Float64Array;
  private readonly measured: Float64Array;
  private readonly reference: Float64Array;
  private readonly cross = new Float64Array(9);
  private readonly shifted = new Float64Array(16);
  private readonly quaternion = new Float64Array(4);

  constructor(points: readonly { readonly measured: Vector; readonly reference: Vector }[]) {
    this.measured = aboutTheMiddle(points.map(({ measured }) => measured));
    this.reference = aboutTheMiddle(points.map(({ reference }) => reference));
    this.distances = new Float64Array(points.length);
  }

  /**
   * Fits some of the points and fills `distances`.
   *
   * @param weights of the points of the set, in its order
   * @returns false where they lie on one line or are fewer than three
   */
  fit(set: readonly number[], weights: Float64Array): boolean {
    if (set.length < 3) return false;
    const { measured, reference, cross } = this;
    // Sums about the middle of all points, which is near enough that taking out the set's own loses no figures. One by one,
    // as this loop is the whole cost of a search, and few of them have run before it matters.
    let total = 0;
    let squares = 0;
    let mx = 0;
    let my = 0;
    let mz = 0;
    let rx = 0;
    let ry = 0;
    let rz = 0;
    let ax = 0;
    let ay = 0;
    let az = 0;
    let bx = 0;
    let by = 0;
    let bz = 0;
    let cx = 0;
    let cy = 0;
    let cz = 0;
    let xx = 0;
    let yy = 0;
    let zz = 0;
    let xy = 0;
    let xz = 0;
    let yz = 0;
    for (let k = 0; k < set.length; k++) {
      const w = weights[k]!;
      const i = 3 * set[k]!;
      const a = measured[i]!;
      const b = measured[i + 1]!;
      const c = measured[i + 2]!;
      const x = reference[i]!;
      const y = reference[i + 1]!;
      const z = reference[i + 2]!;
      const wa = w * a;
      const wb = w * b;
      const wc = w * c;
      const wx = w * x;
      const wy = w * y;
      const wz = w * z;
      total += w;
      squares += wa * a + wb * b + wc * c;
      mx += wa;
      my += wb;
      mz += wc;
      rx += wx;
      ry += wy;
      rz += wz;
      ax += wa * x;
      ay += wa * y;
      az += wa * z;
      bx += wb * x;
      by += wb * y;
      bz += wb * z;
      cx += wc * x;
      cy += wc * y;
      cz += wc * z;
      xx += wx * x;
      yy += wy * y;
      zz += wz * z;
      xy += wx * y;
      xz += wx * z;
      yz += wy * z;
    }
    squares -= (mx * mx + my * my + mz * mz) / total;
    mx /= total;
    my /= total;
    mz /= total;
    cross[0] = ax - mx * rx;
    cross[1] = ay - mx * ry;
    cross[2] = az - mx * rz;
    cross[3] = bx - my * rx;
    cross[4] = by - my * ry;
    cross[5] = bz - my * rz;
    cross[6] = cx - mz * rx;
    cross[7] = cy - mz * ry;
    cross[8] = cz - mz * rz;
    xx -= (rx * rx) / total;
    yy -= (ry * ry) / total;
    zz -= (rz * rz) / total;
    xy -= (rx * ry) / total;
    xz -= (rx * rz) / total;
    yz -= (ry * rz) / total;
    const minors = xx * yy + xx * zz + yy * zz - xy * xy - xz * xz - yz * yz;
    if (minors <= COLLINEAR * (xx + yy + zz) ** 2) return false;
    if (!this.rotate((squares + xx + yy + zz) / 2)) return false;
    this.measure(set, [mx, my, mz], [rx / total, ry / total, rz / total]);
    return true;
  }

  /** Fills `distances` by the rotation that `quaternion` is, about the two middles of the set. */
  private measure(set: readonly number[], [mx, my, mz]: Vector, [rx, ry, rz]: Vector): void {
    const { quaternion, measured, reference, distances } = this;
    const q0 = quaternion[0]!;
    const q1 = quaternion[1]!;
    const q2 = quaternion[2]!;
    const q3 = quaternion[3]!;
    const xx = q0 * q0 + q1 * q1 - q2 * q2 - q3 * q3;
    const xy = 2 * (q1 * q2 - q0 * q3);
    const xz = 2 * (q1 * q3 + q0 * q2);
    const yx = 2 * (q1 * q2 + q0 * q3);
    const yy = q0 * q0 - q1 * q1 + q2 * q2 - q3 * q3;
    const yz = 2 * (q2 * q3 - q0 * q1);
    const zx = 2 * (q1 * q3 - q0 * q2);
    const zy = 2 * (q2 * q3 + q0 * q1);
    const zz = q0 * q0 - q1 * q1 - q2 * q2 + q3 * q3;
    for (let k = 0; k < set.length; k++) {
      const i = 3 * set[k]!;
      const a = measured[i]! - mx;
      const b = measured[i + 1]! - my;
      const c = measured[i + 2]! - mz;
      const dx = xx * a + xy * b + xz * c - (reference[i]! - rx);
      const dy = yx * a + yy * b + yz * c - (reference[i + 1]! - ry);
      const dz = zx * a + zy * b + zz * c - (reference[i + 2]! - rz);
      distances[k] = Math.sqrt(dx * dx + dy * dy + dz * dz);
    }
  }

  /**
   * The quaternion of the best rotation, of length one, into `quaternion`: the eigenvector of the largest eigenvalue
   * of Horn's symmetric matrix K. The eigenvalue by Newton's steps down the quartic det(K − λI) from above it; the
   * eigenvector as a column of the adjugate of K − λI (Theobald 2005).
   *
   * @param bound half the sum of the weighted squares of both sets of points, which is λ for a perfect fit
   * @returns false where no one rotation is best
   */
  private rotate(bound: number): boolean {
    const c = this.cross;
    let squares = 0;
    for (let i = 0; i < 9; i++) squares += c[i]! * c[i]!;
    const determinant =
      c[0]! * (c[4]! * c[8]! - c[5]! * c[7]!) -
      c[1]! * (c[3]! * c[8]! - c[5]! * c[6]!) +
      c[2]! * (c[3]! * c[7]! - c[4]! * c[6]!);
    this.shift(0);
    this.cofactors(0);
    let constant = 0;
    for (let i = 0; i < 4; i++) constant += this.quaternion[i]! * this.shifted[i]!;
    let largest = bound;
    for (let step = 0; step < MOST_STEPS; step++) {
      const square = largest * largest;
      const value = square * (square - 2 * squares) - 8 * determinant * largest + constant;
      const change = value / (4 * largest * (square - squares) - 8 * determinant);
      if (!(Math.abs(change) > SETTLED * largest)) break;
      largest -= change;
    }
    this.shift(largest);
    // The first column vanishes only where the best turn is by half a circle.
    let length = this.cofactors(0);
    let row = 0;
    if (length < SMALL_COLUMN * bound ** 3) {
      for (let r = 1; r < 4; r++) {
        const other = this.cofactors(r);
        if (!(other > length)) continue;
        length = other;
        row = r;
      }
      this.cofactors(row);
    }
    if (!(length > COLLINEAR * bound ** 3)) return false;
    for (let i = 0; i < 4; i++) this.quaternion[i]! /= length;
    return true;
  }

  /** K − λI into `shifted`, row major. */
  private shift(eigenvalue: number): void {
    const c = this.cross;
    const xx = c[0]!;
    const yy = c[4]!;
    const zz = c[8]!;
    const k = this.shifted;
    k[0] = xx + yy + zz - eigenvalue;
    k[5] = xx - yy - zz - eigenvalue;
    k[10] = yy - xx - zz - eigenvalue;
    k[15] = zz - xx - yy - eigenvalue;
    k[1] = k[4] = c[5]! - c[7]!;
    k[2] = k[8] = c[6]! - c[2]!;
    k[3] = k[12] = c[1]! - c[3]!;
    k[6] = k[9] = c[1]! + c[3]!;
    k[7] = k[13] = c[6]! + c[2]!;
    k[11] = k[14] = c[5]! + c[7]!;
  }

  /** The cofactors of a row of `shifted` into `quaternion`; returns their length. */
  private cofactors(row: number): number {
    const { shifted: k, quaternion: q } = this;
    // The other three rows.
    const u = 4 * (row === 0 ? 1 : 0);
    const v = 4 * (row <= 1 ? 2 : 1);
    const w = 4 * (row <= 2 ? 3 : 2);
    const sign = row % 2 === 0 ? 1 : -1;
    q[0] = sign * minor(k, u + 1, v + 1, w + 1, 1, 2);
    q[1] = -sign * minor(k, u, v, w, 2, 3);
    q[2] = sign * minor(k, u, v, w, 1, 3);
    q[3] = -sign * minor(k, u, v, w, 1, 2);
    return Math.sqrt(q[0] * q[0] + q[1] * q[1] + q[2] * q[2] + q[3] * q[3]);
  }
}

/** The determinant of three rows of `k` that begin at u, v and w, in their first column and those b and c after it. */
const minor = (k: Float64Array, u: number, v: number, w: number, b: number, c: number): number =>
  k[u]! * (k[v + b]! * k[w + c]! - k[v + c]! * k[w + b]!) -
  k[u + b]! * (k[v]! * k[w + c]! - k[v + c]! * k[w]!) +
  k[u + c]! * (k[v]! * k[w + b]! - k[v + b]! * k[w]!);

/** Coordinates of points from their middle, three each. */
function aboutTheMiddle(points: readonly Vector[]): Float64Array {
  const middle = centroid(
    points,
    points.map(() => 1),
  );
  return Float64Array.from(points.flatMap((point) => subtract(point, middle)));
}
