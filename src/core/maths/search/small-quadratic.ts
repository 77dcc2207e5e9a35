/** A bound on a sum: a·x ≤ b, with b not below zero, so that nothing at all is always allowed. */
export interface Bound {
  readonly a: readonly number[];
  readonly b: number;
}

/** Directions that cost nothing are held in by so much of the largest element. */
const RIDGE = 1e-13;
const MOST_STEPS = 2000;
/** So many steps choose the steepest bound to let go; then the first, which cannot circle (Bland 1977). */
const STEEPEST_STEPS = 200;

/**
 * The x that makes ½·xᵀHx − gᵀx smallest under some bounds: primal active sets from x = 0 (Nocedal and Wright, Numerical
 * Optimization, §16.5), each step from the whole system of its active bounds. For a handful of unknowns.
 *
 * @param H symmetric, nowhere bent down
 */
export function minimise(H: readonly (readonly number[])[], g: readonly number[], bounds: readonly Bound[]): number[] {
  const n = g.length;
  const largest = H.reduce((most, row, i) => Math.max(most, Math.abs(row[i]!)), 0) || 1;
  const steepest = g.reduce((most, value) => Math.max(most, Math.abs(value)), 0);
  const x = new Array<number>(n).fill(0);
  const active: number[] = [];
  for (let step = 0; step < MOST_STEPS; step++) {
    const { by, multipliers } = stepFrom(
      H,
      g,
      x,
      active.map((i) => bounds[i]!),
      RIDGE * largest,
    );
    const size = by.reduce((most, value) => Math.max(most, Math.abs(value)), 0);
    const scale = x.reduce((most, value) => Math.max(most, Math.abs(value)), (1e-6 * steepest) / largest);
    if (size <= 1e-12 * scale) {
      const out = leaving(active, multipliers, step, 1e-11 * steepest);
      if (out < 0) return x;
      active.splice(out, 1);
      continue;
    }
    let [share, blocks] = [1, -1];
    bounds.forEach(({ a, b }, i) => {
      if (active.includes(i)) return;
      const along = dot(a, by);
      if (along <= 1e-14 * size) return;
      const room = Math.max(0, b - dot(a, x)) / along;
      if (room < share) [share, blocks] = [room, i];
    });
    for (let i = 0; i < n; i++) x[i]! += share * by[i]!;
    if (blocks >= 0) active.push(blocks);
  }
  return x;
}

const dot = (a: readonly number[], b: readonly number[]): number => a.reduce((sum, value, i) => sum + value * b[i]!, 0);

/** Which active bound is let go: one that pulls the wrong way by more than rounding; −1 where none does. */
function leaving(active: readonly number[], multipliers: readonly number[], step: number, least: number): number {
  let out = -1;
  active.forEach((bound, k) => {
    if (multipliers[k]! >= -least) return;
    const better = out < 0 || (step < STEEPEST_STEPS ? multipliers[k]! < multipliers[out]! : bound < active[out]!);
    if (better) out = k;
  });
  return out;
}

/** The step to the smallest value with some bounds kept exactly, and what each of them carries. */
function stepFrom(
  H: readonly (readonly number[])[],
  g: readonly number[],
  x: readonly number[],
  kept: readonly Bound[],
  ridge: number,
): { readonly by: number[]; readonly multipliers: number[] } {
  const n = g.length;
  const size = n + kept.length;
  const system = Array.from({ length: size }, (_, r) =>
    Array.from({ length: size + 1 }, (__, c) => {
      if (c === size) return r < n ? g[r]! - dot(H[r]!, x) : 0;
      if (r < n && c < n) return H[r]![c]! + (r === c ? ridge : 0);
      if (r < n) return kept[c - n]!.a[r]!;
      return c < n ? kept[r - n]!.a[c]! : 0;
    }),
  );
  for (let k = 0; k < size; k++) {
    let pivot = k;
    for (let r = k + 1; r < size; r++) if (Math.abs(system[r]![k]!) > Math.abs(system[pivot]![k]!)) pivot = r;
    [system[k], system[pivot]] = [system[pivot]!, system[k]!];
    const row = system[k]!;
    if (row[k] === 0) continue;
    for (let r = k + 1; r < size; r++) {
      const factor = system[r]![k]! / row[k]!;
      if (factor !== 0) for (let c = k; c <= size; c++) system[r]![c]! -= factor * row[c]!;
    }
  }
  const solved = new Array<number>(size).fill(0);
  for (let k = size - 1; k >= 0; k--) {
    const row = system[k]!;
    let sum = row[size]!;
    for (let c = k + 1; c < size; c++) sum -= row[c]! * solved[c]!;
    solved[k] = row[k] === 0 ? 0 : sum / row[k]!;
  }
  return { by: solved.slice(0, n), multipliers: solved.slice(n) };
}
