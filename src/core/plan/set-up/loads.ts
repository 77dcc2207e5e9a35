import { Matrix, solve } from 'ml-matrix';
import { GRAVITY } from '../../structure/shell-frame';

/** A place the shell rests on. Bench axes, mm. */
export interface Seat {
  readonly x: number;
  readonly y: number;
  /** How far its top stands above the plane the shell would rest on unbent, mm. */
  readonly height: number;
}

export interface Weight {
  readonly kilograms: number;
  /** Where it acts, bench axes, mm. */
  readonly x: number;
  readonly y: number;
}

/** How hard the shell is to twist. */
export interface Torsion {
  /** N·m per degree between two stations … */
  readonly stiffness: number;
  /** … so far apart, mm. */
  readonly length: number;
}

export interface Loads {
  /** N on each seat, never negative: a seat pushes and does not hold down. */
  readonly newtons: readonly number[];
  /** How far the shell's front is turned against its rear by its own support, degrees over the torsion's length. */
  readonly twist: number;
  /** How the shell lies: the height it has risen by at any place. */
  readonly lie: Lie;
  /** How far each seat stands below the metal it should carry, mm; 0 where it carries. */
  readonly gaps: readonly number[];
}

/** A shell turned and twisted a little: rise at (x, y) = at + pitch·(x − x₀) + roll·y + twist·(x − x₀)·y, mm and 1/mm. */
export interface Lie {
  readonly at: number;
  readonly pitch: number;
  readonly roll: number;
  readonly twist: number;
  readonly x0: number;
}

export const riseAt = ({ at, pitch, roll, twist, x0 }: Lie, x: number, y: number): number =>
  at + pitch * (x - x0) + roll * y + twist * (x - x0) * y;

/** A stand or clamp under load gives about so much, N/mm. */
const SEAT_STIFFNESS = 20_000;
const MOST_ROUNDS = 100;

/**
 * What each seat carries. The shell is rigid but for one twist: u = a + b·x + c·y + t·(x − x̄)·y, whose energy is ½κt²; each
 * seat is a stiff spring that only pushes. The forces make ½κt² + W·u(centre) + ½Σk·max(0, h − u)² smallest: convex, so
 * that Newton's steps on the set in contact, halved where they lead up, end at the one answer (unilateral contact,
 * e.g. Wriggers, Computational Contact Mechanics, §5). On three seats it is plain statics whatever the stiffnesses.
 *
 * @param torsion absent: a shell that does not twist
 * @returns undefined where all seats stand on one line, or the weight lies outside of what they span
 */
export function loadsOn(seats: readonly Seat[], weight: Weight, torsion?: Torsion): Loads | undefined {
  if (seats.length < 3 || onOneLine(seats)) return undefined;
  const middle = seats.reduce((sum, { x }) => sum + x, 0) / seats.length;
  const kappa = torsion ? torsion.stiffness * 1000 * (180 / Math.PI) * torsion.length ** 2 : Infinity;
  const modes = (x: number, y: number) => [1, x - middle, y, ...(torsion ? [(x - middle) * y] : [])];
  const own = seats.map(({ x, y }) => modes(x, y));
  const size = own[0]!.length;
  const newtons = weight.kilograms * GRAVITY;
  const pull = modes(weight.x, weight.y).map((value) => value * newtons);
  if (torsion) pull[3] = 0;
  const u = (state: readonly number[], i: number) => own[i]!.reduce((sum, mode, k) => sum + mode * state[k]!, 0);
  const presses = (state: readonly number[]) => seats.map(({ height }, i) => height - u(state, i));
  const energy = (state: readonly number[]) =>
    state.reduce((sum, value, k) => sum + pull[k]! * value, 0) +
    (torsion ? 0.5 * kappa * state[3]! ** 2 : 0) +
    presses(state).reduce((sum, press) => sum + 0.5 * SEAT_STIFFNESS * Math.max(0, press) ** 2, 0);

  let state: number[] = Array.from({ length: size }, (_, k) =>
    k === 0 ? Math.min(...seats.map(({ height }) => height)) - newtons / SEAT_STIFFNESS : 0,
  );
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const pressing = presses(state);
    const curve = Matrix.zeros(size, size);
    const slope = [...pull];
    if (torsion) {
      curve.set(3, 3, kappa);
      slope[3]! += kappa * state[3]!;
    }
    pressing.forEach((press, i) => {
      if (press <= 0) return;
      for (let r = 0; r < size; r++) {
        slope[r]! -= SEAT_STIFFNESS * press * own[i]![r]!;
        for (let c = 0; c < size; c++) curve.set(r, c, curve.get(r, c) + SEAT_STIFFNESS * own[i]![r]! * own[i]![c]!);
      }
    });
    // Where too few are in contact the shell would fall without end: a touch of stiffness lets it fall onto the next.
    for (let k = 0; k < size; k++) curve.set(k, k, curve.get(k, k) * (1 + 1e-12) + 1e-9 * SEAT_STIFFNESS);
    const step = solve(curve, Matrix.columnVector(slope)).to1DArray();
    let share = 1;
    const before = energy(state);
    let next = state;
    for (; share > 1e-9; share /= 2) {
      next = state.map((value, k) => value - share * step[k]!);
      if (energy(next) <= before) break;
    }
    const moved = Math.max(
      ...next.map((value, k) => Math.abs(value - state[k]!) * Math.max(...own.map((row) => Math.abs(row[k]!)))),
    );
    state = next;
    if (moved < 1e-10) break;
  }
  const forces = presses(state).map((press) => SEAT_STIFFNESS * Math.max(0, press));
  const carried = forces.reduce((sum, force) => sum + force, 0);
  if (Math.abs(carried - newtons) > 1e-3 * newtons) return undefined;
  return {
    newtons: forces,
    twist: torsion ? state[3]! * torsion.length * (180 / Math.PI) : 0,
    lie: { at: state[0]!, pitch: state[1]!, roll: state[2]!, twist: state[3] ?? 0, x0: middle },
    gaps: presses(state).map((press) => Math.max(0, -press)),
  };
}

/** Whether places lie on one line, seen from above: then nothing holds the shell from tipping. */
export function onOneLine(places: readonly { readonly x: number; readonly y: number }[]): boolean {
  const [x, y] = (['x', 'y'] as const).map((axis) => places.reduce((sum, at) => sum + at[axis], 0) / places.length);
  let [xx, xy, yy] = [0, 0, 0];
  for (const at of places) {
    xx += (at.x - x!) ** 2;
    xy += (at.x - x!) * (at.y - y!);
    yy += (at.y - y!) ** 2;
  }
  const half = (xx + yy) / 2;
  const least = half - Math.sqrt(Math.max(0, half ** 2 - (xx * yy - xy ** 2)));
  return least <= 1e-6 * (xx + yy);
}
