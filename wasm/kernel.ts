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

function int(array: usize, i: i32): i32 {
  return load<i32>(array + ((<usize>i) << 2));
}

/** Takes two rows of six at `row`, times six rows of six at `by`, off two rows of six at `to`. */
function takeSixOff(row: usize, by: usize, to: usize): void {
  let s0 = v128.load(to);
  let s1 = v128.load(to, 16);
  let s2 = v128.load(to, 32);
  let t0 = v128.load(to, 48);
  let t1 = v128.load(to, 64);
  let t2 = v128.load(to, 80);
  for (let k: usize = 0; k < 48; k += 8) {
    const x = v128.load64_splat(row + k);
    const y = v128.load64_splat(row + k, 48);
    const l = v128.load(by);
    const m = v128.load(by, 16);
    const n = v128.load(by, 32);
    s0 = f64x2.sub(s0, f64x2.mul(x, l));
    t0 = f64x2.sub(t0, f64x2.mul(y, l));
    s1 = f64x2.sub(s1, f64x2.mul(x, m));
    t1 = f64x2.sub(t1, f64x2.mul(y, m));
    s2 = f64x2.sub(s2, f64x2.mul(x, n));
    t2 = f64x2.sub(t2, f64x2.mul(y, n));
    by += 48;
  }
  v128.store(to, s0);
  v128.store(to, s1, 16);
  v128.store(to, s2, 32);
  v128.store(to, t0, 48);
  v128.store(to, t1, 64);
  v128.store(to, t2, 80);
}

/** The same of `count` rows of `width` elements, times `width` rows of `across`. */
function takeRowsOff(row: usize, by: usize, to: usize, count: i32, across: i32, width: i32): void {
  for (let a = 0; a < count; a++)
    for (let b = 0; b < across; b++) {
      let sum: f64 = 0;
      for (let c = 0; c < width; c++) sum += load<f64>(at(row, a, width, c)) * load<f64>(at(by, c, across, b));
      const place = at(to, a, across, b);
      store<f64>(place, load<f64>(place) - sum);
    }
}

/** L D Lᵀ of a panel of `rows` rows by `width`, its own rows first; 0 where a pivot is nothing. */
function factorisePanel(panel: usize, rows: i32, width: i32, pivots: usize, diagonals: usize, nothing: f64): i32 {
  for (let c = 0; c < width; c++) {
    let pivot = load<f64>(at(panel, c, width, c));
    for (let k = 0; k < c; k++) {
      const share = load<f64>(at(panel, c, width, k));
      pivot -= share * share * load<f64>(pivots + <usize>k * WORD);
    }
    if (!(pivot > nothing * load<f64>(diagonals + <usize>c * WORD))) return 0;
    store<f64>(pivots + <usize>c * WORD, pivot);
    for (let r = c + 1; r < rows; r++) {
      let sum = load<f64>(at(panel, r, width, c));
      for (let k = 0; k < c; k++)
        sum -=
          load<f64>(at(panel, r, width, k)) * load<f64>(at(panel, c, width, k)) * load<f64>(pivots + <usize>k * WORD);
      store<f64>(at(panel, r, width, c), sum / pivot);
    }
  }
  return 1;
}

/**
 * Factorises the panels at `values` in place, as `core/maths/linear/block-factor.ts` does; 0 where a pivot is nothing. Of block
 * column j the panel begins at element `panelAt[j]`, the blocks it reaches at `reachAt[j]` of `reach`, and the rows at which these
 * begin at `reachAt[j] + j` of `begins`, one more than there are blocks. `scaled` is room for a block.
 */
export function factoriseBlocks(
  count: i32,
  widths: usize,
  first: usize,
  panelAt: usize,
  reachAt: usize,
  reach: usize,
  begins: usize,
  values: usize,
  pivots: usize,
  diagonals: usize,
  scaled: usize,
  nothing: f64,
): i32 {
  for (let j = 0; j < count; j++) {
    const width = int(widths, j);
    const panel = values + <usize>int(panelAt, j) * WORD;
    for (let c = 0; c < width; c++)
      store<f64>(diagonals + <usize>(int(first, j) + c) * WORD, load<f64>(at(panel, c, width, c)));
  }
  for (let j = 0; j < count; j++) {
    const width = int(widths, j);
    if (width == 0) continue;
    const panel = values + <usize>int(panelAt, j) * WORD;
    const own = int(reachAt, j);
    const blocks = int(reachAt, j + 1) - own;
    const begin = begins + ((<usize>(own + j)) << 2);
    const pivot = pivots + <usize>int(first, j) * WORD;
    const diagonal = diagonals + <usize>int(first, j) * WORD;
    if (!factorisePanel(panel, int(begin, blocks), width, pivot, diagonal, nothing)) return 0;
    for (let p = 1; p < blocks; p++) {
      const i = int(reach, own + p);
      const across = int(widths, i);
      const target = values + <usize>int(panelAt, i) * WORD;
      const places = reach + ((<usize>int(reachAt, i)) << 2);
      const offsets = begins + ((<usize>(int(reachAt, i) + i)) << 2);
      for (let b = 0; b < across; b++)
        for (let c = 0; c < width; c++)
          store<f64>(
            at(scaled, c, across, b),
            load<f64>(at(panel, int(begin, p) + b, width, c)) * load<f64>(pivot + <usize>c * WORD),
          );
      let place = 0;
      for (let q = p; q < blocks; q++) {
        while (int(places, place) != int(reach, own + q)) place++;
        const from = int(begin, q);
        let rows = int(begin, q + 1) - from;
        let source = at(panel, from, width, 0);
        let to = at(target, int(offsets, place), across, 0);
        if (width == 6 && across == 6)
          for (; rows > 1; rows -= 2) {
            takeSixOff(source, scaled, to);
            source += 96;
            to += 96;
          }
        if (rows > 0) takeRowsOff(source, scaled, to, rows, across, width);
      }
    }
  }
  return 1;
}

/** Takes a row of `width` elements at `row`, times those at `x`, off the element at `to`. */
function takeRowOff(row: usize, x: usize, to: usize, width: i32): void {
  let sum: f64;
  if (width == 6) {
    const all = f64x2.add(
      f64x2.add(f64x2.mul(v128.load(row), v128.load(x)), f64x2.mul(v128.load(row, 16), v128.load(x, 16))),
      f64x2.mul(v128.load(row, 32), v128.load(x, 32)),
    );
    sum = f64x2.extract_lane(all, 0) + f64x2.extract_lane(all, 1);
  } else {
    sum = 0;
    for (let c = 0; c < width; c++) sum += load<f64>(row + <usize>c * WORD) * load<f64>(x + <usize>c * WORD);
  }
  store<f64>(to, load<f64>(to) - sum);
}

/** Takes `value` times a row of `width` elements at `row` off those at `to`. */
function takeTimesOff(row: usize, value: f64, to: usize, width: i32): void {
  if (width == 6) {
    const both = f64x2.splat(value);
    v128.store(to, f64x2.sub(v128.load(to), f64x2.mul(both, v128.load(row))));
    v128.store(to, f64x2.sub(v128.load(to, 16), f64x2.mul(both, v128.load(row, 16))), 16);
    v128.store(to, f64x2.sub(v128.load(to, 32), f64x2.mul(both, v128.load(row, 32))), 32);
  } else
    for (let c = 0; c < width; c++) {
      const place = to + <usize>c * WORD;
      store<f64>(place, load<f64>(place) - value * load<f64>(row + <usize>c * WORD));
    }
}

/** Turns the right-hand side at `x` into the solution by what `factoriseBlocks` made; where a pivot is 0 its element becomes 0. */
export function solveBlocks(
  count: i32,
  widths: usize,
  first: usize,
  panelAt: usize,
  reachAt: usize,
  reach: usize,
  values: usize,
  pivots: usize,
  x: usize,
): void {
  for (let j = 0; j < count; j++) {
    const width = int(widths, j);
    const own = x + <usize>int(first, j) * WORD;
    let row = values + <usize>int(panelAt, j) * WORD;
    const next = <usize>width * WORD;
    for (let r = 0; r < width; r++) {
      for (let c = 0; c < r; c++) {
        const place = own + <usize>r * WORD;
        const share = load<f64>(row + <usize>c * WORD) * load<f64>(own + <usize>c * WORD);
        store<f64>(place, load<f64>(place) - share);
      }
      row += next;
    }
    for (let p = int(reachAt, j) + 1; p < int(reachAt, j + 1); p++) {
      const i = int(reach, p);
      const to = x + <usize>int(first, i) * WORD;
      for (let a = 0; a < int(widths, i); a++) {
        takeRowOff(row, own, to + <usize>a * WORD, width);
        row += next;
      }
    }
  }
  const size = int(first, count);
  for (let i = 0; i < size; i++) {
    const place = x + <usize>i * WORD;
    const pivot = load<f64>(pivots + <usize>i * WORD);
    store<f64>(place, pivot == 0 ? 0 : load<f64>(place) / pivot);
  }
  for (let j = count - 1; j >= 0; j--) {
    const width = int(widths, j);
    const own = x + <usize>int(first, j) * WORD;
    const panel = values + <usize>int(panelAt, j) * WORD;
    const next = <usize>width * WORD;
    let row = panel + <usize>width * next;
    for (let p = int(reachAt, j) + 1; p < int(reachAt, j + 1); p++) {
      const i = int(reach, p);
      const from = x + <usize>int(first, i) * WORD;
      for (let a = 0; a < int(widths, i); a++) {
        takeTimesOff(row, load<f64>(from + <usize>a * WORD), own, width);
        row += next;
      }
    }
    for (let r = width - 1; r > 0; r--) {
      const value = load<f64>(own + <usize>r * WORD);
      for (let c = 0; c < r; c++) {
        const place = own + <usize>c * WORD;
        store<f64>(place, load<f64>(place) - load<f64>(at(panel, r, width, c)) * value);
      }
    }
  }
}

/** Where memory of the caller's own begins. */
export function free(): usize {
  return __heap_base;
}
