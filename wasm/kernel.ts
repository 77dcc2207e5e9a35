/**
 * The inner loops of the dense linear algebra, in AssemblyScript: Cholesky's factorisation, the inverse and the
 * products of rows, two doubles at a time and three rows by three rows. The same steps as the fallback in
 * src/core/maths/linear/plain-kernel.ts. Matrices are row major; every pointer is to their first element.
 */

/** A pivot below this share of its diagonal element counts as zero. */
const SMALLEST_PIVOT: f64 = 1e-13;
const WORD: usize = 8;

/** The nine products of the last call of `products`, row major. */
const sums = memory.data(72);

/** Products of three rows at `p`, `p1`, `p2` with three at `q`, `q1`, `q2` over `length` elements. */
function products(p: usize, p1: usize, p2: usize, q: usize, q1: usize, q2: usize, length: i32): void {
  let s0 = f64x2.splat(0);
  let s1 = s0;
  let s2 = s0;
  let t0 = s0;
  let t1 = s0;
  let t2 = s0;
  let u0 = s0;
  let u1 = s0;
  let u2 = s0;
  const pairs: usize = (<usize>(length >> 1)) << 4;
  for (let k: usize = 0; k < pairs; k += 16) {
    const x = v128.load(p + k);
    const y = v128.load(p1 + k);
    const z = v128.load(p2 + k);
    const l = v128.load(q + k);
    s0 = f64x2.add(s0, f64x2.mul(x, l));
    t0 = f64x2.add(t0, f64x2.mul(y, l));
    u0 = f64x2.add(u0, f64x2.mul(z, l));
    const m = v128.load(q1 + k);
    s1 = f64x2.add(s1, f64x2.mul(x, m));
    t1 = f64x2.add(t1, f64x2.mul(y, m));
    u1 = f64x2.add(u1, f64x2.mul(z, m));
    const n = v128.load(q2 + k);
    s2 = f64x2.add(s2, f64x2.mul(x, n));
    t2 = f64x2.add(t2, f64x2.mul(y, n));
    u2 = f64x2.add(u2, f64x2.mul(z, n));
  }
  store<f64>(sums, f64x2.extract_lane(s0, 0) + f64x2.extract_lane(s0, 1), 0);
  store<f64>(sums, f64x2.extract_lane(s1, 0) + f64x2.extract_lane(s1, 1), 8);
  store<f64>(sums, f64x2.extract_lane(s2, 0) + f64x2.extract_lane(s2, 1), 16);
  store<f64>(sums, f64x2.extract_lane(t0, 0) + f64x2.extract_lane(t0, 1), 24);
  store<f64>(sums, f64x2.extract_lane(t1, 0) + f64x2.extract_lane(t1, 1), 32);
  store<f64>(sums, f64x2.extract_lane(t2, 0) + f64x2.extract_lane(t2, 1), 40);
  store<f64>(sums, f64x2.extract_lane(u0, 0) + f64x2.extract_lane(u0, 1), 48);
  store<f64>(sums, f64x2.extract_lane(u1, 0) + f64x2.extract_lane(u1, 1), 56);
  store<f64>(sums, f64x2.extract_lane(u2, 0) + f64x2.extract_lane(u2, 1), 64);
  if (length & 1) {
    const x = load<f64>(p + pairs);
    const y = load<f64>(p1 + pairs);
    const z = load<f64>(p2 + pairs);
    const l = load<f64>(q + pairs);
    const m = load<f64>(q1 + pairs);
    const n = load<f64>(q2 + pairs);
    addSum(0, x * l);
    addSum(8, x * m);
    addSum(16, x * n);
    addSum(24, y * l);
    addSum(32, y * m);
    addSum(40, y * n);
    addSum(48, z * l);
    addSum(56, z * m);
    addSum(64, z * n);
  }
}

function addSum(at: usize, value: f64): void {
  store<f64>(sums + at, load<f64>(sums + at) + value);
}

/** `products` with rows i… of `a` (of `rowsOfA`) and j… of `b`, from column `from`; past the last the last again. */
function tile(a: usize, i: i32, rowsOfA: i32, b: usize, j: i32, rowsOfB: i32, size: i32, from: i32, length: i32): void {
  const i1 = min(i + 1, rowsOfA - 1);
  const i2 = min(i + 2, rowsOfA - 1);
  const j1 = min(j + 1, rowsOfB - 1);
  const j2 = min(j + 2, rowsOfB - 1);
  products(
    at(a, i, size, from),
    at(a, i1, size, from),
    at(a, i2, size, from),
    at(b, j, size, from),
    at(b, j1, size, from),
    at(b, j2, size, from),
    length,
  );
}

function at(matrix: usize, row: i32, size: i32, column: i32): usize {
  return matrix + <usize>(row * size + column) * WORD;
}

/** Forward substitution of `count` elements of row `r` from column `j` on, `sums` from `offset` on taken off first. */
function substitute(m: usize, size: i32, r: i32, j: i32, count: i32, offset: usize): void {
  const row = at(m, r, size, j);
  for (let c = 0; c < count; c++) {
    const column = at(m, j + c, size, j);
    let left = load<f64>(row + <usize>c * WORD) - load<f64>(sums + offset + <usize>c * WORD);
    for (let k = 0; k < c; k++) left -= load<f64>(row + <usize>k * WORD) * load<f64>(column + <usize>k * WORD);
    store<f64>(row + <usize>c * WORD, left / load<f64>(column + <usize>c * WORD));
  }
}

/** Factorises the lower triangle at `m` in place; 0 where the matrix is not positive definite. */
export function factorise(m: usize, size: i32): i32 {
  for (let i = 0; i < size; i += 3) {
    const last = min(i + 3, size);
    for (let j = 0; j < i; j += 3) {
      tile(m, i, size, m, j, size, size, 0, j);
      for (let r = i; r < last; r++) substitute(m, size, r, j, 3, <usize>(r - i) * 24);
    }
    tile(m, i, size, m, i, size, size, 0, i);
    for (let r = i; r < last; r++) {
      substitute(m, size, r, i, r - i, <usize>(r - i) * 24);
      let taken = load<f64>(sums + <usize>(r - i) * 32);
      for (let k = i; k < r; k++) {
        const own = load<f64>(at(m, r, size, k));
        taken += own * own;
      }
      const diagonal = load<f64>(at(m, r, size, r));
      const left = diagonal - taken;
      if (!(left > SMALLEST_PIVOT * diagonal)) return 0;
      store<f64>(at(m, r, size, r), sqrt(left));
    }
  }
  return 1;
}

/** The inverse of A from its factor at `lower`: L⁻¹ by columns into `columns`, L⁻ᵀL⁻¹ into `inverse`. */
export function invert(lower: usize, columns: usize, inverse: usize, size: i32): void {
  memory.fill(columns, 0, <usize>(size * size) * WORD);
  for (let i = 0; i < size; i += 3) {
    const last = min(i + 3, size);
    for (let j = 0; j <= i; j += 3) {
      // Column j + 1 is zero at j, so all three columns may be taken from j on.
      tile(lower, i, size, columns, j, size, size, j, i - j);
      for (let r = i; r < last; r++)
        for (let c = j; c < j + 3 && c <= r; c++) {
          let sum = load<f64>(sums + <usize>((r - i) * 3 + c - j) * WORD);
          for (let k = i; k < r; k++) sum += load<f64>(at(lower, r, size, k)) * load<f64>(at(columns, c, size, k));
          store<f64>(at(columns, c, size, r), ((c == r ? 1.0 : 0.0) - sum) / load<f64>(at(lower, r, size, r)));
        }
    }
  }
  for (let i = 0; i < size; i += 3)
    for (let j = 0; j <= i; j += 3) {
      // Columns i and j share the elements from the larger index on; those before it are zero.
      tile(columns, i, size, columns, j, size, size, i, size - i);
      for (let r = 0; r < 3 && i + r < size; r++)
        for (let c = 0; c < 3 && j + c < size; c++) {
          const sum = load<f64>(sums + <usize>(r * 3 + c) * WORD);
          store<f64>(at(inverse, i + r, size, j + c), sum);
          store<f64>(at(inverse, j + c, size, i + r), sum);
        }
    }
}

/** L z for `count` rows z at `noise`, into `result`. */
export function coloured(lower: usize, size: i32, noise: usize, count: i32, result: usize): void {
  for (let run = 0; run < count; run += 3)
    for (let i = 0; i < size; i += 3) {
      tile(noise, run, count, lower, i, size, size, 0, i);
      for (let r = 0; r < 3 && run + r < count; r++)
        for (let c = 0; c < 3 && i + c < size; c++) {
          let sum = load<f64>(sums + <usize>(r * 3 + c) * WORD);
          for (let k = i; k <= i + c; k++)
            sum += load<f64>(at(lower, i + c, size, k)) * load<f64>(at(noise, run + r, size, k));
          store<f64>(at(result, run + r, size, i + c), sum);
        }
    }
}

/** A Bᵀ of `rows` rows at `a` and `columns` rows at `b`, each of `length` elements, into `result`. */
export function product(a: usize, rows: i32, b: usize, columns: i32, length: i32, result: usize): void {
  for (let i = 0; i < rows; i += 3)
    for (let j = 0; j < columns; j += 3) {
      tile(a, i, rows, b, j, columns, length, 0, length);
      for (let r = 0; r < 3 && i + r < rows; r++)
        for (let c = 0; c < 3 && j + c < columns; c++)
          store<f64>(at(result, i + r, columns, j + c), load<f64>(sums + <usize>(r * 3 + c) * WORD));
    }
}

/** The product of two rows. */
function dot(p: usize, q: usize, length: i32): f64 {
  let even = f64x2.splat(0);
  let odd = even;
  const pairs: usize = (<usize>(length >> 1)) << 4;
  const quads: usize = (<usize>(length >> 2)) << 5;
  for (let k: usize = 0; k < quads; k += 32) {
    even = f64x2.add(even, f64x2.mul(v128.load(p + k), v128.load(q + k)));
    odd = f64x2.add(odd, f64x2.mul(v128.load(p + k, 16), v128.load(q + k, 16)));
  }
  if (quads < pairs) even = f64x2.add(even, f64x2.mul(v128.load(p + quads), v128.load(q + quads)));
  even = f64x2.add(even, odd);
  const sum = f64x2.extract_lane(even, 0) + f64x2.extract_lane(even, 1);
  return length & 1 ? sum + load<f64>(p + pairs) * load<f64>(q + pairs) : sum;
}

/** Takes `a` times the row at `p` and `b` times the row at `q` off the row at `to`. */
function takeOff(to: usize, a: f64, p: usize, b: f64, q: usize, length: i32): void {
  const pairs: usize = (<usize>(length >> 1)) << 4;
  const both = f64x2.splat(a);
  const others = f64x2.splat(b);
  for (let k: usize = 0; k < pairs; k += 16) {
    const share = f64x2.add(f64x2.mul(both, v128.load(p + k)), f64x2.mul(others, v128.load(q + k)));
    v128.store(to + k, f64x2.sub(v128.load(to + k), share));
  }
  if (length & 1) store<f64>(to + pairs, load<f64>(to + pairs) - (a * load<f64>(p + pairs) + b * load<f64>(q + pairs)));
}

/** Turns the right-hand side at `x` into the solution of L Lᵀ x = b, in place. */
export function solve(lower: usize, size: i32, x: usize): void {
  for (let i = 0; i < size; i++) {
    const own = x + <usize>i * WORD;
    store<f64>(own, (load<f64>(own) - dot(at(lower, i, size, 0), x, i)) / load<f64>(at(lower, i, size, i)));
  }
  for (let i = size - 1; i >= 0; i--) {
    const own = x + <usize>i * WORD;
    const value = load<f64>(own) / load<f64>(at(lower, i, size, i));
    store<f64>(own, value);
    takeOff(x, value, at(lower, i, size, 0), 0, x, i);
  }
}

/** A v of a square matrix, into `result`. */
export function times(matrix: usize, size: i32, v: usize, result: usize): void {
  for (let i = 0; i < size; i++) store<f64>(result + <usize>i * WORD, dot(at(matrix, i, size, 0), v, size));
}

/** A − Σ (u vᵀ + v uᵀ)/2 over `count` rows at `u` and at `v`, in place. */
export function less(matrix: usize, size: i32, u: usize, v: usize, count: i32): void {
  for (let i = 0; i < size; i++)
    for (let t = 0; t < count; t++) {
      const own = load<f64>(at(u, t, size, i)) / 2;
      const other = load<f64>(at(v, t, size, i)) / 2;
      takeOff(at(matrix, i, size, 0), own, at(v, t, size, 0), other, at(u, t, size, 0), size);
    }
}

/** Where memory of the caller's own begins. */
export function free(): usize {
  return __heap_base;
}
