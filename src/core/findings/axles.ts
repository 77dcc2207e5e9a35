import { Symmetric } from '../maths/linear/symmetric';
import { judge, type Verdict } from '../maths/statistics/verdict';
import type { AxleReading } from '../shell/job/entities';

/** A figure with two standard deviations, and what that says against its limit. */
export interface AxleFigure {
  readonly value: number;
  readonly plusMinus: number;
  readonly verdict: Verdict;
}

/** How the axles stand to each other; mm but for the angle. */
export interface Axles {
  /** Left wheelbase less right. */
  readonly difference: AxleFigure;
  /** How far the rear axle is turned in plan, °; above zero where its right wheel stands further forward than its left. */
  readonly turned: { readonly degrees: number; readonly plusMinus: number };
  /** How far the middle of the rear axle stands to the right of the line square to the front one. Nothing without diagonals. */
  readonly aside?: AxleFigure;
  /** How far the four lengths contradict each other, in standard deviations; beyond 3 one of them is read wrong. */
  readonly contradiction?: number;
}

/** Where the rear axle stands to the front one: behind it, to its right, turned (rad). */
type Stance = readonly [back: number, aside: number, turned: number];

/** From one wheel to another, as the tracks and a stance have it. */
function lengthsOf({ frontTrack, rearTrack }: AxleReading, [back, aside, turned]: Stance): readonly number[] {
  const [front, rear] = [frontTrack / 2, rearTrack / 2];
  const [s, c] = [Math.sin(turned), Math.cos(turned)];
  const wheel = (side: 1 | -1) => [back - side * rear * s, aside + side * rear * c] as const;
  const length = (from: 1 | -1, to: 1 | -1) => Math.hypot(wheel(to)[0], wheel(to)[1] - from * front);
  // Left wheelbase, right one, left front to right rear, right front to left rear.
  return [length(-1, -1), length(1, 1), length(-1, 1), length(1, -1)];
}

/** mm and rad */
const STEPS = [1e-3, 1e-3, 1e-6] as const;
const ROUNDS = 8;

/**
 * Where the rear axle stands to the front one, from both wheelbases, both diagonals and the tracks: least squares of four lengths
 * over three unknowns, by Gauss's method. The fourth length checks the others. Without diagonals, or with such that no two axles have,
 * the wheelbases alone say how far it is turned, and nothing says whether it stands aside.
 */
export function axlesOf(reading: AxleReading): Axles {
  const { leftBase, rightBase, leftDiagonal, rightDiagonal, rearTrack, sd, most } = reading;
  const difference = figure(leftBase - rightBase, Math.SQRT2 * sd, most);
  const byBases = Math.asin(Math.max(-1, Math.min(1, (leftBase - rightBase) / rearTrack)));
  const bare = { difference, turned: inDegrees(byBases, (Math.SQRT2 * sd) / rearTrack) };
  if (leftDiagonal === null || rightDiagonal === null) return bare;
  const read = [leftBase, rightBase, leftDiagonal, rightDiagonal];
  let stance: Stance = [(leftBase + rightBase) / 2, 0, 0];
  let normal = Symmetric.zeros(3);
  for (let k = 0; k < ROUNDS; k++) {
    const at = lengthsOf(reading, stance);
    const rows = STEPS.map((step, j) => {
      const moved = lengthsOf(reading, stance.map((value, i) => value + (i === j ? step : 0)) as unknown as Stance);
      return moved.map((value, i) => (value - at[i]!) / step);
    });
    normal = Symmetric.zeros(3);
    const right = new Float64Array(3);
    for (let i = 0; i < 3; i++) {
      for (let j = 0; j <= i; j++)
        normal.set(
          i,
          j,
          rows[i]!.reduce((sum, value, n) => sum + value * rows[j]![n]!, 0),
        );
      right[i] = rows[i]!.reduce((sum, value, n) => sum + value * (read[n]! - at[n]!), 0);
    }
    const by = normal.factor()?.solve(right);
    if (!by?.every(Number.isFinite)) return bare;
    stance = stance.map((value, i) => value + by[i]!) as unknown as Stance;
  }
  const cofactor = normal.inverse();
  const sdOf = (i: number) => sd * Math.sqrt(cofactor.get(i, i));
  const residuals = lengthsOf(reading, stance).map((value, i) => value - read[i]!);
  return {
    difference,
    turned: inDegrees(stance[2], sdOf(2)),
    aside: figure(stance[1], sdOf(1), most),
    contradiction: Math.hypot(...residuals) / sd,
  };
}

const figure = (value: number, sd: number, most: number): AxleFigure => {
  const { verdict, plusMinus } = judge(value, sd, most);
  return { value, plusMinus, verdict };
};

const inDegrees = (radians: number, sd: number): Axles['turned'] => ({
  degrees: (radians * 180) / Math.PI,
  plusMinus: (2 * sd * 180) / Math.PI,
});
