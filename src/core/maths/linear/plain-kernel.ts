import type { Kernel } from './loops';

/** A pivot below this share of its diagonal element counts as zero. */
const SMALLEST_PIVOT = 1e-13;

/** Rows and columns worked on at a time. */
const TILE = 3;

/** The nine products of rows p, p1, p2 with rows q, q1, q2, row major. */
const products = new Float64Array(TILE * TILE);

/**
 * Fills `products` with the products of six stretches of `length` elements, three in `a`, three in `b`, given by
 * where they begin: as plain numbers, because this loop is the whole cost of a net.
 */
function multiply(
  a: Float64Array,
  p: number,
  p1: number,
  p2: number,
  b: Float64Array,
  q: number,
  q1: number,
  q2: number,
  length: number,
): void {
  let s0 = 0;
  let s1 = 0;
  let s2 = 0;
  let t0 = 0;
  let t1 = 0;
  let t2 = 0;
  let u0 = 0;
  let u1 = 0;
  let u2 = 0;
  for (let k = 0; k < length; k++) {
    const x = a[p + k]!;
    const y = a[p1 + k]!;
    const z = a[p2 + k]!;
    const l = b[q + k]!;
    const m = b[q1 + k]!;
    const n = b[q2 + k]!;
    s0 += x * l;
    s1 += x * m;
    s2 += x * n;
    t0 += y * l;
    t1 += y * m;
    t2 += y * n;
    u0 += z * l;
    u1 += z * m;
    u2 += z * n;
  }
  products[0] = s0;
  products[1] = s1;
  products[2] = s2;
  products[3] = t0;
  products[4] = t1;
  products[5] = t2;
  products[6] = u0;
  products[7] = u1;
  products[8] = u2;
}

/**
 * `multiply` with the rows from i on in `a` and from j on in `b`, each from column `from`. A row past the last is the
 * last one again, and its products go unused.
 */
function multiplyRows(
  a: Float64Array,
  i: number,
  b: Float64Array,
  j: number,
  size: number,
  from: number,
  length: number,
): void {
  const lastOfA = a.length - size + from;
  const lastOfB = b.length - size + from;
  const [p, q] = [i * size + from, j * size + from];
  const p1 = Math.min(p + size, lastOfA);
  const q1 = Math.min(q + size, lastOfB);
  multiply(a, p, p1, Math.min(p1 + size, lastOfA), b, q, q1, Math.min(q1 + size, lastOfB), length);
}

function factorise(matrix: Float64Array, size: number): boolean {
  for (let i = 0; i < size; i += TILE) {
    const last = Math.min(i + TILE, size);
    for (let j = 0; j < i; j += TILE) {
      multiplyRows(matrix, i, matrix, j, size, 0, j);
      for (let r = i; r < last; r++) substitute(matrix, size, r, j, TILE, products, (r - i) * TILE);
    }
    multiplyRows(matrix, i, matrix, i, size, 0, i);
    for (let r = i; r < last; r++) {
      substitute(matrix, size, r, i, r - i, products, (r - i) * TILE);
      let taken = products[(r - i) * (TILE + 1)]!;
      for (let k = i; k < r; k++) taken += matrix[r * size + k]! ** 2;
      const diagonal = matrix[r * size + r]!;
      const left = diagonal - taken;
      if (!(left > SMALLEST_PIVOT * diagonal)) return false;
      matrix[r * size + r] = Math.sqrt(left);
    }
  }
  return true;
}

/** Forward substitution of `count` elements of row `r` from column `j` on, `sums` taken off them first. */
function substitute(
  m: Float64Array,
  size: number,
  r: number,
  j: number,
  count: number,
  sums: Float64Array,
  at: number,
): void {
  const row = r * size;
  for (let c = 0; c < count; c++) {
    const column = (j + c) * size + j;
    let left = m[row + j + c]! - sums[at + c]!;
    for (let k = 0; k < c; k++) left -= m[row + j + k]! * m[column + k]!;
    m[row + j + c] = left / m[column + c]!;
  }
}

function coloured(lower: Float64Array, size: number, noise: Float64Array, count: number): Float64Array {
  const result = new Float64Array(count * size);
  for (let run = 0; run < count; run += TILE)
    for (let i = 0; i < size; i += TILE) {
      multiplyRows(noise, run, lower, i, size, 0, i);
      for (let r = 0; r < TILE && run + r < count; r++)
        for (let c = 0; c < TILE && i + c < size; c++) {
          let sum = products[r * TILE + c]!;
          for (let k = i; k <= i + c; k++) sum += lower[(i + c) * size + k]! * noise[(run + r) * size + k]!;
          result[(run + r) * size + i + c] = sum;
        }
    }
  return result;
}

/** L⁻ᵀ L⁻¹, with L⁻¹ kept by columns. */
function invert(lower: Float64Array, size: number): Float64Array {
  const columns = inverseColumns(lower, size);
  const inverse = new Float64Array(size * size);
  for (let i = 0; i < size; i += TILE) {
    for (let j = 0; j <= i; j += TILE) {
      // Columns i and j share the elements from the larger index on; those before it are zero.
      multiplyRows(columns, i, columns, j, size, i, size - i);
      for (let r = 0; r < TILE && i + r < size; r++)
        for (let c = 0; c < TILE && j + c < size; c++)
          inverse[(i + r) * size + j + c] = inverse[(j + c) * size + i + r] = products[r * TILE + c]!;
    }
  }
  return inverse;
}

/** L⁻¹ with column j in row j of the result. */
function inverseColumns(lower: Float64Array, size: number): Float64Array {
  const columns = new Float64Array(size * size);
  for (let i = 0; i < size; i += TILE) {
    const last = Math.min(i + TILE, size);
    for (let j = 0; j <= i; j += TILE) {
      // Column j + 1 is zero at j, so all three columns may be taken from j on.
      multiplyRows(lower, i, columns, j, size, j, i - j);
      for (let r = i; r < last; r++)
        for (let c = j; c < j + TILE && c <= r; c++) {
          let sum = products[(r - i) * TILE + c - j]!;
          for (let k = i; k < r; k++) sum += lower[r * size + k]! * columns[c * size + k]!;
          columns[c * size + r] = ((c === r ? 1 : 0) - sum) / lower[r * size + r]!;
        }
    }
  }
  return columns;
}

/** A Bᵀ row by row. */
function product(a: Float64Array, b: Float64Array, length: number): Float64Array {
  const [rows, columns] = [a.length / length, b.length / length];
  const result = new Float64Array(rows * columns);
  for (let i = 0; i < rows; i += TILE)
    for (let j = 0; j < columns; j += TILE) {
      multiplyRows(a, i, b, j, length, 0, length);
      for (let r = 0; r < TILE && i + r < rows; r++)
        for (let c = 0; c < TILE && j + c < columns; c++) result[(i + r) * columns + j + c] = products[r * TILE + c]!;
    }
  return result;
}

/** The product of a row that begins at `start` with a vector: four sums, none of which waits for another. */
function rowTimes(values: Float64Array, start: number, v: Float64Array, length: number): number {
  let s0 = 0;
  let s1 = 0;
  let s2 = 0;
  let s3 = 0;
  let k = 0;
  for (const fours = length - 3; k < fours; k += 4) {
    s0 += values[start + k]! * v[k]!;
    s1 += values[start + k + 1]! * v[k + 1]!;
    s2 += values[start + k + 2]! * v[k + 2]!;
    s3 += values[start + k + 3]! * v[k + 3]!;
  }
  for (; k < length; k++) s0 += values[start + k]! * v[k]!;
  return s0 + s1 + (s2 + s3);
}

function solve(lower: Float64Array, size: number, b: Float64Array): Float64Array {
  const x = b.slice();
  for (let i = 0; i < size; i++) x[i] = (x[i]! - rowTimes(lower, i * size, x, i)) / lower[i * size + i]!;
  for (let i = size - 1; i >= 0; i--) {
    const value = (x[i]! /= lower[i * size + i]!);
    for (let k = 0; k < i; k++) x[k]! -= lower[i * size + k]! * value;
  }
  return x;
}

const multiplier =
  (matrix: Float64Array, size: number) =>
  (v: Float64Array): Float64Array => {
    const result = new Float64Array(size);
    for (let i = 0; i < size; i++) result[i] = rowTimes(matrix, i * size, v, size);
    return result;
  };

function lessen(matrix: Float64Array, size: number, u: Float64Array, v: Float64Array): void {
  for (let i = 0; i < size; i++)
    for (let term = 0; term < u.length; term += size) {
      const own = u[term + i]! / 2;
      const other = v[term + i]! / 2;
      const row = i * size;
      for (let k = 0; k < size; k++) matrix[row + k]! -= own * v[term + k]! + other * u[term + k]!;
    }
}

/**
 * The kernel in plain TypeScript, on flat rows of typed arrays: the fallback where there is no WebAssembly with SIMD,
 * and what that one is tested against. Everything is written as products of rows, three rows with three rows at a
 * time: a third of the memory read that one with one needs, and as many sums as the registers hold.
 */
export const plainKernel: Kernel = {
  ...{ name: 'plain', factorise, invert, coloured, product, solve, multiplier, lessen },
  // The factor's own loops are as fast.
  factoriseBlocks: () => false,
  solveBlocks: () => false,
};
