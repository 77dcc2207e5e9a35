/**
 * Cholesky's factorisation of a symmetric positive definite matrix and its inverse, on flat rows of
 * typed arrays: the one inner loop of a net's solution. Everything is written as products of rows,
 * two rows with two rows at a time, which reads half as much memory as one with one.
 */
export interface Factor {
  readonly size: number;
  /** L of A = L Lᵀ, row major; its upper triangle is meaningless. */
  readonly lower: Float64Array;
}

/** A pivot below this share of its diagonal element counts as zero. */
const SMALLEST_PIVOT = 1e-13;

/** The four products of rows p, p2 with rows q, q2: pq, pq2, p2q, p2q2. */
const products = new Float64Array(4);

/** Fills `products` with the products of four stretches of `length` elements, two in `a`, two in `b`. */
function multiply(
  a: Float64Array,
  p: number,
  p2: number,
  b: Float64Array,
  q: number,
  q2: number,
  length: number,
): void {
  let s = 0;
  let t = 0;
  let u = 0;
  let v = 0;
  for (let k = 0; k < length; k++) {
    const x = a[p + k]!;
    const y = a[p2 + k]!;
    const z = b[q + k]!;
    const w = b[q2 + k]!;
    s += x * z;
    t += x * w;
    u += y * z;
    v += y * w;
  }
  products[0] = s;
  products[1] = t;
  products[2] = u;
  products[3] = v;
}

/**
 * Factorises the lower triangle of `matrix` in place.
 *
 * @returns undefined where the matrix is not positive definite
 */
export function factorise(matrix: Float64Array, size: number): Factor | undefined {
  const m = matrix;
  for (let i = 0; i < size; i += 2) {
    const two = i + 1 < size;
    const row = i * size;
    const row2 = two ? row + size : row;
    for (let j = 0; j < i; j += 2) {
      const [up, up2] = [j * size, (j + 1) * size];
      multiply(m, row, row2, m, up, up2, j);
      const [s, t, u, v] = [products[0]!, products[1]!, products[2]!, products[3]!];
      m[row + j] = (m[row + j]! - s) / m[up + j]!;
      m[row + j + 1] = (m[row + j + 1]! - t - m[row + j]! * m[up2 + j]!) / m[up2 + j + 1]!;
      if (!two) continue;
      m[row2 + j] = (m[row2 + j]! - u) / m[up + j]!;
      m[row2 + j + 1] = (m[row2 + j + 1]! - v - m[row2 + j]! * m[up2 + j]!) / m[up2 + j + 1]!;
    }
    multiply(m, row, row2, m, row, row2, i);
    const [own, cross, , own2] = [products[0]!, products[1]!, 0, products[3]!];
    if (!pivot(row + i, own)) return undefined;
    if (!two) continue;
    m[row2 + i] = (m[row2 + i]! - cross) / m[row + i]!;
    if (!pivot(row2 + i + 1, own2 + m[row2 + i]! ** 2)) return undefined;
  }
  return { size, lower: m };

  function pivot(at: number, taken: number): boolean {
    const diagonal = m[at]!;
    const left = diagonal - taken;
    if (!(left > SMALLEST_PIVOT * diagonal)) return false;
    m[at] = Math.sqrt(left);
    return true;
  }
}

/** The solution of A x = b. */
export function solve({ size, lower }: Factor, b: Float64Array): Float64Array {
  const x = Float64Array.from(b);
  for (let i = 0; i < size; i++) {
    let sum = x[i]!;
    for (let k = 0; k < i; k++) sum -= lower[i * size + k]! * x[k]!;
    x[i] = sum / lower[i * size + i]!;
  }
  for (let i = size - 1; i >= 0; i--) {
    const value = (x[i]! /= lower[i * size + i]!);
    for (let k = 0; k < i; k++) x[k]! -= lower[i * size + k]! * value;
  }
  return x;
}

/** The inverse of A, both triangles, row major: L⁻ᵀ L⁻¹, with L⁻¹ kept by columns. */
export function invert({ size, lower }: Factor): Float64Array {
  const columns = inverseColumns(lower, size);
  const inverse = new Float64Array(size * size);
  for (let i = 0; i < size; i += 2) {
    const i2 = Math.min(i + 1, size - 1);
    for (let j = 0; j <= i; j += 2) {
      const j2 = Math.min(j + 1, size - 1);
      // Columns i and j share the elements from the larger index on; those before it are zero.
      multiply(columns, i * size + i, i2 * size + i, columns, j * size + i, j2 * size + i, size - i);
      inverse[i * size + j] = inverse[j * size + i] = products[0]!;
      inverse[i * size + j2] = inverse[j2 * size + i] = products[1]!;
      inverse[i2 * size + j] = inverse[j * size + i2] = products[2]!;
      inverse[i2 * size + j2] = inverse[j2 * size + i2] = products[3]!;
    }
  }
  return inverse;
}

/** L⁻¹ with column j in row j of the result. */
function inverseColumns(lower: Float64Array, size: number): Float64Array {
  const c = new Float64Array(size * size);
  for (let i = 0; i < size; i++) {
    const row = i * size;
    const scale = 1 / lower[row + i]!;
    for (let j = 0; j + 1 < i; j += 2) {
      // Column j + 1 is zero at j, so both columns may be taken from j on.
      multiply(lower, row + j, row + j, c, j * size + j, (j + 1) * size + j, i - j);
      c[j * size + i] = -products[0]! * scale;
      c[(j + 1) * size + i] = -products[1]! * scale;
    }
    if (i % 2 === 1) {
      const j = i - 1;
      c[j * size + i] = -lower[row + j]! * c[j * size + j]! * scale;
    }
    c[row + i] = scale;
  }
  return c;
}
