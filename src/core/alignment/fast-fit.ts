import type { Vector } from '../geometry/vector';

/** Scatter across the line, as a share of that along it squared, below which points count as on one line. */
const COLLINEAR = 1e-12;
const SWEEPS = 12;

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
  private readonly symmetric = new Float64Array(16);
  private readonly vectors = new Float64Array(16);

  constructor(points: readonly { readonly measured: Vector; readonly reference: Vector }[]) {
    this.measured = Float64Array.from(points.flatMap(({ measured }) => [...measured]));
    this.reference = Float64Array.from(points.flatMap(({ reference }) => [...reference]));
    this.distances = new Float64Array(points.length);
  }

  /**
   * Fits some of the points and fills `distances`.
   *
   * @param weights of the points of the set, in its order
   * @returns false where they lie on one line or are fewer than three
   */
  fit(set: readonly number[], weights: ArrayLike<number>): boolean {
    if (set.length < 3) return false;
    const { measured: m, reference: r, cross } = this;
    let total = 0;
    let [mx, my, mz, rx, ry, rz] = [0, 0, 0, 0, 0, 0];
    for (let k = 0; k < set.length; k++) {
      const w = weights[k]!;
      const i = 3 * set[k]!;
      total += w;
      mx += w * m[i]!;
      my += w * m[i + 1]!;
      mz += w * m[i + 2]!;
      rx += w * r[i]!;
      ry += w * r[i + 1]!;
      rz += w * r[i + 2]!;
    }
    mx /= total;
    my /= total;
    mz /= total;
    rx /= total;
    ry /= total;
    rz /= total;
    cross.fill(0);
    let [xx, yy, zz, xy, xz, yz] = [0, 0, 0, 0, 0, 0];
    for (let k = 0; k < set.length; k++) {
      const w = weights[k]!;
      const i = 3 * set[k]!;
      const [a, b, c] = [m[i]! - mx, m[i + 1]! - my, m[i + 2]! - mz];
      const [x, y, z] = [r[i]! - rx, r[i + 1]! - ry, r[i + 2]! - rz];
      cross[0]! += w * a * x;
      cross[1]! += w * a * y;
      cross[2]! += w * a * z;
      cross[3]! += w * b * x;
      cross[4]! += w * b * y;
      cross[5]! += w * b * z;
      cross[6]! += w * c * x;
      cross[7]! += w * c * y;
      cross[8]! += w * c * z;
      xx += w * x * x;
      yy += w * y * y;
      zz += w * z * z;
      xy += w * x * y;
      xz += w * x * z;
      yz += w * y * z;
    }
    const minors = xx * yy + xx * zz + yy * zz - xy * xy - xz * xz - yz * yz;
    if (minors <= COLLINEAR * (xx + yy + zz) ** 2) return false;
    const [q0, q1, q2, q3] = this.quaternion();
    const rotation = [
      q0 * q0 + q1 * q1 - q2 * q2 - q3 * q3,
      2 * (q1 * q2 - q0 * q3),
      2 * (q1 * q3 + q0 * q2),
      2 * (q1 * q2 + q0 * q3),
      q0 * q0 - q1 * q1 + q2 * q2 - q3 * q3,
      2 * (q2 * q3 - q0 * q1),
      2 * (q1 * q3 - q0 * q2),
      2 * (q2 * q3 + q0 * q1),
      q0 * q0 - q1 * q1 - q2 * q2 + q3 * q3,
    ] as const;
    for (let k = 0; k < set.length; k++) {
      const i = 3 * set[k]!;
      const [a, b, c] = [m[i]! - mx, m[i + 1]! - my, m[i + 2]! - mz];
      const dx = rotation[0] * a + rotation[1] * b + rotation[2] * c - (r[i]! - rx);
      const dy = rotation[3] * a + rotation[4] * b + rotation[5] * c - (r[i + 1]! - ry);
      const dz = rotation[6] * a + rotation[7] * b + rotation[8] * c - (r[i + 2]! - rz);
      this.distances[k] = Math.sqrt(dx * dx + dy * dy + dz * dz);
    }
    return true;
  }

  /** The unit quaternion of the best rotation: the eigenvector of the largest eigenvalue, by Jacobi's method. */
  private quaternion(): readonly [number, number, number, number] {
    const [xx, xy, xz, yx, yy, yz, zx, zy, zz] = this.cross as unknown as [
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
    ];
    const { symmetric: n, vectors: v } = this;
    n.set([
      xx + yy + zz,
      yz - zy,
      zx - xz,
      xy - yx,
      yz - zy,
      xx - yy - zz,
      xy + yx,
      zx + xz,
      zx - xz,
      xy + yx,
      yy - xx - zz,
      yz + zy,
      xy - yx,
      zx + xz,
      yz + zy,
      zz - xx - yy,
    ]);
    v.fill(0);
    for (let i = 0; i < 4; i++) v[5 * i] = 1;
    const scale = Math.abs(n[0]!) + Math.abs(n[5]!) + Math.abs(n[10]!) + Math.abs(n[15]!);
    for (let sweep = 0; sweep < SWEEPS; sweep++) {
      let off = 0;
      for (let p = 0; p < 3; p++)
        for (let q = p + 1; q < 4; q++) {
          const apq = n[4 * p + q]!;
          off += Math.abs(apq);
          if (apq === 0) continue;
          const theta = (n[5 * q]! - n[5 * p]!) / (2 * apq);
          const t = Math.sign(theta || 1) / (Math.abs(theta) + Math.sqrt(theta * theta + 1));
          const c = 1 / Math.sqrt(t * t + 1);
          const s = t * c;
          for (let k = 0; k < 4; k++) {
            const [a, b] = [n[4 * k + p]!, n[4 * k + q]!];
            n[4 * k + p] = c * a - s * b;
            n[4 * k + q] = s * a + c * b;
          }
          for (let k = 0; k < 4; k++) {
            const [a, b] = [n[4 * p + k]!, n[4 * q + k]!];
            n[4 * p + k] = c * a - s * b;
            n[4 * q + k] = s * a + c * b;
            const [d, e] = [v[4 * k + p]!, v[4 * k + q]!];
            v[4 * k + p] = c * d - s * e;
            v[4 * k + q] = s * d + c * e;
          }
        }
      if (off <= 1e-15 * scale) break;
    }
    let best = 0;
    for (let i = 1; i < 4; i++) if (n[5 * i]! > n[5 * best]!) best = i;
    return [v[best]!, v[4 + best]!, v[8 + best]!, v[12 + best]!];
  }
}
